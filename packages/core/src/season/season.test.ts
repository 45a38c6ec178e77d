import type { Anchor, Schedule, SitePage } from '@velarium/contract';
import { describe, expect, it } from 'vitest';
import { cellsOf } from '../arbitration/cells.ts';
import { coverSite } from '../coverage/coverage.ts';
import { PLAIN_STYLE } from '../message/plain.ts';
import { plainSettings } from '../testing/arbitrary.ts';
import { campaign, time } from '../testing/begin-page-view.ts';
import {
  type Lane,
  lanesOf,
  localDays,
  meetings,
  meetingWords,
  movedSchedule,
  quietWeeks,
  type ScheduleEdge,
  type Seasonal,
  wholeDays,
} from './season.ts';

const LONDON = 'Europe/London';
const at = (iso: string) => Date.parse(iso);
const always: Schedule = { zone: 'site', start: null, end: null, days: [], hours: [], blackouts: [] };
const one = (id: string, of: Partial<Schedule> | null = null, isLive = true): Seasonal => {
  const schedule = of && { ...always, ...of };
  return { id, name: id.toUpperCase(), schedule, published: isLive ? schedule : undefined };
};
const page = (path: string): SitePage => ({ path, title: path, kind: null, source: 'sitemap', views: 1 });
const flyin = (anchor: Anchor) => cellsOf([{ format: 'flyin', anchor, style: PLAIN_STYLE }]);
const WINDOW = [at('2026-12-01T00:00Z'), at('2027-01-01T00:00Z')] as const;
const cover = (...campaigns: ReturnType<typeof campaign>[]) =>
  coverSite({
    manifest: {
      v: 1,
      parts: ['extras', 'rare'],
      asksEdge: false,
      timeZone: LONDON,
      site: plainSettings,
      campaigns,
    },
    origin: 'https://quillonfell.example',
    pages: [page('/'), page('/tours'), page('/shop')],
    device: 'desktop',
    visitor: null,
    atMs: WINDOW[0],
  });
const on = (...keys: string[]) => ({ includeKeys: keys, include: [] });
const at5 = { moment: { triggers: [time(5)] } };

describe('two campaigns meet', () => {
  const early = one('a', { end: '2026-12-15T00:00' });
  const late = one('b', { start: '2026-12-10T00:00' });
  it('at the same time, on the same pages, in one place; the one that can open first goes first', () => {
    const lanes = lanesOf([early, late], WINDOW, LONDON);
    const found = meetings(
      lanes,
      cover(campaign('a', on('/tours', '/shop')), campaign('b', { ...on('/tours'), ...at5 })),
    );
    expect(found).toEqual([
      { first: 1, second: 0, pages: 1, when: [[at('2026-12-10T00:00Z'), at('2026-12-15T00:00Z')]] },
    ]);
    expect(meetingWords(found[0] as (typeof found)[0], lanes)).toMatch(
      /^“B” and “A” want one place on 1 page:/,
    );
  });
  it.each<[what: string, seasons: Seasonal[], campaigns: ReturnType<typeof campaign>[]]>([
    ['not at different times', [one('a', { end: '2026-12-10T00:00' }), late], [campaign('a'), campaign('b')]],
    ['not on different pages', [early, late], [campaign('a', on('/tours')), campaign('b', on('/shop'))]],
    [
      'not in different corners',
      [early, late],
      [
        campaign('a', { devices: 1, cells: flyin('bottom-start') }),
        campaign('b', { devices: 1, cells: flyin('bottom-end') }),
      ],
    ],
    [
      'not on different devices',
      [early, late],
      [campaign('a', { devices: 1 }), campaign('b', { devices: 4 })],
    ],
    [
      'not by day and by night',
      [
        one('a', { hours: [{ from: '08:00', to: '20:00' }] }),
        one('b', { hours: [{ from: '20:00', to: '08:00' }] }),
      ],
      [campaign('a'), campaign('b')],
    ],
    ['not with one that is in no manifest', [early, late], [campaign('a')]],
  ])('%s', (_, seasons, campaigns) => {
    expect(meetings(lanesOf(seasons, WINDOW, LONDON), cover(...campaigns))).toEqual([]);
  });
  it('also where each is closed today, or on this device', () => {
    const seasons = [one('a', { start: '2026-12-20T00:00' }), one('b', { start: '2026-12-20T00:00' })];
    const found = meetings(
      lanesOf(seasons, WINDOW, LONDON),
      cover(
        campaign('a', { devices: 4, schedule: { ...always, start: '2026-12-20T00:00' } }),
        campaign('b', { devices: 4, schedule: { ...always, start: '2026-12-20T00:00' } }),
      ),
    );
    expect(found).toMatchObject([{ first: 0, second: 1, pages: 3 }]);
  });
});

