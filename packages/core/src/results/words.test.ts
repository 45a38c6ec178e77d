import { describe, expect, it, test } from 'vitest';
import { compareStretches } from '../statistics/before-after.ts';
import {
  beforeAfterWords,
  chanceWords,
  closedSoonWords,
  costWords,
  differenceWords,
  intervalWords,
  partWords,
  percent,
  pointsWords,
  shareOf,
  unevennessWords,
} from './words.ts';

test.each([
  [0, '0 %'],
  [0.0031, '0.31 %'],
  [0.0099, '0.99 %'],
  [0.01, '1.0 %'],
  [0.015, '1.5 %'],
  [0.099, '9.9 %'],
  [0.1, '10 %'],
  [0.745, '75 %'],
  [-0.2, '-20 %'],
])('a share of %d is %s', (share, words) => {
  expect(percent(share)).toBe(words);
});
test.each([
  [0.999, '99.9 %'],
  [0.9991, 'more than 99.9 %'],
  [0.001, '0.1 %'],
  [0.0009, 'less than 0.1 %'],
  [0.5, '50.0 %'],
])('a chance of %d is %s', (chance, words) => {
  expect(chanceWords(chance)).toBe(words);
});
it('a difference of rates is one of points, and one that rounds to none is neither more nor less', () => {
  expect([0.012, -0.004, 0.0004, -0.0004, 0].map(pointsWords)).toEqual(['+1.2', '−0.4', '0.0', '0.0', '0.0']);
  expect(differenceWords({ value: null, low: -1, high: 1 })).toBe('nothing to compare with');
  expect(costWords(0.0004)).toBe('0.04 points');
});
it('a part of nothing has no share', () => {
  expect([shareOf(1, 4), shareOf(1, 1), shareOf(0, 0), shareOf(2, 0)]).toEqual(['25 %', '100 %', '', '']);
});

describe('before and after in words', () => {
  const found = {
    before: 10,
    after: 20,
    ratio: 2,
    low: 1.5,
    high: 2.7,
    chance: 0.025,
    unevenness: 1,
    daysBefore: 14,
    daysAfter: 7,
  };
  it('says how much, how surely, and how often chance alone would do it', () => {
    expect(beforeAfterWords(found)).toBe(
      '10.0 a day before, 20.0 after: 2.00 times as many (1.50 to 2.70). Chance alone would do this once in 40.',
    );
    expect(beforeAfterWords({ ...found, low: 0.9, chance: 0.6 })).toMatch(
      /That may be chance: it would do as much more often than not\.$/,
    );
    expect(beforeAfterWords({ ...found, low: 0.2, high: 0.9 })).toMatch(/Chance alone would do this/);
    expect(beforeAfterWords({ ...found, chance: 1e-6 })).toMatch(/once in 1,000,000\.$/);
    expect(beforeAfterWords({ ...found, chance: 1e-7 })).toMatch(/once in 1,000,000 or more\.$/);
  });
  it('says where there is too little, or nothing', () => {
    const little =
      '10.0 a day before, 20.0 after. There is too little on one side to say whether that is a change.';
    expect(beforeAfterWords({ ...found, ratio: null })).toBe(little);
    expect(beforeAfterWords({ ...found, chance: null })).toBe(little);
    for (const none of [{ daysBefore: 0 }, { daysAfter: 0 }])
      expect(beforeAfterWords({ ...found, ...none })).toBe('There are no days on one side of this date.');
  });
  it('says how uneven the days are, where that is more than chance', () => {
    expect(unevennessWords({ ...found, unevenness: 1.05 })).toBe(
      '14 days against 7 days. These days are no more uneven than chance makes them.',
    );
    expect(unevennessWords({ ...found, unevenness: 1.64 })).toMatch(
      /^14 days against 7 days\. These days are 1\.6 times/,
    );
  });
});

test.each([
  ['device', 'mobile', 'phone'],
  ['country', 'no', 'Norway'],
  ['country', '??', '??'],
  ['language', 'cy', 'Welsh'],
  ['written', 'de', 'German'],
  ['cause', 'scroll', 'scroll depth'],
  ['cause', 'other', 'other'],
  ['hour', '9', '9:00'],
  ['weekday', '1', 'Monday'],
  ['weekday', '7', 'Sunday'],
  ['version', '3', 'version 3'],
  ['variant', 'b', 'variant B'],
  ['page', '/a', '/a'],
  ['page', null, 'not known'],
  ['group', null, 'in no group'],
  ['source', null, 'typed in, or not known'],
] as const)('by %s, %s is %s', (by, key, words) => {
  expect(partWords(by, key)).toBe(words);
});

