import { readOwnCss } from '@velarium/core';
import { parse } from 'css-tree';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { ownCssFault } from '../src/campaigns/assert-own-css.ts';

describe('CSS of one’s own, read by a whole parser before it is saved', () => {
  it.each([
    'letter-spacing: .04em',
    'text-transform: uppercase; line-height: 1.4',
    'border-inline-start: 3px solid #c0392b',
    'box-shadow: 0 2px 12px rgb(0 0 0 / 20%)',
    '',
  ])('%j is taken', (text) => expect(ownCssFault(text)).toBeUndefined());
  it.each([
    ['letter-spacing: banana', /“banana” is no value of “letter-spacing”/],
    ['text-transform: 12px', /no value/],
    ['accent-color: red /*', /holds a sign/],
    ['display: none', /cannot be set here/],
  ])('%j is refused: %s', (text, reason) => expect(ownCssFault(text)).toMatch(reason));
  it('whatever core lets through is one declaration to the parser, alone in its rule', () => {
    const piece = fc.constantFrom(
      ...[
        'accent-color',
        'box-shadow',
        'letter-spacing',
        'filter',
        'border-top',
        ':',
        ';',
        ' ',
        ',',
        '/',
        '*',
        '/*',
        '*/',
      ],
      ...[
        'red',
        '1px',
        '-2px',
        '9999px',
        'rgb(',
        'sepia(',
        ')',
        '}',
        '{',
        '!important',
        '#fff',
        '"',
        "'",
        '\\',
        '<!--',
        '-->',
        '@',
        '1e3',
      ],
    );
    fc.assert(
      fc.property(fc.array(piece, { maxLength: 14 }), (parts) => {
        for (const [property, value] of Object.entries(readOwnCss(parts.join('')).declarations)) {
          const sheet = parse(`a{${property}:${value}}b{color:red}`);
          expect(sheet.type === 'StyleSheet' && sheet.children.size).toBe(2);
        }
      }),
      { numRuns: 5000 },
    );
  });
});
