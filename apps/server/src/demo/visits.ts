import { seededRandom } from '@velarium/core';
import type { StoredEvent } from '../intake/index.ts';
import { FIRST_VARIANT } from '../publishing/index.ts';
import { inventedBeginning, inventedParameters, inventedTold } from './came-from.ts';

export interface DemoTraffic {
  readonly siteId: string;
  readonly campaignId: string;
  readonly page: string;
  readonly visitors: number;
  /** Days it has been running. */
  readonly days: number;
  /** What opens it, and after how many seconds about. */
  readonly cause: string;
  readonly after: number;
  /** Whether it converts by a link and not by a form. */
  readonly isClicked: boolean;
  /** The block that is clicked, and the fields that are written into, from the first to the last. */
  readonly clicked: string | null;
  readonly fields: readonly string[];
  /** Share of the visitors who convert. */
  readonly rate: number;
  /** Visitors from whom it was withheld, beside the others. */
  readonly held?: number;
  /** A second moment that half of its visitors of so many days have met: how many seconds after. */
  readonly trial?: { readonly days: number; readonly after: number };
  /** The goal of buying something, where the site has one. */
  readonly bought?: string | undefined;
  readonly seed: number;
}

const DAY_MS = 86_400_000;
const KEPT_VISITS_MS = 30 * DAY_MS;

const uuidsFrom = (random: () => number) => () =>
  '10000000-1000-4000-8000-100000000000'.replace(/[018]/g, (digit) =>
    (Number(digit) ^ ((random() * 16) >> (Number(digit) / 4))).toString(16),
  );

/** How long half of the visits to a page of each kind last at least, seconds, and how far they go, per cent. */
const STAYS: Readonly<Record<string, { readonly seconds: number; readonly depth: number }>> = {
  article: { seconds: 52, depth: 62 },
  product: { seconds: 24, depth: 70 },
  website: { seconds: 15, depth: 55 },
};
const PHONE_SHARE = 0.46;
const TABLET_SHARE = 0.08;

/** Invented visits to every page of a site over the past six days: one view a page, and how it ended. */
export function demoStays(
  siteId: string,
  pages: readonly { readonly path: string; readonly kind: string | null }[],
  now: Date,
): StoredEvent[] {
  const random = seededRandom(77);
  const uuid = uuidsFrom(random);
  // Sums of three even numbers lie about as bell curves do.
  const bell = () => random() + random() + random() - 1.5;
  return pages.flatMap(({ path, kind }, place) => {
    const plain = STAYS[kind ?? ''] ?? { seconds: 18, depth: 58 };
    const visits = Math.round(900 / (1 + (place % 6)) + (path === '/' ? 1400 : 0));
    return Array.from({ length: visits }, () => {
      const one = random();
      const device = one < PHONE_SHARE ? 'mobile' : one < PHONE_SHARE + TABLET_SHARE ? 'tablet' : 'desktop';
      const seconds = plain.seconds * (device === 'mobile' ? 0.66 : 1) * Math.exp(bell() * 1.3);
      const depth = 22 + plain.depth * (0.5 + bell() * 0.55);
      const atMs = now.getTime() - DAY_MS / 24 - random() * 6 * DAY_MS;
      const [visitor, session, view] = [uuid(), uuid(), uuid()];
      const [begun, told] = [inventedBeginning(random, device), inventedTold(random)];
      const landing = path + inventedParameters(random);
      const event = (ofKind: string, afterMs: number, stay: StoredEvent['stay']): StoredEvent => ({
        id: stay ? uuid() : view,
        at: new Date(atMs + afterMs),
        isLate: false,
        ownAt: null,
        siteId,
        kind: ofKind,
        visitor,
        session,
        page: landing,
        path,
        device,
        campaign: null,
        version: null,
        closedBy: null,
        variant: null,
        stay,
        view: stay && view,
        cause: null,
        part: null,
        language: null,
        goal: null,
        worth: null,
        begun: ofKind === 'pageview' ? begun : null,
        told: ofKind === 'left' ? told : null,
      });
      return [
        event('pageview', 0, null),
        event('left', seconds * 1000, [
          Math.min(3600, Math.round(seconds)),
          Math.round(Math.min(100, Math.max(12, depth))),
        ]),
      ];
    }).flat();
  });
}

/** How many come on each weekday from Sunday on, and in each hour, against the least of them. */
const WEEKDAYS = [1.5, 0.8, 0.75, 0.8, 0.95, 1.25, 1.6];
const HOURS = [3, 2, 1, 1, 1, 1, 2, 4, 6, 6, 6, 7, 8, 7, 6, 6, 7, 9, 12, 15, 17, 16, 11, 6];
const MOST_OF_WEEKDAYS = Math.max(...WEEKDAYS);
const MOST_OF_HOURS = Math.max(...HOURS);

/** An instant in the days before now, at which people are likelier to come than at others. */
function likelyMoment(random: () => number, nowMs: number, days: number): number {
  for (;;) {
    const atMs = nowMs - random() * days * DAY_MS;
    const at = new Date(atMs);
    const likely =
      ((WEEKDAYS[at.getUTCDay()] ?? 1) / MOST_OF_WEEKDAYS) * ((HOURS[at.getUTCHours()] ?? 1) / MOST_OF_HOURS);
    if (random() < likely) return atMs;
  }
}

