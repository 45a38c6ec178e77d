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

describe('classes of characters, at their edges (ECMAScript)', () => {
  const EDGES = [
    0, 8, 9, 13, 14, 31, 32, 47, 48, 57, 58, 64, 65, 90, 91, 94, 95, 96, 97, 122, 123, 160, 161, 0x1680,
  ]
    .concat([0x2000, 0x200a, 0x2028, 0x2029, 0x202f, 0x205f, 0x3000, 0xfeff, 0xffff])
    .map((code) => String.fromCodePoint(code));
  it.each(['\\w', '\\W', '\\d', '\\D', '\\s', '\\S', '.', '[^a-y]', '[\\W\\d]', '[^\\s]'])(
    '%s',
    (pattern) => {
      const program = compileRegex(`^${pattern}$`);
      const native = new RegExp(`^${pattern}$`);
      for (const character of EDGES)
        expect([character.codePointAt(0), matches(program, character)]).toEqual([
          character.codePointAt(0),
          native.test(character),
        ]);
    },
  );
  it.each(['a{12}', 'a{1,12}', 'a{10,}', 'a{20,45}'])('%s counts in more than one figure', (pattern) => {
    const program = compileRegex(`^${pattern}$`);
    for (const count of [0, 1, 9, 10, 11, 12, 13, 19, 20, 44, 45, 46])
      expect([count, matches(program, 'a'.repeat(count))]).toEqual([
        count,
        new RegExp(`^${pattern}$`).test('a'.repeat(count)),
      ]);
  });
});
