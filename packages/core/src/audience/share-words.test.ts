import type { AudienceShare } from '@velarium/contract';
import { expect, it } from 'vitest';
import { audienceShareWords, shareInside } from './share-words.ts';

const share: AudienceShare = {
  visitors: 5400,
  isSample: false,
  inside: 1240,
  of: 5400,
  low: 0.2186,
  high: 0.2409,
  unheard: [],
};

it.each<[what: string, change: Partial<AudienceShare>, words: string]>([
  ['counted', {}, '1,240 of the 5,400 visitors of the last 30 days would have been in it (23 %).'],
  [
    'one visitor',
    { visitors: 1, of: 1, inside: 0 },
    '0 of the 1 visitor of the last 30 days would have been in it (0 %).',
  ],
  ['nobody yet', { visitors: 0, of: 0, inside: 0 }, 'No visit was recorded in the last 30 days.'],
  [
    'reckoned from a sample, with its interval',
    { isSample: true, visitors: 54_000 },
    'About 12,400 of about 54,000 visitors of the last 30 days would have been in it: 22 to 24 %, reckoned from 5,400 of them.',
  ],
  [
    'what nobody told is said',
    { unheard: ['basketItems', 'basketTotal', 'signedIn'], inside: 0 },
    '0 of the 5,400 visitors of the last 30 days would have been in it (0 %). No page told of a basket and whether somebody is signed in, so it counts as not known of anybody.',
  ],
])('%s', (_what, change, words) => {
  expect(audienceShareWords({ ...share, ...change })).toBe(words);
});

it.each([
  [81, 263, 81 / 263],
  [0, 5, 0],
  [0, 0, 0],
])('%i of %i is the part %d', (inside, of, part) => {
  expect(shareInside({ inside, of })).toBe(part);
});
