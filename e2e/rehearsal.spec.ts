import type { Page } from '@playwright/test';
import type { Happening, Manifest, Rehearsal, RehearsedPage, Rule, Trigger } from '@velarium/contract';
import { beginPage, beginRehearsal, type Played, playVisit, seededRandom, TEMPLATES } from '@velarium/core';
import { changeSettings, publish, restAll } from './lib/api.ts';
import { expect, newVisitor, test, type Velarium } from './lib/velarium.ts';

/** Sixty in all, in parts beside each other. */
const VISITS = 15;
const SEEDS = [20261127, 7, 1610, 1655];
/** One frame, and what a timer may come late. */
const FRAME_SECONDS = 0.05;
/** Real milliseconds in which what was begun comes to its end once its files are here; the page's clock stands. */
const WORK_MS = 25;
/** Real milliseconds an opening that is due may take: the machine may be busy with other things. */
const PATIENCE_MS = 5_000;
const PATHS = ['/about', '/contact', '/shop', '/membership'];

const time = (seconds: number): Trigger => ({ kind: 'time', seconds });
const event = (name: string, atLeast?: number): Trigger => ({
  kind: 'event',
  name,
  condition: atLeast === undefined ? null : { path: 'n', comparison: 'atLeast', value: atLeast },
});
const on = (...paths: string[]): Partial<Rule['reach']> => ({
  pages: { include: paths.map((address) => ({ kind: 'exact', address })), exclude: [], follows: null },
});
type Condition = NonNullable<Rule['reach']['audience']>['groups'][number]['items'][number]['condition'];
const who = (condition: Condition, not = false): Partial<Rule['reach']> => ({
  audience: { match: 'all', groups: [{ not: false, match: 'all', items: [{ not, condition }] }] },
});

/** Campaigns in one place, so that they take it from each other, each for another reason. */
async function cast(velarium: Velarium): Promise<Manifest> {
  await restAll(velarium);
  // All that stand in one place of a site without limits of its own.
  await changeSettings(velarium, {
    limits: { perPageView: null, perSession: 6, perDay: null, gapSeconds: 1 },
  });
  const rules: Parameters<typeof publish>[1][] = [
    { triggers: [time(4)], reach: on('/about', '/shop'), limits: { caps: [{ max: 1, per: 'session' }] } },
    { triggers: [time(2.5)], reach: on('/contact'), limits: { afterClose: 'session', whenBusy: 'yield' } },
    { triggers: [event('ping')], limits: { whenBusy: 'wait', afterClose: { count: 1, unit: 'hours' } } },
    { triggers: [event('ping', 5), time(6)], moment: { join: 'all' } },
    { triggers: [{ kind: 'sessionTime', seconds: 11 }], limits: { caps: [{ max: 1, per: 'ever' }] } },
    { triggers: [{ kind: 'count', of: 'viewsInSession', atLeast: 3 }], limits: { priority: 8 } },
    { triggers: [time(1)], reach: { ...on('/membership'), ...who({ kind: 'visitor', is: 'returning' }) } },
    { triggers: [time(3)], reach: who({ kind: 'basketTotal', comparison: 'atLeast', amount: 50 }) },
    { triggers: [{ kind: 'hand' }], moment: { againAfterSeconds: 2 } },
    { triggers: [time(5)], reach: who({ kind: 'signedIn', is: true }), limits: { priority: 2 } },
    { triggers: [time(7)], moment: { notBeforeSeconds: 8 }, limits: { stopAfterUnanswered: 1 } },
    { triggers: [{ kind: 'inactivity', seconds: 9 }], limits: { caps: [{ max: 1, per: 'session' }] } },
  ];
  // A message that fades out holds its place by the browser's own clock, which nobody drives.
  const motion = TEMPLATES.find(({ id }) => id === 'corner-invitation')?.message.motion;
  if (!motion) throw new Error('expected the template');
  const message = { motion: { ...motion, leave: { ...motion.leave, kind: 'none' as const } } };
  for (const rule of rules) await publish(velarium, { ...rule, message });
  const answer = await fetch(`${velarium.edge}/tag/quillonfell2/manifest.json`);
  return (await answer.json()) as Manifest;
}

