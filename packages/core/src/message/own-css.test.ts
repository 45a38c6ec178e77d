import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { HOSTILE } from '../testing/arbitrary-message.ts';
import { readOwnCss } from './own-css.ts';

describe('CSS of one’s own', () => {
  it.each([
    ['letter-spacing: .04em', { 'letter-spacing': '.04em' }],
    ['Text-Transform:uppercase; line-height: 1.4;', { 'text-transform': 'uppercase', 'line-height': '1.4' }],
    ['border-inline-start: 3px solid #c0392b', { 'border-inline-start': '3px solid #c0392b' }],
    [
      'background: linear-gradient(120deg, var(--accent), rgb(0 0 0 / 20%))',
      { background: 'linear-gradient(120deg, var(--accent), rgb(0 0 0 / 20%))' },
    ],
    ['', {}],
  ])('%j is taken', (text, declarations) => {
    expect(readOwnCss(text)).toEqual({ declarations, fault: undefined });
  });
  it.each([
    ['display: none', /“display” cannot be set here/],
    ['position: fixed', /“position” cannot be set here/],
    ['opacity: 0', /“opacity” cannot be set here/],
    ['background: url(https://elsewhere.example/x.png)', /holds a sign it may not hold/],
    ['background: url(x)', /“url\(\)” cannot be used here/],
    ['background: image-set(1x)', /“image-set\(\)” cannot be used here/],
    ['color: red} .close{display:none', /holds a sign it may not hold/],
    ['color: \\75rl(x)', /holds a sign it may not hold/],
    ['color', /write “color: value”/],
    ['line-height: calc(1', /not closed/],
    ['line-height: 1) (', /not closed/],
  ])('%j is refused with its reason', (text, reason) => {
    expect(readOwnCss(text).fault).toMatch(reason);
  });
  it('what is right beside what is wrong holds', () => {
    expect(readOwnCss('color: red; display: none; line-height: 2')).toMatchObject({
      declarations: { color: 'red', 'line-height': '2' },
      fault: '“display” cannot be set here',
    });
  });
  it('whatever is written, nothing that could end a rule, begin another or load anything comes out', () => {
    const someText = fc
      .array(
        fc.oneof(
          fc.constantFrom(
            ...HOSTILE,
            'color',
            'background',
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
          expect(value).not.toMatch(/[{}<>;:@"'\\]|url|\/\*.*\(|[^\w-](image|src)\(/i);
        }
      }),
      { numRuns: 2000 },
    );
  });
});
