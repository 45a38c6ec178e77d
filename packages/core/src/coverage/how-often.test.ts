import type { ManifestCampaign } from '@velarium/contract';
import { describe, expect, it } from 'vitest';
import { howOften, oftenWords, shortFigure } from './how-often.ts';

const page = (path: string) => ({ path, title: '', kind: null, source: 'hand' as const, views: 0 });
const [A, B] = ['a', 'b'].map((id) => ({ id }) as ManifestCampaign) as [ManifestCampaign, ManifestCampaign];
const map = { pages: [page('/'), page('/tours'), page('/tours/east')], campaigns: [A, B] };

const PLAIN = { pageParameters: [], hashRoutes: false };

describe('how often each campaign was met where', () => {
  const often = howOften(
    map,
    [
      { campaign: 'a', path: '/', showings: 3 },
      { campaign: 'b', path: '/tours/', showings: 5 },
      { campaign: 'b', path: '/tours?utm_source=letter', showings: 2 },
      { campaign: 'b', path: '/tours/east#map', showings: 1 },
      { campaign: 'b', path: '/gone', showings: 90 },
      { campaign: 'gone', path: '/', showings: 90 },
    ],
    PLAIN,
  );
  it('is counted by the page itself, however its address was written', () => {
    expect([0, 1, 2].map((n) => [often.times([n], 0), often.times([n], 1)])).toEqual([
      [3, 0],
      [0, 7],
      [0, 1],
    ]);
  });
  it('adds up over pages, and knows the most of one cell', () => {
    expect(often.times([0, 1, 2], 1)).toBe(8);
    expect(often.times([], 1)).toBe(0);
    expect(often.most).toBe(7);
  });
  it('of nothing is nothing', () => {
    expect(howOften(map, [], PLAIN).most).toBe(0);
  });
  it('pages that a parameter or a route tells apart are counted apart', () => {
    const shop = { ...map, pages: [page('/boat?id=1'), page('/boat?id=2'), page('/app#/a')] };
    const rows = ['/boat?id=2&utm_source=x', '/boat?ID=1', '/boat?id=2', '/app#/a', '/app#/b'];
    const one = howOften(
      shop,
      rows.map((path) => ({ campaign: 'a', path, showings: 1 })),
      { pageParameters: ['id'], hashRoutes: true },
    );
    expect([0, 1, 2].map((n) => one.times([n], 0))).toEqual([0, 2, 1]);
  });
});

it.each([
  [0, 'met', 'not met in the last 28 days'],
  [1, 'met', 'met once in the last 28 days on all devices'],
  [1200, 'met', 'met 1,200 times in the last 28 days on all devices'],
  [0, 'foreseen', 'would not be met in 28 days'],
  [1, 'foreseen', 'would be met once in 28 days on all devices'],
  [40, 'foreseen', 'would be met about 40 times in 28 days on all devices'],
] as const)('%i, %s', (times, say, words) => expect(oftenWords(times, say)).toBe(words));

it.each([
  [0, '0'],
  [999, '999'],
  [1000, '1k'],
  [1290, '1.2k'],
  [9999, '9.9k'],
  [10_000, '10k'],
  [1_234_567, '1,234k'],
])('%i is said as %s where there is little room', (count, words) => expect(shortFigure(count)).toBe(words));
