import { describe, expect, it, test } from 'vitest';
import {
  beforeAfterWords,
  chanceWords,
  costWords,
  differenceWords,
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
