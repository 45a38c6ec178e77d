import fc from 'fast-check';
import { expect, it } from 'vitest';
import { placeInOrder } from './order.ts';

it('the place asked for is the place taken, as far as nine priorities can tell', () => {
  const order = fc
    .array(fc.integer({ min: 1, max: 9 }), { maxLength: 12 })
    .map((list) => list.sort((a, b) => b - a));
  fc.assert(
    fc.property(order, fc.nat(12), (others, wanted) => {
      const at = Math.min(wanted, others.length);
      const priority = placeInOrder(others, at);
      expect(priority).toBeGreaterThanOrEqual(1);
      expect(priority).toBeLessThanOrEqual(9);
      expect(priority).toBeLessThanOrEqual(others[at - 1] ?? 9);
      expect(priority).toBeGreaterThanOrEqual(others[at] ?? 1);
    }),
  );
});
it.each([
  [[], 0, 5],
  [[5], 0, 6],
  [[5], 1, 4],
  [[9], 0, 9],
  [[8, 2], 1, 5],
])('among %j at %i: %i', (others, at, priority) => expect(placeInOrder(others, at)).toBe(priority));
