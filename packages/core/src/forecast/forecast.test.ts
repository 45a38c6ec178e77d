import type { Manifest, ManifestCampaign, Traffic, TrafficVisitor } from '@velarium/contract';
import { describe, expect, it } from 'vitest';
import { createPlayer } from '../rehearsal/play.ts';
import { plainSettings } from '../testing/arbitrary.ts';
import { campaign, on, time } from '../testing/begin-page-view.ts';
import { asVisit, lot, staysOf, USUAL_ASSUMPTIONS, usualReactions } from './as-visit.ts';
import { createForecast, manifestSupposing, manifestWithout, opposite, reachGains } from './forecast.ts';

const A = '00000000-0000-4000-8000-00000000000a';
const B = '00000000-0000-4000-8000-00000000000b';
const ORIGIN = 'https://s.example';
const DAY_MS = 86_400_000;
const NOON_MS = Date.parse('2026-11-02T12:00Z');
const manifest = (...campaigns: ManifestCampaign[]): Manifest => ({
  v: 1,
  parts: ['extras', 'rare'],
  asksEdge: false,
  timeZone: 'Europe/London',
  site: plainSettings,
  campaigns,
});
const visitor = (change: Partial<TrafficVisitor> = {}): TrafficVisitor => ({
  device: 'desktop',
  browser: 'chromium',
  system: 'windows',
  source: 'direct',
  referrer: '',
  session: 1,
  signedIn: null,
  basket: null,
  country: null,
  language: 'en',
  pages: [{ path: '/a', atMs: NOON_MS, seconds: 30, depth: 60 }],
  ...change,
});
const traffic = (list: readonly TrafficVisitor[], visitors = list.length): Traffic => ({
  days: 28,
  visitors,
  isSample: visitors > list.length,
  list: [...list],
});
const NO_LEAVING = { ...USUAL_ASSUMPTIONS, leavesByMouse: 0, leavesByTouch: 0 };
function forecast(of: Manifest, what: Traffic, assumptions = NO_LEAVING) {
  const one = createForecast(of, what, assumptions, ORIGIN);
  while (one.play(100));
  return one.result();
}

/** Visitors by chance, the same from the same seed. */
function crowd(size: number, seed: number): TrafficVisitor[] {
  return Array.from({ length: size }, (_, n) => {
    const chance = (of: number) => lot(n, seed, of);
    return visitor({
      device: chance(0) < 0.4 ? 'mobile' : 'desktop',
      pages: Array.from({ length: 1 + Math.floor(chance(1) * 3) }, (_page, view) => ({
        path: chance(10 + view) < 0.5 ? '/a' : '/b',
        atMs: NOON_MS + view * (chance(20 + view) < 0.3 ? DAY_MS : 90_000),
        seconds: Math.round(chance(30 + view) * 60),
        depth: Math.round(chance(40 + view) * 100),
      })),
    });
  });
}
const CAST = [
  campaign(A, { ...on(time(12)), caps: [{ max: 1, per: 'session' }] }),
  campaign(B, {
    ...on({ kind: 'scroll', unit: 'percent', amount: 50 }),
    caps: [{ max: 1, per: 'ever' }],
    whenBusy: 'yield',
  }),
];

it('how often each campaign is shown on each page adds up to its showings, on each device too', () => {
  const cast = manifest(campaign(A, on(time(5))), campaign(B, on(time(10))));
  const list = crowd(300, 4);
  const one = createForecast(cast, traffic(list, 1200), NO_LEAVING, ORIGIN);
  while (one.play(100));
  const byPage = one.byPage();
  expect(new Set(byPage.map(({ path }) => path))).toEqual(new Set(['/a', '/b']));
  for (const { campaign: id, showings, devices } of one.result().campaigns) {
    const sumOf = (rows: typeof byPage) => rows.reduce((all, row) => all + row.showings, 0);
    const rows = byPage.filter((row) => row.campaign === id);
    expect(sumOf(rows)).toBeGreaterThan(0);
    // A row is rounded by itself.
    expect(Math.abs(sumOf(rows) - showings.value)).toBeLessThanOrEqual(2);
    for (const device of ['desktop', 'mobile'] as const)
      expect(Math.abs(sumOf(rows.filter((row) => row.device === device)) - devices[device])).toBeLessThan(2);
  }
});

