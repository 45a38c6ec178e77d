import { expect, it } from 'vitest';
import { ordinal } from './words.ts';

it('counts as English does', () => {
  const all = [1, 2, 3, 4, 9, 10, 11, 12, 13, 14, 20, 21, 22, 23, 24, 101, 110, 111, 112, 113, 114, 121];
  expect(all.map(ordinal).join(' ')).toBe(
    '1st 2nd 3rd 4th 9th 10th 11th 12th 13th 14th 20th 21st 22nd 23rd 24th 101st 110th 111th 112th 113th 114th 121st',
  );
});
