import fc from 'fast-check';
import { expect, it } from 'vitest';
import { conversionRate } from './conversion-rate.ts';
import { wilson } from './wilson.ts';

it.each<[what: string, visitors: number, converters: number, of: [number, number]]>([
  ['nobody yet', 0, 0, [0, 0]],
  ['a converter whose showing was never heard of', 0, 1, [1, 1]],
  ['more converters than visitors heard of', 2, 3, [3, 3]],
  ['the usual', 148, 15, [15, 148]],
])('%s', (_what, visitors, converters, [successes, trials]) => {
  expect(conversionRate({ visitors, converters })).toEqual(wilson(successes, trials));
});

it('throws for no counts whatever', () => {
  fc.assert(
    fc.property(fc.double(), fc.double(), (visitors, converters) => {
      const { low, high } = conversionRate({ visitors, converters });
      expect(low).toBeLessThanOrEqual(high);
    }),
  );
});