describe('replayed traffic', () => {
  it('equals playing each visit by itself, to the last showing', () => {
    const of = manifest(...CAST);
    const what = traffic(crowd(10_000, 3));
    const { campaigns, met } = forecast(of, what);
    const stays = staysOf(what);
    const alone = what.list.flatMap((one, nth) =>
      // Each by a player of its own, as a rehearsal is: nothing may be left over from those before.
      createPlayer({ manifest: of, origin: ORIGIN })({
        ...asVisit({ visitor: one, nth, stays, assumptions: NO_LEAVING }),
        reactions: usualReactions(of, NO_LEAVING),
      }).flatMap(({ openings }) => openings.map((opening) => ({ ...opening, nth }))),
    );
    for (const { campaign: id, showings, reached } of campaigns) {
      const own = alone.filter((opening) => opening.campaign === id);
      expect(showings.value).toBe(own.length);
      expect(reached.value).toBe(new Set(own.map(({ nth }) => nth)).size);
      expect(own.length).toBeGreaterThan(500);
    }
    expect(met.reduce((sum, count) => sum + count, 0)).toBe(10_000);
  }, 60_000);
  it('tells by when: a visitor counts from the day they first meet it', () => {
    const later = (days: number) =>
      visitor({ pages: [{ path: '/a', atMs: NOON_MS + days * DAY_MS, seconds: 30, depth: 60 }] });
    const twice = visitor({
      pages: [0, 2].map((days) => ({ path: '/a', atMs: NOON_MS + days * DAY_MS, seconds: 30, depth: 60 })),
    });
    const result = forecast(manifest(campaign(A, { ...on(time(5)), caps: [] })), {
      ...traffic([visitor(), twice, later(1), later(3)]),
      // More was asked for than has been recorded.
      days: 5,
    });
    expect(result.campaigns[0]?.byDay.map(({ value }) => value)).toEqual([2, 3, 3, 4]);
    expect(result.campaigns[0]?.byDay.at(-1)).toEqual(result.campaigns[0]?.reached);
  });

  it('says where, on what and when it opens, and who took whose place', () => {
    const shared = { ...on(time(5)), caps: [] };
    const result = forecast(
      manifest(campaign(A, shared), campaign(B, { ...shared, whenBusy: 'yield' })),
      traffic([visitor(), visitor({ device: 'mobile' })]),
    );
    expect(result.campaigns[0]).toMatchObject({
      campaign: A,
      second: 5,
      devices: { desktop: 1, tablet: 0, mobile: 1 },
      pages: [{ path: '/a', share: 1 }],
      gaveWay: [],
    });
    // Found before launch: the second has none of its place while the first has it.
    expect(result.campaigns[1]).toMatchObject({ showings: { value: 0 }, gaveWay: [{ to: A, views: 2 }] });
  });
  it('says by which second half of its showings have opened', () => {
    const of = manifest(campaign(A, { ...on({ kind: 'scroll', unit: 'percent', amount: 50 }), caps: [] }));
    const reading = (seconds: number) =>
      visitor({ pages: [{ path: '/a', atMs: NOON_MS, seconds, depth: 100 }] });
    const second = (...stays: number[]) =>
      forecast(of, traffic(stays.map(reading))).campaigns[0]?.second ?? Number.NaN;
    // Pages are read evenly: half of one has been in sight after half of its time.
    expect(second(10, 20, 30, 40, 50, 60, 90)).toBeCloseTo(second(40), 6);
    expect(second(90, 10, 60, 20, 50, 30, 40)).toBeCloseTo(second(40), 6);
    expect(second(40)).toBeGreaterThan(second(30));
  });
  it('finds the visitor who would be bothered five times', () => {
    const often = [A, B].map((id) => campaign(id, { ...on(time(3)), caps: [] }));
    const restless = visitor({
      pages: Array.from({ length: 5 }, (_, n) => ({
        path: '/a',
        atMs: NOON_MS + n * 120_000,
        seconds: 6,
        depth: 40,
      })),
    });
    expect(forecast(manifest(...often.slice(0, 1)), traffic([restless, visitor()])).met).toEqual([
      0, 1, 0, 0, 0, 1, 0,
    ]);
  });
  it('remembers visitors from session to session, as their browser does', () => {
    const once = manifest(campaign(A, { ...on(time(3)), caps: [{ max: 1, per: 'ever' }] }));
    const session = manifest(campaign(A, { ...on(time(3)), caps: [{ max: 1, per: 'session' }] }));
    const faithful = visitor({
      pages: [0, 1, 2].map((day) => ({ path: '/a', atMs: NOON_MS + day * DAY_MS, seconds: 9, depth: 40 })),
    });
    expect(forecast(once, traffic([faithful])).campaigns[0]?.showings.value).toBe(1);
    expect(forecast(session, traffic([faithful])).campaigns[0]?.showings.value).toBe(3);
  });
  it('draws what was never told of out of what is known of the same page', () => {
    const of = manifest(campaign(A, { ...on(time(20)), caps: [] }));
    const known = (seconds: number) =>
      visitor({ pages: [{ path: '/a', atMs: NOON_MS, seconds, depth: 50 }] });
    const untold = Array.from({ length: 400 }, () =>
      visitor({ pages: [{ path: '/a?x=1', atMs: NOON_MS, seconds: null, depth: null }] }),
    );
    // Half of the known views last long enough.
    const { campaigns } = forecast(of, traffic([known(10), known(30), ...untold]));
    expect(campaigns[0]?.showings.value).toBeGreaterThan(160);
    expect(campaigns[0]?.showings.value).toBeLessThan(242);
  });
  it('takes leaving for granted, by the share that is said', () => {
    const of = manifest(campaign(A, { ...on({ kind: 'exitMouse', certainty: 'likely' }), caps: [] }));
    const what = traffic(Array.from({ length: 1000 }, () => visitor()));
    const shown = (leavesByMouse: number) =>
      forecast(of, what, { ...NO_LEAVING, leavesByMouse }).campaigns[0]?.showings.value ?? 0;
    expect([shown(0), shown(1)]).toEqual([0, 1000]);
    // Three standard errors of a share of a thousand.
    expect(Math.abs(shown(0.3) - 300)).toBeLessThan(44);
  });
  it('with nobody in it is a forecast of nothing', () => {
    const found = forecast(manifest(...CAST), traffic([]));
    expect(found).toMatchObject({ visitors: 0, played: 0, met: [0, 0, 0, 0, 0, 0, 0] });
    const none = { value: 0, low: 0, high: 0 };
    for (const one of found.campaigns)
      expect(one).toMatchObject({ reached: none, showings: none, byDay: [none], second: null });
  });
  it('counts a showing on the day on which it opens, and how many each met reckoned up to all', () => {
    const late = visitor({
      pages: [{ path: '/a', atMs: NOON_MS + DAY_MS - 10_000, seconds: 30, depth: 60 }],
    });
    const of = manifest(campaign(A, { ...on(time(20)), caps: [] }));
    const twoDays = [
      ...[visitor(), late],
      visitor({ pages: [{ path: '/b', atMs: NOON_MS + DAY_MS, seconds: 1, depth: 0 }] }),
    ];
    expect(forecast(of, traffic(twoDays, 30)).campaigns[0]?.byDay.map(({ value }) => value)).toEqual([
      10, 20,
    ]);
    expect(forecast(of, traffic(twoDays, 30)).met).toEqual([10, 20, 0, 0, 0, 0, 0]);
  });
});

