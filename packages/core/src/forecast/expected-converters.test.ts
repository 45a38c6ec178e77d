import { describe, expect, it } from 'vitest';
import { wilson } from '../statistics/wilson.ts';
import { seededRandom } from '../traffic/seeded-random.ts';
import { expectedConverters } from './expected-converters.ts';

const reached = { value: 1000, low: 950, high: 1050 };

describe('conversions that are to be expected', () => {
  it('are those reached times the rate that was measured, with both intervals', () => {
    // Wilson of 20 in 400: 0.0326 to 0.0760 (by its formula, worked by hand).
    expect(expectedConverters(reached, { visitors: 400, converters: 20 })).toEqual({
      value: 50,
      low: 30,
      high: 80,
    });
  });
  it('are none where nothing was measured, and few where nobody has converted', () => {
    expect(expectedConverters(reached, { visitors: 0, converters: 0 })).toBeNull();
    const none = expectedConverters(reached, { visitors: 50, converters: 0 });
    expect(none).toMatchObject({ value: 0, low: 0 });
    expect(none?.high).toBeGreaterThan(50);
  });
  it('hold at least as often as they say', () => {
    const random = seededRandom(7);
    const [share, rate, people] = [0.3, 0.06, 2000];
    const drawn = (count: number, chance: number) =>
      Array.from({ length: count }, () => random() < chance).filter(Boolean).length;
    const held = Array.from({ length: 300 }, () => {
      const met = drawn(people, share);
      const { low, high } = wilson(met, people);
      const expected = expectedConverters(
        { value: met, low: low * people, high: high * people },
        { visitors: 500, converters: drawn(500, rate) },
      );
      const truth = people * share * rate;
      return expected !== null && expected.low <= truth && truth <= expected.high;
    });
    expect(held.filter(Boolean).length / held.length).toBeGreaterThan(0.94);
  });
});
