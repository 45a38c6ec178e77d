import { describe, expect, it } from 'vitest';
import { rateDifference } from './difference.ts';
import { pairedDifference } from './paired.ts';

/** Numbers from 0 to below 1, the same each time (Lehmer, 1949; Park and Miller's multiplier). */
function lehmer(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state * 48_271) % 2_147_483_647;
    return state / 2_147_483_647;
  };
}

describe('the difference of pairs', () => {
  it('equals the worked example: 21 children, one with an airway that reacts only before and seven only after', () => {
    // Fagerland, Lydersen and Laake (2014), "Recommended tests and confidence intervals for paired binomial proportions",
    // the interval of Bonett and Price for their first example; the figures are from memory, and follow by hand.
    const { value, low, high } = pairedDifference({ pairs: 21, gained: 1, lost: 7 });
    expect(value).toBeCloseTo(-6 / 21, 12);
    expect(low).toBeCloseTo(-0.508, 3);
    expect(high).toBeCloseTo(-0.013, 3);
  });
  it('is the other way round with its sides changed, holds what it is of, and says nothing of nobody', () => {
    for (const [gained, lost] of [
      [0, 0],
      [40, 3],
      [3, 40],
      [100, 0],
    ] as const) {
      const there = pairedDifference({ pairs: 100, gained, lost });
      const back = pairedDifference({ pairs: 100, gained: lost, lost: gained });
      expect(there.low).toBeCloseTo(-back.high, 12);
      expect(there.low).toBeLessThanOrEqual(there.value ?? Number.NaN);
      expect(there.high).toBeGreaterThanOrEqual(there.value ?? Number.NaN);
    }
    expect(pairedDifference({ pairs: 0, gained: 0, lost: 0 })).toEqual({ value: null, low: -1, high: 1 });
  });
  it('is far narrower than that of two rates by themselves, where most pairs agree', () => {
    const paired = pairedDifference({ pairs: 1000, gained: 20, lost: 5 });
    const alone = rateDifference({ visitors: 1000, converters: 300 }, { visitors: 1000, converters: 315 });
    expect(paired.low).toBeGreaterThan(0);
    expect(alone.low).toBeLessThan(0);
  });
  it.each([
    [60, 0.05, 0.05],
    [400, 0.02, 0.06],
    [4000, 0.1, 0.02],
  ])('of %d pairs covers as often as it says', (pairs, gains, loses) => {
    const random = lehmer(4711);
    const RUNS = 2000;
    let held = 0;
    for (let run = 0; run < RUNS; run++) {
      let [gained, lost] = [0, 0];
      for (let n = 0; n < pairs; n++) {
        const one = random();
        if (one < gains) gained++;
        else if (one < gains + loses) lost++;
      }
      const { low, high } = pairedDifference({ pairs, gained, lost });
      if (low <= gains - loses && gains - loses <= high) held++;
    }
    // 95 %, less three standard errors of a share of two thousand; with few pairs it holds oftener.
    expect(held / RUNS).toBeGreaterThan(0.935);
    expect(held / RUNS).toBeLessThan(0.985);
  });
});