it('an interval holds as often as it says: two hundred samples of one month, each reckoned up to the whole', () => {
  const of = manifest(...CAST);
  const whole = crowd(3000, 11);
  const truth = forecast(of, traffic(whole)).campaigns;
  const SAMPLES = 200;
  const held = truth.map(() => ({ reached: 0, showings: 0 }));
  for (let sample = 0; sample < SAMPLES; sample++) {
    const drawn = whole.filter((_, n) => lot(n, sample, 999) < 0.1);
    forecast(of, traffic(drawn, whole.length)).campaigns.forEach(({ reached, showings }, n) => {
      const [is, count] = [truth[n], held[n]];
      if (!is || !count) return;
      if (reached.low <= is.reached.value && is.reached.value <= reached.high) count.reached++;
      if (showings.low <= is.showings.value && is.showings.value <= showings.high) count.showings++;
    });
  }
  // 95 % of 200, less three standard errors; a tenth of the whole drawn without putting back makes it hold a little oftener.
  for (const count of held) {
    expect(count.reached).toBeGreaterThanOrEqual(181);
    expect(count.showings).toBeGreaterThanOrEqual(181);
  }
}, 60_000);

describe('the way to a showing', () => {
  const of = manifest(
    campaign(A, {
      ...on(time(20)),
      devices: 1,
      includeKeys: ['s.example/a'],
      include: [],
      caps: [{ max: 1, per: 'ever' }],
    }),
    campaign(B, { ...on(time(5)), devices: 1, caps: [], includeKeys: ['s.example/c'], include: [] }),
  );
  const at = (path: string, seconds: number) => ({ path, atMs: NOON_MS, seconds, depth: 50 });
  const wayOf = (list: readonly TrafficVisitor[], visitors = list.length) =>
    forecast(of, traffic(list, visitors)).campaigns[0]?.way;
  it.each([
    ['met it', visitor({ pages: [at('/a', 30)] }), 'shown', []],
    ['saw another page only', visitor({ pages: [at('/b', 30)] }), 'came', ['blocked:page.unmatched']],
    ['came on a phone', visitor({ device: 'mobile', pages: [at('/a', 30)] }), 'covered', ['blocked:device']],
    ['left too soon', visitor({ pages: [at('/a', 10)] }), 'audience', ['waiting:trigger']],
    [
      'left too soon, then read elsewhere',
      visitor({ pages: [at('/a', 10), at('/b', 60)] }),
      'audience',
      ['waiting:trigger'],
    ],
    ['left too soon, then came back', visitor({ pages: [at('/a', 10), at('/a', 30)] }), 'shown', []],
  ] as const)('of somebody who %s', (_, one, furthestStep, codes) => {
    const way = wayOf([one]) ?? [];
    expect(way.filter(({ visitors }) => visitors === 1).at(-1)?.step).toBe(furthestStep);
    expect(way.flatMap(({ kept }) => kept.map(({ code }) => code))).toEqual(codes);
  });
  it('reckons a sample up to all, and loses nobody between two steps', () => {
    const way = wayOf(crowd(500, 8), 5000) ?? [];
    expect(way.map(({ step }) => step)).toEqual(['came', 'covered', 'audience', 'moment', 'shown']);
    expect(way[0]).toMatchObject({ visitors: 5000, share: 1 });
    for (const { visitors, share } of way) expect(share).toBeCloseTo(visitors / 5000, 12);
    expect(wayOf([])?.every(({ visitors, share }) => visitors === 0 && share === 0)).toBe(true);
    way.slice(1).forEach(({ visitors }, n) => {
      const before = way[n];
      const kept = before?.kept.reduce((sum, one) => sum + one.visitors, 0) ?? 0;
      expect((before?.visitors ?? 0) - kept).toBe(visitors);
    });
    expect(way[4]?.visitors).toBe(forecast(of, traffic(crowd(500, 8), 5000)).campaigns[0]?.reached.value);
  });
});

