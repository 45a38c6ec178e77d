import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compileRegex, compileWildcard, PatternError } from './compile.ts';
import { matches } from './run.ts';

/** Random patterns of the subset, as source text. */
const somePattern = fc.letrec<{ choice: string; piece: string; atom: string }>((tie) => ({
  atom: fc.oneof(
    { maxDepth: 2 },
    fc.constantFrom('a', 'b', '/', '.', '[ab]', '[^a]', '[a-c]', '\\d', '\\W', '\\/', '^', '$', '[\\w-]'),
    tie('choice').map((inner) => `(${inner})`),
    tie('choice').map((inner) => `(?:${inner})`),
  ),
  piece: fc
    .tuple(tie('atom'), fc.constantFrom('', '', '', '*', '+', '?', '{2}', '{1,2}', '{1,}', '*?'))
    .map(([atom, mark]) => (/^[\^$]$/.test(atom) ? atom : atom + mark)),
  choice: fc
    .array(fc.array(tie('piece'), { maxLength: 3 }), { minLength: 1, maxLength: 2 })
    .map((parts) => parts.map((part) => part.join('')).join('|')),
})).choice;
/** Short, because the browser’s own engine takes exponential time for some patterns. */
const someText = fc.string({ unit: fc.constantFrom('a', 'b', 'c', '/', '1', ' ', '-'), maxLength: 6 });

it('agrees with the browser’s own regular expressions (ECMAScript)', () => {
  fc.assert(
    fc.property(somePattern, fc.array(someText, { minLength: 1, maxLength: 6 }), (pattern, texts) => {
      const program = compileRegex(pattern);
      const native = new RegExp(pattern);
      for (const text of texts)
        expect([pattern, text, matches(program, text)]).toEqual([pattern, text, native.test(text)]);
    }),
    { numRuns: 2000 },
  );
});

it('what takes a backtracking engine for ever takes it no time', () => {
  const text = `${'a'.repeat(5000)}!`;
  for (const pattern of ['^(a+)+$', '^(a|a)*$', '^(a|aa)+$', '(a*)*b', 'a*a*a*a*a*a*b']) {
    expect(matches(compileRegex(pattern), text)).toBe(false);
  }
});

describe('what cannot be done in linear time, or is no pattern, is refused with its reason', () => {
  it.each([
    ['(a', /group is not closed/],
    ['a)', /\) closes nothing/],
    ['[a', /class is not closed/],
    ['*a', /nothing to repeat/],
    ['a{3,1}', /must not be smaller/],
    ['a{99}', /at most 50/],
    ['a{x', /a number is expected/],
    ['(?=a)', /looking ahead/],
    ['(?<n>a)', /looking ahead or behind and named groups/],
    ['(a)\\1', /\\1 cannot be used/],
    ['a\\', /backslash at the end/],
    ['[b-a]', /runs backwards/],
    ['((a{50}){50}){50}', /too large/],
  ])('%s', (pattern, reason) => {
    expect(() => compileRegex(pattern)).toThrow(PatternError);
    expect(() => compileRegex(pattern)).toThrow(reason);
  });
});

describe('wildcards', () => {
  it.each([
    ['/journal/*', '/journal/aurora', true],
    ['/journal/*', '/journal/aurora/part-2', false],
    ['/journal/*', '/journal', false],
    ['/journal/**', '/journal/aurora/part-2', true],
    ['/shop/**', '/shop', false],
    ['/*/first-light', '/night-tours/first-light', true],
    ['/a.c', '/abc', false],
    ['/a+(b)', '/a+(b)', true],
    ['**', '/anything?a=b', true],
    ['/a*', '/a?b=c', false],
  ])('%s and %s: %s', (pattern, address, expected) => {
    expect(matches(compileWildcard(pattern), address)).toBe(expected);
  });
});

it.each([
  '(((((){50}){50}){50}){50}){50}',
  '((((((){50}){50}){50}){50}){50}){50}',
  '(((a{0}){50}){50}){50}',
  '((((|)){50}){50}){50}',
  '((((^*){50}){50}){50}){50}',
])('%s is refused as too large, at once: its work is bounded, not only what it comes to', (pattern) => {
  const startMs = performance.now();
  expect(() => compileRegex(pattern)).toThrow(/too large/);
  expect(performance.now() - startMs).toBeLessThan(500);
});