/** A visit by chance; seconds in quarters, so that nothing falls together with a frame by accident. */
function visitByChance(chance: () => number, { campaigns }: Manifest): Rehearsal {
  const below = (most: number) => Math.floor(chance() * most);
  const pages = Array.from({ length: 1 + below(3) }, (_, n): RehearsedPage => {
    const seconds = 3.13 + below(40) / 4;
    const happenings = Array.from({ length: below(4) }, (): Happening => {
      const at = 0.6 + below(Math.floor(seconds * 4) - 4) / 4;
      const one = chance();
      if (one < 0.45) return { at, what: 'event', name: 'ping', data: { n: below(10) } };
      if (one < 0.6) return { at, what: 'basket', items: 1, total: below(100) };
      if (one < 0.75) return { at, what: 'signIn', is: chance() < 0.7 };
      if (one < 0.9)
        return {
          at,
          what: 'asks',
          campaign: campaigns.find(({ moment }) => moment.triggers[0]?.kind === 'hand')?.id ?? '',
        };
      return { at, what: 'still', seconds: 30 };
    });
    return {
      ...beginPage(PATHS[below(PATHS.length)] ?? '/', { seconds, depth: 0 }),
      afterMinutes: n > 0 && chance() < 0.2 ? 45 : 0,
      happenings: happenings.sort((a, b) => a.at - b.at),
    };
  });
  return {
    ...beginRehearsal(pages[0] ?? beginPage('/'), new Date().toISOString().slice(0, 16)),
    pages,
    reactions: campaigns
      .filter(() => chance() < 0.6)
      .map(({ id }) => ({ campaign: id, does: 'close', afterSeconds: 0.8 + below(12) / 4 })),
  };
}

interface Scope {
  velarium: Record<string, (...values: unknown[]) => void>;
  begun: number;
  shown: [campaign: string, atMs: number][];
  told: Record<string, string>;
}

/** Does on the page what the rehearsal says happens there. */
const happen = (page: Page, happening: Happening) =>
  page.evaluate((one) => {
    const { velarium } = window as unknown as Scope;
    if (one.what === 'event') velarium.event?.(one.name, one.data);
    if (one.what === 'basket') velarium.basket?.({ items: one.items, total: one.total });
    if (one.what === 'signIn') velarium.visitor?.({ signedIn: one.is });
    if (one.what === 'asks') velarium.open?.(one.campaign);
  }, happening);

const sleep = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

/** Waits until all that was begun on the page has come to its end: its files are here, and what they lead to is done. */
function settling(page: Page): () => Promise<void> {
  const underWay = new Set<unknown>();
  page.on('request', (request) => underWay.add(request));
  page.on('requestfinished', (request) => underWay.delete(request));
  page.on('requestfailed', (request) => underWay.delete(request));
  // Whatever the page is busy with comes before the question.
  const turn = () => page.evaluate(() => undefined);
  return async () => {
    do {
      await sleep(WORK_MS);
      await turn();
    } while (underWay.size > 0);
  };
}

/** Waits while the page's clock stands; one that does not come is found when the openings are compared. */
async function isShown(page: Page, opened: number): Promise<void> {
  const until = Date.now() + PATIENCE_MS;
  while (Date.now() < until) {
    if ((await page.evaluate(() => (window as unknown as Scope).shown.length)) >= opened) return;
    await sleep(WORK_MS);
  }
}

/** Plays a visit on the real pages with the real tag; only the clock is driven. */
async function playForReal(page: Page, velarium: Velarium, rehearsal: Rehearsal, planned: Played) {
  const openings: { campaign: string; page: number; second: number }[] = [];
  const verdicts: Record<string, string>[] = [];
  const settle = settling(page);
  for (const [position, { path, seconds, afterMinutes, happenings }] of rehearsal.pages.entries()) {
    if (afterMinutes > 0) {
      await page.goto('about:blank');
      await page.clock.fastForward(afterMinutes * 60_000);
    }
    await page.goto(velarium.fell + path);
    await page.waitForFunction(() => typeof (window as unknown as Scope).velarium?.open === 'function');
    await settle();
    const passTo = async (second: number) => {
      const now = await page.evaluate(() => performance.now() - (window as unknown as Scope).begun);
      if (second * 1000 > now) await page.clock.runFor(Math.ceil(second * 1000 - now));
    };
    const ofPage = planned.openings.filter((one) => one.page === position);
    const closes = ofPage.flatMap(({ campaign, second }) =>
      rehearsal.reactions
        .filter((one) => one.campaign === campaign)
        .map(({ afterSeconds }) => ({ at: second + afterSeconds, what: 'closes' as const })),
    );
    const isStill = (at: number) => happenings.some((one) => one.what === 'still' && at > one.at);
    // Whoever is there touches something every second; the page's own clock keeps it.
    await page.evaluate(
      (atSeconds) => {
        const nowMs = performance.now() - (window as unknown as Scope).begun;
        const touch = () => dispatchEvent(new PointerEvent('pointermove', { bubbles: true }));
        for (const second of atSeconds) setTimeout(touch, second * 1000 - nowMs);
      },
      Array.from({ length: Math.floor(seconds) }, (_, n) => n + 0.5).filter((at) => !isStill(at)),
    );
    // What opens because of something comes after it.
    const steps = [
      ...closes,
      ...happenings,
      ...ofPage.map(({ second }) => ({ at: second, what: 'opens' as const })),
    ]
      .filter(({ at }) => at < seconds)
      .sort((a, b) => a.at - b.at);
    let opened = 0;
    for (const step of steps) {
      await passTo(step.at);
      if (step.what === 'opens') {
        opened++;
        await isShown(page, opened);
      } else {
        await settle();
        if (step.what === 'closes')
          await page.evaluate(() => (window as unknown as Scope).velarium.close?.());
        else await happen(page, step);
      }
      await settle();
    }
    await passTo(seconds);
    await settle();
    await page.evaluate(() => {
      const scope = window as unknown as Scope;
      scope.told = {};
      scope.velarium.on?.(
        'verdict',
        ({ campaign, verdict }: { campaign: string; verdict: { code: string } }) => {
          scope.told[campaign] = verdict.code;
        },
      );
    });
    await expect
      .poll(() => page.evaluate(() => Object.keys((window as unknown as Scope).told).length))
      .toBeGreaterThan(0);
    verdicts.push(await page.evaluate(() => (window as unknown as Scope).told));
    const found = await page.evaluate(() => {
      const { shown, begun } = window as unknown as Scope;
      return shown.map(([campaign, atMs]) => [campaign, (atMs - begun) / 1000] as const);
    });
    openings.push(...found.map(([campaign, second]) => ({ campaign, page: position, second })));
  }
  return { openings, verdicts };
}

