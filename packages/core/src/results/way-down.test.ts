import { describe, expect, it } from 'vitest';
import { wayDown } from './way-down.ts';

const counts = {
  showings: 0,
  clicks: 0,
  closes: 0,
  closedSoon: 0,
  conversions: 0,
  visitors: 200,
  viewers: 150,
  clickers: 0,
  writers: 0,
  converters: 30,
  withheld: 0,
};
const steps = (change: Partial<typeof counts> = {}, confirmed = 0) =>
  wayDown({ counts: { ...counts, ...change }, confirmed }).map(({ id, count, left, ofFirst }) => [
    id,
    count,
    left,
    ofFirst,
  ]);

describe('the way down', () => {
  it('goes from who was shown it to who converted, and says at each step who did not come so far', () => {
    expect(steps()).toEqual([
      ['shown', 200, null, 1],
      ['seen', 150, 50, 0.75],
      ['converted', 30, 120, 0.15],
    ]);
  });
  it('has the steps that somebody took, even one', () => {
    expect(steps({ clickers: 1, writers: 1 }, 1)).toEqual([
      ['shown', 200, null, 1],
      ['seen', 150, 50, 0.75],
      ['clicked', 1, 149, 0.005],
      ['begun', 1, 0, 0.005],
      ['converted', 30, 0, 0.15],
      ['confirmed', 1, 29, 0.005],
    ]);
  });
  it('is never wider than its beginning, and of nobody it is nothing', () => {
    expect(steps({ visitors: 10, viewers: 20 })[1]).toEqual(['seen', 20, 0, 1]);
    expect(steps({ visitors: 0, viewers: 0, converters: 0 })).toEqual([
      ['shown', 0, null, 0],
      ['seen', 0, 0, 0],
      ['converted', 0, 0, 0],
    ]);
    expect(steps({ visitors: 1, viewers: 1, converters: 1 }).map((step) => step[3])).toEqual([1, 1, 1]);
  });
});
