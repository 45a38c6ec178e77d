import { BUCKETS } from '@velarium/contract/values';
import fc from 'fast-check';
import { expect, it } from 'vitest';
import { type Allotment, allot } from './allot.ts';

const shares = (weights: Readonly<Record<string, number>>) =>
  Object.entries(weights).map(([id, weight]) => ({ id, weight }));
const sizeOf = (allotment: Allotment, id: string) =>
  (allotment[id] ?? []).reduce((sum, [from, to]) => sum + to - from, 0);
const ownerOf = (allotment: Allotment) => {
  const owners = new Array<string | undefined>(BUCKETS).fill(undefined);
  for (const [id, ranges] of Object.entries(allotment)) {
    for (const [from, to] of ranges) {
      for (let bucket = from; bucket < to; bucket++) {
        if (owners[bucket] !== undefined) throw new Error(`bucket ${bucket} is shared out twice`);
        owners[bucket] = id;
      }
    }
  }
  return owners;
};

it('without a before, one after the other', () => {
  expect(allot(shares({ a: 50, b: 30, c: 20 }))).toEqual({
    a: [[0, 5000]],
    b: [[5000, 8000]],
    c: [[8000, 10_000]],
  });
});

it('by the largest remainders, and nothing of what weighs nothing', () => {
  // A third each leaves one bucket over, a seventh each four: who comes first has them.
  expect(allot(shares({ a: 1, b: 1, c: 1 }))).toEqual({
    a: [[0, 3334]],
    b: [[3334, 6667]],
    c: [[6667, 10_000]],
  });
  const seventh = allot(shares({ a: 1, b: 2, c: 4 }));
  // 1428.57, 2857.14 and 5714.29: the first has the largest part left.
  expect(['a', 'b', 'c'].map((id) => sizeOf(seventh, id))).toEqual([1429, 2857, 5714]);
  expect(allot(shares({ a: 0, b: 0 }))).toEqual({ a: [], b: [] });
});

it('what is given back side by side is one range again', () => {
  const before = allot(shares({ a: 1, b: 1, c: 1, d: 1 }));
  expect(allot(shares({ a: 1 }), before)).toEqual({ a: [[0, BUCKETS]] });
  expect(allot(shares({ d: 1 }), before)).toEqual({ d: [[0, BUCKETS]] });
});

it('adding a variant moves just its share, and nobody between those that keep theirs', () => {
  const before = allot(shares({ a: 80, b: 10, c: 10 }));
  const after = allot(shares({ a: 70, b: 10, c: 10, d: 10 }), before);
  const [was, is] = [ownerOf(before), ownerOf(after)];
  const moved = was
    .map((owner, bucket) => (owner === is[bucket] ? '' : `${owner}${is[bucket]}`))
    .filter(Boolean);
  expect(moved).toHaveLength(1000);
  expect(new Set(moved)).toEqual(new Set(['ad']));
});

it('the last bucket is taken too, wherever it lies', () => {
  const before: Allotment = {
    a: [
      [2, BUCKETS],
      [0, 1],
    ],
    b: [[1, 2]],
  };
  expect(sizeOf(allot(shares({ b: 1 }), before), 'b')).toBe(BUCKETS);
});

it('whatever the weights become, as few buckets move as must, and all of them are somebody’s', () => {
  const weights = fc.dictionary(fc.constantFrom('a', 'b', 'c', 'd', 'e'), fc.integer({ min: 0, max: 100 }), {
    minKeys: 1,
  });
  fc.assert(
    fc.property(fc.array(weights, { minLength: 1, maxLength: 5 }), (steps) => {
      let allotment: Allotment = {};
      for (const step of steps) {
        fc.pre(Object.values(step).some((weight) => weight > 0));
        const next = allot(shares(step), allotment);
        const [was, is] = [ownerOf(allotment), ownerOf(next)];
        expect(is.every((owner) => owner !== undefined)).toBe(true);
        expect(
          Object.values(next)
            .flat()
            .every(([from, to]) => from < to),
        ).toBe(true);
        const total = Object.values(step).reduce((sum, weight) => sum + weight, 0);
        for (const [id, weight] of Object.entries(step))
          expect(Math.abs(sizeOf(next, id) - (weight * BUCKETS) / total)).toBeLessThan(1);
        if (Object.keys(allotment).length > 0) {
          const ids = new Set([...Object.keys(allotment), ...Object.keys(next)]);
          const least = [...ids].reduce(
            (sum, id) => sum + Math.max(0, sizeOf(allotment, id) - sizeOf(next, id)),
            0,
          );
          expect(was.filter((owner, bucket) => owner !== is[bucket])).toHaveLength(least);
        }
        allotment = next;
      }
    }),
    { numRuns: 60 },
  );
});
