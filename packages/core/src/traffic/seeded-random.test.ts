import { expect, it } from 'vitest';
import { seededRandom } from './seeded-random.ts';

const BITS = 2n ** 32n;
/** mulberry32 in whole numbers of any size, as its author describes it; from memory. */
function reference(seed: number): () => number {
  let state = BigInt(seed);
  const times = (a: bigint, b: bigint) => (a * b) % BITS;
  return () => {
    state = (state + 0x6d2b79f5n) % BITS;
    let t = times(state ^ (state >> 15n), state | 1n);
    t ^= (t + times(t ^ (t >> 7n), t | 61n)) % BITS;
    return Number(t ^ (t >> 14n)) / 2 ** 32;
  };
}

it.each([0, 1, 7, 2 ** 31, 2 ** 32 - 1])('draws from %s what is drawn in whole numbers', (seed) => {
  const [ours, theirs] = [seededRandom(seed), reference(seed)];
  for (let n = 0; n < 1000; n++) expect(ours()).toBe(theirs());
});
it('draws evenly, from 0 to below 1', () => {
  const chance = seededRandom(1);
  const drawn = Array.from({ length: 10_000 }, chance);
  expect(Math.min(...drawn)).toBeGreaterThanOrEqual(0);
  expect(Math.max(...drawn)).toBeLessThan(1);
  for (let tenth = 0; tenth < 10; tenth++)
    expect(drawn.filter((one) => Math.floor(one * 10) === tenth).length / 1000).toBeCloseTo(1, 0.5);
});
