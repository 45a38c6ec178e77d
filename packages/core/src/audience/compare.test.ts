import { expect, it } from 'vitest';
import { compare } from './compare.ts';

it.each([
  ['exactly', [false, true, false]],
  ['atLeast', [false, true, true]],
  ['atMost', [true, true, false]],
] as const)('%s three holds of two, three, four: %j', (comparison, holds) =>
  expect([2, 3, 4].map((value) => compare(value, comparison, 3))).toEqual(holds),
);