for (const seed of SEEDS)
  test(`${VISITS} visits by chance (${seed}) come to the same, rehearsed and on the real pages with the real tag`, async ({
    velarium,
    browser,
  }) => {
    test.setTimeout(300_000);
    const manifest = await cast(velarium);
    const chance = seededRandom(seed);
    let opened = 0;
    for (let n = 0; n < VISITS; n++) {
      const rehearsal = visitByChance(chance, manifest);
      const planned = playVisit({
        manifest,
        // The shop's own script tells of an empty basket and of nobody signed in as each page begins.
        rehearsal: {
          ...rehearsal,
          visitor: { ...rehearsal.visitor, basket: { items: 0, total: 0 }, signedIn: false },
          pages: rehearsal.pages.map((page) => ({
            ...page,
            happenings: [
              { at: 0, what: 'basket', items: 0, total: 0 },
              { at: 0, what: 'signIn', is: false },
              ...page.happenings,
            ],
          })),
        },
        origin: velarium.fell,
      });
      const context = await newVisitor(browser, { reducedMotion: 'reduce' });
      await context.addInitScript(() => {
        const scope = window as unknown as Scope & { velarium: { q: unknown[] } };
        scope.shown = [];
        // Read as the tag begins: when that is, is when the page view began.
        const first = {
          *[Symbol.iterator]() {
            scope.begun = performance.now();
            yield 'on';
            yield 'shown';
            yield ({ campaign }: { campaign: string }) => scope.shown.push([campaign, performance.now()]);
          },
        };
        scope.velarium = { q: [first] } as never;
      });
      await context.clock.install({ time: new Date() });
      const page = await context.newPage();
      // From here on it stands still but when it is driven.
      await page.clock.pauseAt(Date.now() + 60_000);
      const real = await playForReal(page, velarium, rehearsal, planned);
      await context.close();
      const told = `visit ${n}: ${JSON.stringify(rehearsal)}`;
      const inWords = (openings: readonly { campaign: string; page: number }[]) =>
        openings.map(
          (one) => `${manifest.campaigns.findIndex(({ id }) => id === one.campaign)} on page ${one.page}`,
        );
      expect.soft(inWords(real.openings), told).toEqual(inWords(planned.openings));
      planned.openings.forEach(({ second }, at) => {
        const late = (real.openings[at]?.second ?? 0) - second;
        expect
          .soft(Math.abs(late), `${told}: opening ${at}, ${late} s late`)
          .toBeLessThanOrEqual(FRAME_SECONDS);
      });
      rehearsal.pages.forEach((_, position) => {
        const expected = Object.fromEntries(
          planned.lanes.map(({ campaign, stretches }) => [
            campaign,
            stretches.filter((one) => one.page === position).at(-1)?.verdict.code,
          ]),
        );
        expect.soft(real.verdicts[position], told).toEqual(expected);
      });
      opened += planned.openings.length;
    }
    // Something happened on them.
    expect(opened).toBeGreaterThan(VISITS / 2);
  });
