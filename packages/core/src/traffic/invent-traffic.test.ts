import { trafficSchema } from '@velarium/contract';
import { describe, expect, it } from 'vitest';
import { murmur32 } from '../assignment/murmur.ts';
import { wallClock } from '../schedule/zone.ts';
import { inventTraffic, USUAL_SITE } from './invent-traffic.ts';
import { trafficWords } from './traffic-words.ts';

const UNTIL_MS = Date.parse('2026-11-24T15:00Z');
const invent = (change: Partial<Parameters<typeof inventTraffic>[0]> = {}) =>
  inventTraffic({
    site: USUAL_SITE,
    paths: ['/', '/about', '/shop', '/contact'],
    days: 28,
    untilMs: UNTIL_MS,
    timeZone: 'Europe/London',
    ...change,
  });
const ordered = (values: number[]) => [...values].sort((a, b) => a - b);

describe('invented visits', () => {
  const traffic = invent();
  const views = traffic.list.flatMap(({ pages }) => pages);

  it('are visits that can be replayed, the same each time', () => {
    expect(trafficSchema.parse(traffic)).toEqual(traffic);
    expect(invent()).toEqual(traffic);
    expect(trafficWords('invented', traffic)).toMatch(/^[\d,]+ visitors in 28 days, invented, replayed$/);
  });

  it('are what was said of the site', () => {
    const stays = ordered(views.map(({ seconds }) => seconds ?? 0));
    expect(stays[Math.floor(stays.length / 2)]).toBeGreaterThan(23);
    expect(stays[Math.floor(stays.length / 2)]).toBeLessThan(27);
    const phones = traffic.list.filter(({ device }) => device === 'mobile').length / traffic.list.length;
    expect(Math.abs(phones - USUAL_SITE.phoneShare)).toBeLessThan(0.03);
    expect(new Set(traffic.list.map(({ device, system }) => `${device} ${system}`))).toEqual(
      new Set(['desktop windows', 'tablet android', 'mobile android']),
    );
    // 300 visits a day of 2.5 pages.
    expect(Math.abs(views.length / (300 * 28 * 2.5) - 1)).toBeLessThan(0.05);
    for (const phoneShare of [0, 1])
      expect(
        new Set(
          invent({ site: { ...USUAL_SITE, phoneShare } }).list.map(({ device }) => device === 'mobile'),
        ),
      ).toEqual(new Set([phoneShare === 1]));
  });

  it('come from where, when and how often visits of small sites do', () => {
    const first = traffic.list.map(({ pages }) => pages[0]?.path);
    const share = (of: readonly unknown[], value: unknown) =>
      of.filter((one) => one === value).length / of.length;
    const sources = traffic.list.map(({ source }) => source);
    for (const [source, expected] of [
      ['search', 0.42],
      ['direct', 0.33],
      ['social', 0.12],
      ['site', 0.08],
      ['mail', 0.05],
    ] as const)
      expect(share(sources, source)).toBeCloseTo(expected, 1.5);
    // Half begin on the first page, and of the rest, the second is seen twice as often as the third.
    expect(share(first, '/')).toBeCloseTo(0.5, 1.5);
    const paths = views.map(({ path }) => path);
    expect(share(paths, '/about') / share(paths, '/shop')).toBeGreaterThan(1.8);
    expect(share(paths, '/about') / share(paths, '/shop')).toBeLessThan(2.2);
    expect(share(paths, '/about') / share(paths, '/contact')).toBeGreaterThan(2.7);
    expect(share(paths, '/about') / share(paths, '/contact')).toBeLessThan(3.3);
    const tablets = traffic.list.filter(({ device }) => device === 'tablet').length;
    expect(tablets / traffic.list.filter(({ device }) => device !== 'mobile').length).toBeCloseTo(0.06, 1.5);
    expect(Math.max(...views.map(({ seconds }) => seconds ?? 0))).toBeLessThanOrEqual(1800);
    // Two of three stays lie within one spread of the middle one, by their logarithm.
    const within = views.filter(
      ({ seconds }) => Math.abs(Math.log((seconds ?? 0) / USUAL_SITE.staySeconds)) < 1,
    );
    expect(within.length / views.length).toBeCloseTo(0.683, 1.5);
    expect(new Set(traffic.list.map(({ session }) => session))).toEqual(new Set([1]));
  });

  it('are what they were: a forecast that was kept with a launch was made over these very visits', () => {
    const whole = (_key: string, value: unknown) => (typeof value === 'number' ? Math.round(value) : value);
    expect(murmur32(JSON.stringify(traffic, whole))).toBe(1_130_789_611);
  });

  it('lie within their days, few of them at night', () => {
    const begun = traffic.list.map(({ pages }) => wallClock(pages[0]?.atMs ?? 0, 'Europe/London'));
    expect(Math.min(...begun)).toBeGreaterThanOrEqual(Date.parse('2026-10-27T00:00Z'));
    expect(Math.max(...begun)).toBeLessThan(Date.parse('2026-11-24T00:00Z'));
    const at = (from: number, until: number) =>
      begun.filter((ms) => new Date(ms).getUTCHours() >= from && new Date(ms).getUTCHours() < until).length;
    expect(at(2, 5)).toBeLessThan(at(19, 22) / 4);
  });

  it('go from page to page in time, and some come again', () => {
    for (const { pages } of traffic.list)
      pages.slice(1).forEach(({ atMs }, n) => {
        const before = pages[n];
        expect(atMs).toBeGreaterThanOrEqual((before?.atMs ?? 0) + (before?.seconds ?? 0) * 1000 - 1);
      });
    const again = traffic.list.filter(({ pages }) =>
      pages.some(({ atMs }, n) => n > 0 && atMs - (pages[n - 1]?.atMs ?? 0) > 3_600_000),
    );
    expect(again.length / traffic.list.length).toBeGreaterThan(0.1);
  });

  it('come further down the longer they stay', () => {
    const far = (from: number, until: number) => {
      const some = views.filter(({ seconds }) => (seconds ?? 0) >= from && (seconds ?? 0) < until);
      return some.reduce((sum, { depth }) => sum + (depth ?? 0), 0) / some.length;
    };
    expect(far(0, 10)).toBeLessThan(far(20, 30));
    expect(far(20, 30)).toBeLessThan(far(60, 600));
  });

  it('are a sample where they would be very many, and fit a site of one page', () => {
    const many = invent({ site: { ...USUAL_SITE, visitsADay: 100_000 } });
    expect(many.isSample).toBe(true);
    expect(many.list.flatMap(({ pages }) => pages).length).toBeLessThanOrEqual(30_020);
    expect(many.visitors).toBeGreaterThan(1_000_000);
    expect(
      new Set(invent({ paths: ['/'] }).list.flatMap(({ pages }) => pages.map(({ path }) => path))),
    ).toEqual(new Set(['/']));
  });
});

