import type { Pages } from '@velarium/contract';
import { expect, test } from 'vitest';
import { followsInCircle, NO_SITE_PAGES } from './resolve-pages.ts';

const follows = (to: string | null): Pages => ({ include: [], exclude: [], follows: to });

test.each<[string, Record<string, string | null>, string, string | null, boolean]>([
  ['itself', { a: 'a' }, 'a', 'a', true],
  ['nobody', {}, 'a', null, false],
  ['one that follows nobody', { b: null }, 'a', 'b', false],
  ['one that leads back', { b: 'c', c: 'a' }, 'a', 'b', true],
  // A circle that was there before must not be gone round for ever.
  ['one that goes round in a circle of others', { b: 'c', c: 'b' }, 'a', 'b', false],
  ['one that is gone', {}, 'a', 'b', false],
])('following %s', (_what, of, from, to, isCircle) => {
  const site = {
    ...NO_SITE_PAGES,
    pagesOfCampaign: (id: string) => (id in of ? follows(of[id] ?? null) : undefined),
  };
  expect(followsInCircle(from, to, site)).toBe(isCircle);
});
