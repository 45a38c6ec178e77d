import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { HOSTILE } from '../testing/arbitrary-message.ts';
import { readOwnCss } from './own-css.ts';

describe('CSS of one’s own', () => {
  it.each([
    ['letter-spacing: .04em', { 'letter-spacing': '.04em' }],
    ['Text-Transform:uppercase; line-height: 1.4;', { 'text-transform': 'uppercase', 'line-height': '1.4' }],
    ['border-inline-start: 3px solid #c0392b', { 'border-inline-start': '3px solid #c0392b' }],
    ['box-shadow: 0 2px 12px rgb(0 0 0 / 20%)', { 'box-shadow': '0 2px 12px rgb(0 0 0 / 20%)' }],
    ['filter: grayscale(1) sepia(20%)', { filter: 'grayscale(1) sepia(20%)' }],
    ['text-decoration: underline 2px', { 'text-decoration': 'underline 2px' }],
    ['', {}],
    // As much as each unit may be.
    ['line-height: 3em', { 'line-height': '3em' }],
    ['letter-spacing: -0.1em', { 'letter-spacing': '-0.1em' }],
    ['letter-spacing: -0.1rem', { 'letter-spacing': '-0.1rem' }],
    ['text-shadow: -12px 40px 3ch red', { 'text-shadow': '-12px 40px 3ch red' }],
    ['line-height: 300%', { 'line-height': '300%' }],
    ['line-height: 90%', { 'line-height': '90%' }],
    ['line-height: 0.9em', { 'line-height': '0.9em' }],
    ['line-height: 0.9', { 'line-height': '0.9' }],
    ['line-height: 3', { 'line-height': '3' }],
    ['line-height: 10px', { 'line-height': '10px' }],
    ['letter-spacing: -2', { 'letter-spacing': '-2' }],
    ['list-style-type: 1000', { 'list-style-type': '1000' }],
    ['text-shadow: 3rem 3ex red', { 'text-shadow': '3rem 3ex red' }],
    ['letter-spacing: -0.1ch', { 'letter-spacing': '-0.1ch' }],
    ['letter-spacing: -0.1ex', { 'letter-spacing': '-0.1ex' }],
    ['word-spacing: 0%', { 'word-spacing': '0%' }],
    ['font-style: oblique 360deg', { 'font-style': 'oblique 360deg' }],
    ['font-style: oblique 1turn', { 'font-style': 'oblique 1turn' }],
  ])('%j is taken', (text, declarations) => {
    expect(readOwnCss(text)).toEqual({ declarations, fault: undefined });
  });
  it.each([
    ['display: none', /“display” cannot be set here/],
    ['position: fixed', /“position” cannot be set here/],
    ['opacity: 0', /“opacity” cannot be set here/],
    ['border-top: url(x)', /“url\(\)” cannot be used here/],
    ['list-style-type: image-set(1x)', /“image-set\(\)” cannot be used here/],
    ['accent-color: red /*', /holds a sign it may not hold/],
    ['accent-color: red */ } .close { display: none', /holds a sign it may not hold/],
    ['outline: 9999px solid', /“outline” cannot be set here/],
    ['box-shadow: 0 0 0 9999px red', /“9999px” of “box-shadow” is out of bounds/],
    ['box-shadow: 0 0 0 1e9px red', /out of bounds/],
    ['box-shadow: -9999px 0 0 40px red', /out of bounds/],
    ['border-left: 100vw solid', /“vw” cannot be used/],
    ['margin-left: -9999px', /“margin-left” has a field of its own/],
    ['text-indent: -9999px', /cannot be set here/],
    ['letter-spacing: -40px', /out of bounds/],
    ['line-height: 0', /out of bounds/],
    ['line-height: 3.1em', /out of bounds/],
    ['letter-spacing: -0.11em', /out of bounds/],
    ['letter-spacing: -0.11rem', /out of bounds/],
    ['text-shadow: -13px 0 red', /out of bounds/],
    ['text-shadow: 0 41px red', /out of bounds/],
    ['text-shadow: 0 3.1ch red', /out of bounds/],
    ['line-height: 301%', /out of bounds/],
    ['font-style: oblique 361deg', /out of bounds/],
    ['font-style: oblique -1.1turn', /out of bounds/],
    ['line-height: .1em', /lines on one another/],
    ['line-height: 0.89em', /lines on one another/],
    ['line-height: 89%', /lines on one another/],
    ['line-height: 9px', /lines on one another/],
    ['line-height: 3.1', /0.9 to 3$/],
    ['line-height: 0.8', /0.9 to 3$/],
    ['letter-spacing: -3', /out of bounds/],
    ['list-style-type: 1001', /out of bounds/],
    ['text-shadow: 3.1rem 0 red', /out of bounds/],
    ['text-shadow: 0 3.1ex red', /out of bounds/],
    ['letter-spacing: -0.11ch', /out of bounds/],
    ['letter-spacing: -0.11ex', /out of bounds/],
    ['word-spacing: -1%', /out of bounds/],
    ['font-style: oblique 1.1turn', /out of bounds/],
    ['font-style: oblique -361deg', /out of bounds/],
    ['filter: opacity(0)', /“opacity\(\)” cannot be used here/],
    ['filter: blur(90px)', /“blur\(\)” cannot be used here/],
    ['color: transparent', /“color” has a field of its own/],
    ['text-wrap: nowrap', /“nowrap”/],
    ['text-shadow: calc(1px + 9999px) 0 red', /“calc\(\)” cannot be used here/],
    ['letter-spacing: var(--x)', /“var\(\)” cannot be used here/],
    ['accent-color: red} .close{display:none', /holds a sign it may not hold/],
    ['accent-color: \\75rl(x)', /holds a sign it may not hold/],
    ['accent-color', /write “accent-color: value”/],
    ['accent-color: rgb(1', /not closed/],
    ['accent-color: red) (', /not closed/],
  ])('%j is refused with its reason', (text, reason) => {
    expect(readOwnCss(text).fault).toMatch(reason);
  });
  it('what is right beside what is wrong holds', () => {
    expect(readOwnCss('accent-color: red; display: none; line-height: 2')).toMatchObject({
      declarations: { 'accent-color': 'red', 'line-height': '2' },
      fault: '“display” cannot be set here',
    });
  });
  it('whatever is written, nothing that could end a rule, begin another or load anything comes out', () => {
    const someText = fc
      .array(
        fc.oneof(
          fc.constantFrom(
            ...HOSTILE,
            'accent-color',
            'box-shadow',
            '9999px',
            'red',
            ':',
            ';',
            'url(',
            ')',
            '{',
            '}',
            '/*',
            '"',
            '\\',
            '@import',
          ),
          fc.string({ maxLength: 8 }),
        ),
        { maxLength: 12 },
      )
      .map((parts) => parts.join(''));
    fc.assert(
      fc.property(someText, (text) => {
        for (const [name, value] of Object.entries(readOwnCss(text).declarations)) {
          expect(name).toMatch(/^[a-z-]+$/);
          expect(value).not.toMatch(/[{}<>;:@"'\\*]|url|[^\w-](image|src)\(|\d{4}px/i);
        }
      }),
      { numRuns: 2000 },
    );
  });
});
