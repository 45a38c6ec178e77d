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
      { campaign: 'a', path: '/', device: 'mobile', showings: 3 },
      { campaign: 'b', path: '/tours/', device: 'mobile', showings: 5 },
      { campaign: 'b', path: '/tours?utm_source=letter', device: 'mobile', showings: 2 },
      { campaign: 'b', path: '/tours/east#map', device: 'mobile', showings: 1 },
      { campaign: 'b', path: '/gone', device: 'mobile', showings: 90 },
      { campaign: 'gone', path: '/', device: 'mobile', showings: 90 },
      { campaign: 'a', path: '/', device: 'desktop', showings: 11 },
    ],
    PLAIN,
    'mobile',
  );
  it('is counted by the page itself, however its address was written, and on one kind of device', () => {
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
    expect(howOften(map, [], PLAIN, 'tablet').most).toBe(0);
  });
  it('pages that a parameter or a route tells apart are counted apart', () => {
    const shop = { ...map, pages: [page('/boat?id=1'), page('/boat?id=2'), page('/app#/a')] };
    const rows = ['/boat?id=2&utm_source=x', '/boat?ID=1', '/boat?id=2', '/app#/a', '/app#/b'];
    const one = howOften(
      shop,
      rows.map((path) => ({ campaign: 'a', path, device: 'mobile', showings: 1 })),
      { pageParameters: ['id'], hashRoutes: true },
      'mobile',
    );
    expect([0, 1, 2].map((n) => one.times([n], 0))).toEqual([0, 2, 1]);
  });
});

it.each([
  [0, 'desktop', 'met', 'not met on desktops in the last 28 days'],
  [1, 'tablet', 'met', 'met once on tablets in the last 28 days'],
  [1200, 'mobile', 'met', 'met 1,200 times on phones in the last 28 days'],
  [0, 'mobile', 'foreseen', 'would not be met on phones in 28 days'],
  [1, 'desktop', 'foreseen', 'would be met once on desktops in 28 days'],
  [40, 'tablet', 'foreseen', 'would be met about 40 times on tablets in 28 days'],
] as const)('%i on a %s, %s', (times, device, say, words) =>
  expect(oftenWords(times, device, say)).toBe(words),
);

it.each([
  [0, '0'],
  [999, '999'],
  [1000, '1k'],
  [1290, '1.2k'],
  [9999, '9.9k'],
  [10_000, '10k'],
  [1_234_567, '1,234k'],
])('%i is said as %s where there is little room', (count, words) => expect(shortFigure(count)).toBe(words));