describe('two casts over the same visits', () => {
  const replayed = (of: Manifest, what: Traffic) => {
    const one = createForecast(of, what, NO_LEAVING, ORIGIN);
    while (one.play(100));
    return { forecast: one.result(), who: one.who() };
  };
  const of = (seconds: number, ...more: ManifestCampaign[]) =>
    manifest(campaign(A, { ...on(time(seconds)), caps: [{ max: 1, per: 'ever' }] }), ...more);
  it('differ by the visitors that one reaches and the other does not, reckoned up to all', () => {
    const what = traffic(crowd(1000, 21), 10_000);
    const [early, late] = [replayed(of(5), what), replayed(of(30), what)];
    const reached = (run: typeof early) => run.forecast.campaigns[0]?.reached.value ?? 0;
    const [found] = reachGains(late, early, of(5).campaigns);
    expect(found?.value).toBe(reached(early) - reached(late));
    expect(found?.low).toBeGreaterThan(0);
    expect(reachGains(early, late, of(5).campaigns)).toEqual(found ? [opposite(found)] : []);
    // Nothing is gained on oneself, and one that is new has nothing to be held against.
    expect(reachGains(early, early, of(5).campaigns)[0]?.value).toBe(0);
    expect(reachGains(early, replayed(of(5, campaign(B, on(time(9)))), what), [{ id: B }])).toEqual([]);
  });
});

