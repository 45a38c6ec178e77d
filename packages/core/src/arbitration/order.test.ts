import fc from 'fast-check';
import { expect, it } from 'vitest';
import { placeInOrder } from './order.ts';

it('who is moved up goes before what is below, who is moved down after what is above, while there are priorities left', () => {
  const order = fc
    .array(fc.integer({ min: 1, max: 9 }), { maxLength: 12 })
    .map((list) => list.sort((a, b) => b - a));
  fc.assert(
    fc.property(
      order,
      fc.nat(12),
      fc.constantFrom('up' as const, 'down' as const),
      (others, wanted, moved) => {
        const at = Math.min(wanted, others.length);
        const priority = placeInOrder(others, at, moved);
        expect(priority).toBeGreaterThanOrEqual(1);
        expect(priority).toBeLessThanOrEqual(9);
        const [above = 10, below = 0] = [others[at - 1], others[at]];
        if (moved === 'up') expect(priority > below || priority === 9).toBe(true);
        else expect(priority < above || priority === 1).toBe(true);
      },
    ),
  );
});
it.each([
  [[], 0, 'up', 5],
  [[5], 0, 'up', 6],
  [[5], 1, 'down', 4],
  [[9], 0, 'up', 9],
  [[8, 2], 1, 'up', 5],
  [[6, 5], 1, 'up', 6],
  [[6, 5], 1, 'down', 5],
  [[5, 5, 5], 2, 'up', 6],
  [[5, 5, 5], 1, 'down', 4],
] as const)('among %j at %i, moved %s: %i', (others, at, moved, priority) =>
  expect(placeInOrder(others, at, moved)).toBe(priority),
);