/** Seconds until a reader closes a message: a fifth at once, the others after having read. */
const readFor = (random: () => number): number =>
  random() < 0.2 ? random() * 1.9 : 2 + Math.exp(random() * 3.2);

/** Share of those who do not answer, who begin to. */
const BEGINS = 0.06;

/** The name of the first variant beside the present one. */
const SECOND_VARIANT = 'b';
/** Events that no campaign is named with. */
const OF_THE_SITE: ReadonlySet<string> = new Set(['pageview', 'reached']);
/** What baskets cost in the invented shop, pounds. */
const PRICES = [8, 12, 20, 24, 38, 46.5, 62];

/** Invented showings of one campaign over the days it ran, repeatable from the seed. */
export function demoEvents(traffic: DemoTraffic, now: Date): StoredEvent[] {
  const random = seededRandom(traffic.seed);
  const uuid = uuidsFrom(random);
  return Array.from({ length: traffic.visitors + (traffic.held ?? 0) }, (_, n) => {
    const isHeld = n >= traffic.visitors;
    const visitor = uuid();
    const session = uuid();
    const atMs = likelyMoment(random, now.getTime(), traffic.days);
    const device = random() < 0.62 ? 'desktop' : 'mobile';
    const isOld = now.getTime() - atMs > KEPT_VISITS_MS;
    const inTrial = traffic.trial && now.getTime() - atMs < traffic.trial.days * DAY_MS;
    const isSecond = inTrial && random() < 0.5;
    // Where it is withheld from some, the others were divided from them.
    const variant = inTrial
      ? isSecond
        ? SECOND_VARIANT
        : FIRST_VARIANT
      : traffic.held
        ? FIRST_VARIANT
        : null;
    const opened = Math.round((isSecond ? (traffic.trial?.after ?? 0) : traffic.after) + random() * 1.4);
    const depth = Math.round(12 + random() * 60);
    const event = (kind: string, afterMs: number, more: Partial<StoredEvent> = {}): StoredEvent => ({
      id: uuid(),
      at: new Date(Math.min(now.getTime(), atMs + afterMs)),
      isLate: false,
      ownAt: null,
      siteId: traffic.siteId,
      kind,
      visitor,
      session,
      page: traffic.page,
      path: traffic.page,
      device,
      campaign: OF_THE_SITE.has(kind) ? null : traffic.campaignId,
      version: OF_THE_SITE.has(kind) ? null : 1,
      closedBy: null,
      variant: OF_THE_SITE.has(kind) ? null : variant,
      stay: null,
      view: null,
      cause: kind === 'shown' ? traffic.cause : null,
      part: null,
      language: null,
      goal: null,
      worth: null,
      // Of visits of longer ago nothing is kept.
      begun: kind === 'pageview' && !isOld ? inventedBeginning(random, device) : null,
      told: null,
      ...more,
    });
    // Fewer of those on phones answer, and more of those who come at the weekend.
    const isWeekend = [0, 6].includes(new Date(atMs).getUTCDay());
    const isConverted =
      random() < traffic.rate * (device === 'mobile' ? 0.7 : 1.15) * (isWeekend ? 1.2 : 0.92);
    const openedMs = opened * 1000;
    const read = readFor(random);
    const way = random();
    const again =
      random() < 0.18 ? [event('shown', (1 + random() * 9) * DAY_MS, { stay: [opened, depth] })] : [];
    // Some go on to what the observatory would like them to come to; those it was withheld from as well.
    const { bought } = traffic;
    const goals = (isTaken: boolean): StoredEvent[] => [
      ...(bought && random() < (isTaken ? 0.34 : 0.06)
        ? [event('pageview', openedMs + 300_000, { page: '/membership', path: '/membership', begun: null })]
        : []),
      ...(bought && random() < (isTaken ? 0.11 : 0.04)
        ? [
            event('reached', openedMs + 900_000, {
              page: '/shop/checkout',
              path: '/shop/checkout',
              goal: bought,
              worth: PRICES[Math.floor(random() * PRICES.length)] ?? 8,
            }),
          ]
        : []),
    ];
    // Some begin to answer and think better of it, the more of them the more is asked.
    const begun = isConverted
      ? traffic.fields
      : random() < BEGINS
        ? traffic.fields.slice(0, 1 + Math.floor(random() * traffic.fields.length))
        : [];
    const writes = begun.map((part, nth) => event('answering', openedMs + 3000 + nth * 2500, { part }));
    if (isHeld) return [event('held', openedMs), ...goals(false)];
    return [
      ...(isOld ? [] : [event('pageview', 0)]),
      event('shown', openedMs, { stay: [opened, depth] }),
      ...(read >= 1 ? [event('viewable', openedMs + 1000)] : []),
      ...writes,
      ...again.filter(({ at }) => at.getTime() < now.getTime()),
      ...(isConverted
        ? [
            ...(traffic.isClicked ? [event('clicked', openedMs + 13_000, { part: traffic.clicked })] : []),
            event('converted', openedMs + 13_000),
          ]
        : way < 0.78
          ? [
              event('closed', openedMs + read * 1000, {
                closedBy: way < 0.52 ? 'button' : way < 0.66 ? 'escape' : 'backdrop',
                stay: [Math.floor(read), depth],
              }),
            ]
          : []),
      ...goals(isConverted),
    ];
  }).flat();
}