describe('what a part of a rule costs', () => {
  it('is what comes out without it', () => {
    const of = manifest(campaign(A, { ...on(time(3)), caps: [], devices: 1 }));
    const what = traffic([visitor(), visitor({ device: 'mobile' })]);
    const freed = manifestWithout(of, A, 'devices');
    if (!freed) throw new Error('expected the devices to keep somebody out');
    expect(forecast(of, what).campaigns[0]?.reached.value).toBe(1);
    expect(forecast(freed, what).campaigns[0]?.reached.value).toBe(2);
  });
  it.each(['audience', 'schedule', 'caps'] as const)('of %s is nothing where it says nothing', (part) => {
    const of = manifest(campaign(A, { ...on(time(3)), caps: [], audience: null, schedule: null }));
    expect(manifestWithout(of, A, part)).toBeUndefined();
    expect(manifestWithout(of, B, part)).toBeUndefined();
  });
  it('of the moment is at once, whatever was waited for', () => {
    const late = campaign(A, {
      moment: { join: 'all', triggers: [time(12), time(3)], notBeforeSeconds: 9 },
    });
    expect(manifestWithout(manifest(late), A, 'moment')?.campaigns[0]?.moment).toMatchObject({
      join: 'any',
      triggers: [time(0)],
      notBeforeSeconds: 0,
    });
  });
  it('never reaches fewer: what is taken away kept people out', () => {
    const what = traffic(crowd(400, 5));
    const of = manifest(campaign(A, { ...on(time(12)), caps: [{ max: 1, per: 'session' }], devices: 1 }));
    const reached = (one: Manifest) => forecast(one, what).campaigns[0]?.reached.value ?? 0;
    for (const part of ['devices', 'caps', 'pages', 'moment'] as const) {
      const freed = manifestWithout(of, A, part);
      if (freed) expect(reached(freed)).toBeGreaterThanOrEqual(reached(of));
    }
  });
});

describe('what a site would be like', () => {
  const often = (id: string) => campaign(id, { ...on(time(3)), caps: [] });
  const what = traffic([
    visitor({
      pages: [0, 1, 2].map((n) => ({ path: '/a', atMs: NOON_MS + n * 60_000, seconds: 30, depth: 40 })),
    }),
  ]);
  const met = (of: Manifest) => forecast(of, what).campaigns.map(({ showings }) => showings.value);
  it('without a campaign gives its place to the others', () => {
    const both = manifest(often(A), { ...often(B), whenBusy: 'yield' });
    expect(met(both)).toEqual([3, 0]);
    expect(met(manifestSupposing(both, { without: A, limits: null }))).toEqual([3]);
    expect(manifestSupposing(both, { without: null, limits: null })).toEqual(both);
  });
  it('with other limits shows fewer', () => {
    const limits = { ...plainSettings.limits, perSession: 1 };
    expect(met(manifestSupposing(manifest(often(A)), { without: null, limits }))).toEqual([1]);
  });
});
