import { describe, expect, it } from 'vitest';
import { besideWords, forecastWords, gainShareWords, gainWords } from './forecast-words.ts';

describe('a forecast in words', () => {
  const none = { value: 0, low: 0, high: 0 };
  const one = {
    campaign: 'a',
    devices: { desktop: 0, tablet: 0, mobile: 0 },
    pages: [],
    gaveWay: [],
    byDay: [],
    way: [],
  };
  it.each([
    [
      {
        reached: { value: 1234, low: 1180, high: 1290 },
        showings: { value: 1481, low: 0, high: 0 },
        second: 12,
      },
      '1,234 of 11,690 visitors would meet it (1,180 to 1,290), 1.2 times each, half of the times by 0:12 of a page.',
    ],
    [{ reached: none, showings: none, second: null }, 'none of 11,690 visitors would meet it.'],
    // So few of a sample that none of the whole is left, or of whom no time is known.
    [{ reached: none, showings: none, second: 4 }, 'none of 11,690 visitors would meet it.'],
    [
      { reached: { value: 1, low: 0, high: 3 }, showings: none, second: null },
      'none of 11,690 visitors would meet it.',
    ],
  ])('%#', (figures, words) => {
    expect(forecastWords({ ...one, ...figures }, 11_690)).toBe(words);
  });
});

it.each([
  [
    { value: 171, low: 150, high: 190 },
    1943,
    'The other reaches 171 visitors more: +9 % (+8 to +10), on the same visits.',
  ],
  [
    { value: 1, low: -1, high: 3 },
    100,
    'The other reaches 1 visitor more: +1 % (−1 to +3), on the same visits.',
  ],
  [
    { value: -1, low: -3, high: 1 },
    100,
    'The other reaches 1 visitor fewer: −1 % (−3 to +1), on the same visits.',
  ],
  [
    { value: 0, low: 0, high: 0 },
    50,
    'The other reaches as many visitors: 0 % (0 to 0), on the same visits.',
  ],
])('another rule beside it, %j of %i', (gain, reached, words) =>
  expect(besideWords(gain, reached)).toBe(words),
);

describe('how many more or fewer', () => {
  it.each([
    [{ value: 120, low: 90, high: 1150 }, '+120 (+90 to +1,150) against now'],
    [{ value: -3, low: -9, high: 3 }, '−3 (−9 to +3) against now'],
    [{ value: 0, low: -2, high: 2 }, 'as now'],
    [{ value: 0, low: 0, high: 0 }, 'as now'],
  ])('%j in words', (one, words) => {
    expect(gainWords(one)).toBe(words);
  });
  it.each([
    [{ value: 41, low: 38, high: 44 }, 100, '+41 % (+38 to +44)'],
    [{ value: 0, low: -1, high: 1 }, 1000, '0 % (0 to 0)'],
    [{ value: -5, low: -9, high: -1 }, 50, '−10 % (−18 to −2)'],
    [{ value: 12, low: 8, high: 15 }, 0, '12 instead of none'],
    [{ value: 0, low: 0, high: 0 }, 0, 'nothing'],
    [{ value: 50, low: 40, high: 60 }, 100, '+50 % (+40 to +60)'],
  ])('%j of %d as a share', (one, reached, words) => {
    expect(gainShareWords(one, reached)).toBe(words);
  });
});
