import { describe, expect, it } from 'vitest';
import { compileRegex, PatternError } from './compile.ts';
import { matches } from './run.ts';

/** The code points where classes begin and end, and their neighbours on either side. */
const POINTS = [
  ...Array.from({ length: 0x180 }, (_, point) => point),
  ...[0x1680, 0x2000, 0x200a, 0x2028, 0x2029, 0x202f, 0x205f, 0x3000, 0xfeff].flatMap((at) => [
    at - 1,
    at,
    at + 1,
  ]),
  0x10000,
  0x1f319,
  0x10ffff,
];

it.each([
  '.',
  '\\s',
  '\\S',
  '\\d',
  '\\D',
  '\\w',
  '\\W',
  '[\\S]',
  '[^\\S]',
  '[\\W_]',
  '[^\\W]',
  '[\\D]',
  '[a-]',
  '[-a]',
  '[a-a]',
  '[^\\n-\\r]',
  '[\\t\\f\\v\\0]',
  '\\t',
  '\\f',
  '\\v',
  '\\0',
  '[.*+?]',
])('%s holds what it holds in ECMAScript, character by character', (pattern) => {
  const [program, native] = [compileRegex(`^${pattern}$`), new RegExp(`^${pattern}$`, 'u')];
  for (const point of POINTS) {
    const text = String.fromCodePoint(point);
    expect([point, matches(program, text)]).toEqual([point, native.test(text)]);
  }
});

describe('a pattern may be so large', () => {
  const isTaken = (pattern: string) => {
    try {
      compileRegex(pattern);
      return true;
    } catch (error) {
      if (error instanceof PatternError) return false;
      throw error;
    }
  };
  it.each<[what: string, most: string, tooMuch: string]>([
    ['fifty repetitions', 'a{50}', 'a{51}'],
    ['fifty at most', 'a{0,50}', 'a{0,51}'],
    ['fifty at least', 'a{50,}', 'a{51,}'],
    [
      'twenty groups in one another',
      `${'('.repeat(20)}a${')'.repeat(20)}`,
      `${'('.repeat(21)}a${')'.repeat(21)}`,
    ],
    // With the one that says that it has matched.
    ['two thousand instructions', 'a'.repeat(1999), 'a'.repeat(2000)],
    [
      'twenty thousand parts, those that come to nothing too',
      `(?:${'(){50}'.repeat(7)}){50}`,
      `(?:${'(){50}'.repeat(8)}){50}`,
    ],
  ])('%s', (_, most, tooMuch) => {
    expect([isTaken(most), isTaken(tooMuch)]).toEqual([true, false]);
  });
  it.each<[pattern: string, at: number]>([
    ['ab)', 3],
    ['*', 1],
    ['a{51}', 2],
    ['[z-a]', 4],
    ['a\\1', 2],
    ['[\\1]', 2],
    ['[a\\', 3],
    ['a\\', 2],
    ['a(b', 2],
    ['a[b', 2],
  ])('what is wrong with %s is told with its place', (pattern, at) => {
    expect(() => compileRegex(pattern)).toThrow(new RegExp(`\\(at character ${at}\\)$`));
  });
  it('a repetition is what its numbers say', () => {
    const times = (pattern: string) =>
      Array.from({ length: 8 }, (_, n) => matches(compileRegex(`^(?:${pattern})$`), 'a'.repeat(n)))
        .map((is) => (is ? '●' : '○'))
        .join('');
    expect([
      times('a{0}'),
      times('a{3}'),
      times('a{2,}'),
      times('a{2,4}'),
      times('a{0,2}'),
      times('a+?'),
      times('a*?'),
      times('a??'),
      times('(a{2}){1,3}'),
      times('a|aaa|'),
    ]).toEqual([
      '●○○○○○○○',
      '○○○●○○○○',
      '○○●●●●●●',
      '○○●●●○○○',
      '●●●○○○○○',
      '○●●●●●●●',
      '●●●●●●●●',
      '●●○○○○○○',
      '○○●○●○●○',
      '●●○●○○○○',
    ]);
  });
});