describe('days and weeks', () => {
  it('are as long as the clocks of the zone make them', () => {
    // IANA: Europe/London goes to summer time on 29 March 2026 and back on 25 October.
    const hours = (from: string, to: string) =>
      localDays([at(from), at(to)], LONDON).map(([begin, end]) => (end - begin) / 3_600_000);
    expect(hours('2026-03-28T00:00Z', '2026-03-30T00:00Z')).toEqual([24, 23, 24]);
    expect(hours('2026-10-24T00:00+01:00', '2026-10-26T00:00Z')).toEqual([24, 25]);
  });
  it('without anything live are quiet, from Monday to Monday', () => {
    const lanes = lanesOf(
      [one('a', { end: '2026-12-08T12:00' }), one('b', { start: '2026-12-22T00:00' }), one('c', null, false)],
      WINDOW,
      LONDON,
    );
    expect(quietWeeks(lanes, WINDOW, LONDON)).toEqual([[at('2026-12-14T00:00Z'), at('2026-12-21T00:00Z')]]);
  });
});

it('what visitors meet is what was published, whatever the draft says', () => {
  const changed = { ...one('a', { start: '2026-12-20T00:00' }), published: null };
  const [lane] = lanesOf([changed], WINDOW, LONDON);
  expect(lane?.open).toEqual([[at('2026-12-20T00:00Z'), WINDOW[1]]]);
  expect(lane?.live).toEqual([WINDOW]);
  expect(quietWeeks([lane as Lane], WINDOW, LONDON)).toEqual([]);
});

describe('a schedule is moved', () => {
  const from = (start: string | null, end: string | null) => ({ ...always, start, end });
  it.each<[edge: ScheduleEdge, days: number, start: string | null, end: string | null]>([
    ['start', 7, '2026-12-31T18:00', '2027-01-10T00:00'],
    ['end', -7, '2026-12-24T18:00', '2027-01-03T00:00'],
    ['both', 8, '2027-01-01T18:00', '2027-01-18T00:00'],
  ])('by its %s, %i days', (edge, days, start, end) => {
    const schedule = from('2026-12-24T18:00', '2027-01-10T00:00');
    expect(movedSchedule(schedule, edge, days)).toEqual(from(start, end));
  });
  it('over the end of a February, and where it has one end only', () => {
    expect(movedSchedule(from('2028-03-01T09:30', null), 'both', -1)).toEqual(from('2028-02-29T09:30', null));
    expect(movedSchedule(from(null, '2026-12-31T00:00'), 'end', 1)).toEqual(from(null, '2027-01-01T00:00'));
  });
  it('and never ends before it begins', () => {
    const schedule = from('2026-12-24T00:00', '2026-12-25T00:00');
    expect(movedSchedule(schedule, 'start', 1)).toBeUndefined();
    expect(movedSchedule(schedule, 'end', -1)).toBeUndefined();
    expect(movedSchedule(schedule, 'both', 400)).toBeDefined();
  });
});

it('whole days are as long as the clocks make them, the last one in it', () => {
  const hours = ([begin, end]: readonly [number, number]) => (end - begin) / 3_600_000;
  expect(hours(wholeDays({ from: '2026-03-29', to: '2026-03-29' }, LONDON))).toBe(23);
  expect(hours(wholeDays({ from: '2026-12-24', to: '2026-12-26' }, LONDON))).toBe(72);
});
