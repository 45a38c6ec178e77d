import { expect, it } from 'vitest';
import { isSumAnswered, sumOf } from './sum.ts';

const NUMBERS = { one: 1, two: 2, three: 3, four: 4, five: 5 } as const;

it.each(['form2026-11-25', 'ask', '', 'ž'])(
  'the sum of %j is right in figures and as a word, and only then',
  (seed) => {
    const { question, isRight, sent } = sumOf(seed);
    const [, a, b] = /What is (\w+) and (\w+) together\?/.exec(question) as unknown as [
      string,
      keyof typeof NUMBERS,
      keyof typeof NUMBERS,
    ];
    const right = NUMBERS[a] + NUMBERS[b];
    for (let n = 0; n <= 12; n++) {
      expect(isRight(` ${n} `)).toBe(n === right);
      expect(isSumAnswered(sent(` ${n} `))).toBe(n === right);
    }
  },
);
it.each([
  ['2+2=4', true],
  ['2+2=FOUR', true],
  ['2+2=5', false],
  ['6+1=7', false],
  ['2+2=', false],
  ['4', false],
])('%j as an answer: %s', (sent, isAnswered) => expect(isSumAnswered(sent)).toBe(isAnswered));
