import { expect, it } from 'vitest';
import { numberOf } from './numbers.ts';

const UP_TO_NINETEEN =
  'one two three four five six seven eight nine ten eleven twelve thirteen fourteen fifteen sixteen seventeen eighteen nineteen';
const TENS = 'twenty thirty forty fifty sixty seventy eighty ninety';

it('numbers in words are those in digits', () => {
  const words = UP_TO_NINETEEN.split(' ');
  words.forEach((word, n) => {
    expect([word, numberOf(word)]).toEqual([word, n + 1]);
  });
  TENS.split(' ').forEach((ten, n) => {
    expect([ten, numberOf(ten)]).toEqual([ten, (n + 2) * 10]);
    words.slice(0, 9).forEach((one, ones) => {
      expect(numberOf(`${ten}-${one}`)).toBe((n + 2) * 10 + ones + 1);
      expect(numberOf(`${ten} ${one}`)).toBe((n + 2) * 10 + ones + 1);
    });
  });
});

it.each([
  ['half an', 0.5],
  ['a couple of', 2],
  ['a dozen', 12],
  ['a hundred', 100],
  ['7', 7],
  ['2.5', 2.5],
  [' Nine ', 9],
])('%j is %d', (said, number) => {
  expect(numberOf(said)).toBe(number);
});