it('of very few views it is a sample: as many visitors as would have come, and no page view more than was asked for', () => {
  const whole = invent();
  const part = invent({ most: 200 });
  const viewsOf = ({ list }: typeof part) => list.reduce((sum, { pages }) => sum + pages.length, 0);
  expect([whole.isSample, part.isSample]).toEqual([false, true]);
  // The visit that fills it is made whole.
  expect(viewsOf(part)).toBeGreaterThanOrEqual(200);
  expect(viewsOf(part)).toBeLessThan(200 + 60);
  expect(part.visitors / whole.visitors).toBeGreaterThan(0.8);
  expect(part.visitors / whole.visitors).toBeLessThan(1.25);
  // Asked for not even one view, nobody is there.
  expect(invent({ most: 0 })).toMatchObject({ visitors: 0, list: [], isSample: true });
});
it('nobody comes at hours beyond the day, and a site of one page has visits to it', () => {
  const alone = invent({ paths: ['/only'] });
  expect(new Set(alone.list.flatMap(({ pages }) => pages.map(({ path }) => path)))).toEqual(
    new Set(['/only']),
  );
  const days = new Set(
    alone.list.map(({ pages }) =>
      new Date(wallClock(pages[0]?.atMs ?? 0, 'Europe/London')).toISOString().slice(0, 10),
    ),
  );
  // Whole days before the one that is not over.
  expect(days.has('2026-11-24')).toBe(false);
  expect(Math.min(...[...days].map((day) => Date.parse(day)))).toBeGreaterThanOrEqual(
    UNTIL_MS - 29 * 86_400_000,
  );
});