describe('words of results', () => {
  test.each([
    [0, '0 %'],
    [0.0031, '0.31 %'],
    [0.074, '7.4 %'],
    [0.12, '12 %'],
    [1, '100 %'],
  ])('%d is %s', (share, words) => {
    expect(percent(share)).toBe(words);
  });
  test.each([
    [1, 'more than 99.9 %'],
    [0.9731, '97.3 %'],
    [0.5, '50.0 %'],
    [0.0002, 'less than 0.1 %'],
  ])('a chance of %d: %s', (chance, words) => {
    expect(chanceWords(chance)).toBe(words);
  });
  it('closes before anybody can have read', () => {
    expect(closedSoonWords([])).toBe('No message was closed on these days.');
    expect(
      closedSoonWords([
        { closes: 3, closedSoon: 1 },
        { closes: 1, closedSoon: 0 },
      ]),
    ).toBe('Of 4 closes, 1 came within two seconds of the opening (25 %): those messages were not read.');
  });
  it('intervals and differences', () => {
    expect(intervalWords({ low: 0.061, high: 0.089 })).toBe('6.1 to 8.9 %');
    expect(differenceWords({ value: 0.012, low: -0.003, high: 0.021 })).toBe('+1.2 points (−0.3 to +2.1)');
    expect(differenceWords({ value: null, low: -1, high: 1 })).toBe('nothing to compare with');
  });
  const stretch = (from: number, count: number, days: number) =>
    Array.from({ length: days }, (_, n) => ({
      day: new Date(Date.UTC(2026, 8, 7 + from + n)).toISOString().slice(0, 10),
      count,
    }));
  it('before and after', () => {
    const clear = compareStretches(stretch(0, 20, 14), stretch(14, 40, 14));
    expect(beforeAfterWords(clear)).toMatch(
      /^20\.0 a day before, 40\.0 after: 2\.00 times as many \(1\.7\d to 2\.3\d\)\. Chance alone would do this once in 1,000,000 or more\.$/,
    );
    expect(unevennessWords(clear)).toBe(
      '14 days against 14 days. These days are no more uneven than chance makes them.',
    );
    // 20 against 26 a day, over a week each.
    expect(beforeAfterWords({ ...clear, ratio: 1.3, low: 1.05, high: 1.6, chance: 0.0164 })).toMatch(
      /Chance alone would do this once in 61\.$/,
    );
    expect(beforeAfterWords({ ...clear, chance: 1e-6 })).toMatch(/once in 1,000,000\.$/);
    // An interval that ends at no change at all has not shown one.
    expect(beforeAfterWords({ ...clear, low: 0.5, high: 1, chance: 0.5 })).toMatch(
      /That may be chance: it would do as much once in 2\.$/,
    );
    expect(beforeAfterWords({ ...clear, low: 1, high: 2, chance: 0.51 })).toMatch(
      /That may be chance: it would do as much more often than not\.$/,
    );
    const unclear = compareStretches(stretch(0, 20, 14), stretch(14, 21, 14));
    expect(beforeAfterWords(unclear)).toMatch(
      /That may be chance: it would do as much (once in 2|more often than not)\.$/,
    );
    for (const [old, young] of [
      [stretch(0, 4, 0), stretch(14, 4, 14)],
      [stretch(0, 4, 14), stretch(14, 4, 0)],
    ] as const)
      expect(beforeAfterWords(compareStretches(old, young))).toBe(
        'There are no days on one side of this date.',
      );
    expect(beforeAfterWords(compareStretches(stretch(0, 0, 14), stretch(14, 4, 14)))).toMatch(
      /too little on one side/,
    );
    expect(beforeAfterWords(compareStretches([], stretch(0, 4, 14)))).toBe(
      'There are no days on one side of this date.',
    );
  });
});

it.each([
  [0.0123, '+1.2'],
  [-0.004, '−0.4'],
  [0, '0.0'],
  [-0.0004, '0.0'],
])('a difference of %s is %s points', (share, words) => expect(pointsWords(share)).toBe(words));
