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

it('a sum is asked and answered in other words and figures, and is read again without knowing which', () => {
  const numbers = 'صفر واحد اثنان ثلاثة أربعة خمسة ستة سبعة ثمانية تسعة عشرة';
  const { question, isRight, sent } = sumOf('form', { sum: 'كم يساوي {a} زائد {b}؟', numbers });
  const words = numbers.split(' ');
  const [a = -1, b = -1] =
    question
      .match(/(\S+) زائد (\S+?)؟/)
      ?.slice(1)
      .map((word) => words.indexOf(word)) ?? [];
  const sum = a + b;
  for (const answer of [
    `${sum}`,
    words[sum] ?? '',
    `${sum}`.replace(/\d/g, (figure) => '٠١٢٣٤٥٦٧٨٩'[Number(figure)] ?? ''),
  ]) {
    expect(isRight(answer)).toBe(true);
    expect(isSumAnswered(sent(answer))).toBe(true);
  }
  expect(isRight('٩')).toBe(sum === 9);
  expect(isSumAnswered(sent('٠'))).toBe(false);
});
