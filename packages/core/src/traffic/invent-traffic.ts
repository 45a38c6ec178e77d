import type { Device, RecordedPage, Source, Traffic, TrafficVisitor } from '@velarium/contract';
import { MOST_TRAFFIC } from '@velarium/contract/values';
import { instantOf, wallClock } from '../schedule/zone.ts';
import { normalQuantile } from '../statistics/normal.ts';
import { seededRandom } from './seeded-random.ts';

/** What somebody without records says of their site. */
export interface InventedSite {
  readonly visitsADay: number;
  /** 0 to 1. */
  readonly phoneShare: number;
  /** Half of the page views are shorter. */
  readonly staySeconds: number;
  readonly pagesAVisit: number;
}
/** A small site, as small sites are (common practice). */
export const USUAL_SITE: InventedSite = {
  visitsADay: 300,
  phoneShare: 0.55,
  staySeconds: 25,
  pagesAVisit: 2.5,
};

interface InventInput {
  readonly site: InventedSite;
  /** The site's pages, its first one first; most visits begin there. */
  readonly paths: readonly string[];
  readonly days: number;
  /** When the last of the days ends, epoch milliseconds. */
  readonly untilMs: number;
  readonly timeZone: string;
  readonly most?: number;
}

/** All of these are common practice; what the site itself is like is asked. */
const RETURNING = 0.25;
const FROM: readonly (readonly [source: Source, share: number])[] = [
  ['search', 0.42],
  ['direct', 0.33],
  ['social', 0.12],
  ['site', 0.08],
  ['mail', 0.05],
];
const TABLETS_AT_DESKS = 0.06;
/** Visits by the hour of the day, midnight first: few at night, most in the evening. */
const HOURS = [3, 2, 1, 1, 1, 1, 2, 4, 6, 7, 7, 7, 7, 7, 7, 7, 7, 8, 9, 10, 11, 10, 8, 5];
/** Of a visit that does not begin on the first page; the others of one that does. */
const BEGIN_AT_FIRST = 0.5;
const MOST_PATHS = 200;
const MOST_VIEWS_OF_VISIT = 20;
/** How uneven stays are: the spread of their logarithm. */
const STAY_SPREAD = 1;
const LONGEST_STAY_SECONDS = 1800;
const MINUTE_MS = 60_000;
const DAY_MS = 86_400_000;

/** Visits of a site nothing is known of but what somebody says: plainly invented, and the same each time. */
export function inventTraffic({
  site,
  paths,
  days,
  untilMs,
  timeZone,
  most = MOST_TRAFFIC,
}: InventInput): Traffic {
  // Who asks twice is told the same.
  const chance = seededRandom(1);
  const pick = <Value>(shares: readonly (readonly [Value, number])[]): Value => {
    let left = chance() * shares.reduce((sum, [, share]) => sum + share, 0);
    for (const [value, share] of shares) {
      left -= share;
      if (left < 0) return value;
    }
    return (shares.at(-1) as readonly [Value, number])[0];
  };
  const [first = '/', ...others] = paths.slice(0, MOST_PATHS);
  // Some pages are seen by many and many by few.
  const other = others.map((path, at) => [path, 1 / (at + 1)] as const);
  const pathAt = (view: number): string =>
    other.length === 0 || (view === 0 && chance() < BEGIN_AT_FIRST) ? first : pick(other);
  const hours = HOURS.map((share, hour) => [hour, share] as const);
  const beginsAt = (): number => {
    const day = Math.floor(chance() * days) + 1;
    const midnight = Math.floor((wallClock(untilMs, timeZone) - day * DAY_MS) / DAY_MS) * DAY_MS;
    return instantOf(midnight + (pick(hours) * 60 + chance() * 60) * MINUTE_MS, timeZone);
  };
  const viewsOfVisit = (): number => {
    let views = 1;
    while (views < MOST_VIEWS_OF_VISIT && chance() < 1 - 1 / site.pagesAVisit) views++;
    return views;
  };
  const visit = (): RecordedPage[] => {
    let atMs = beginsAt();
    return Array.from({ length: viewsOfVisit() }, (_, view) => {
      const spread = normalQuantile(Math.min(Math.max(chance(), 1e-6), 1 - 1e-6)) * STAY_SPREAD;
      const seconds = Math.min(site.staySeconds * Math.exp(spread), LONGEST_STAY_SECONDS);
      // Who stays longer comes further down, none quite alike.
      const depth = Math.round(100 * (1 - Math.exp(-seconds / site.staySeconds)) ** (0.4 + chance()));
      const page = { path: pathAt(view), atMs, seconds, depth };
      atMs += seconds * 1000;
      return page;
    });
  };
  const deviceOfVisitor = (): Device =>
    chance() < site.phoneShare ? 'mobile' : chance() < TABLETS_AT_DESKS ? 'tablet' : 'desktop';
  const visitor = (): TrafficVisitor => {
    const device = deviceOfVisitor();
    return {
      device,
      browser: 'chromium',
      system: device === 'desktop' ? 'windows' : 'android',
      source: pick(FROM),
      referrer: '',
      session: 1,
      signedIn: null,
      basket: null,
      country: null,
      language: 'en',
      pages: visit(),
    };
  };
  const visits = Math.round(site.visitsADay * days);
  const list: TrafficVisitor[] = [];
  let made = 0;
  for (let views = 0; made < visits && views < most; made++) {
    const before = chance() < RETURNING ? Math.floor(chance() * list.length) : -1;
    const again = list[before];
    const next = again ? { ...again, pages: together(again.pages, visit()) } : visitor();
    views += next.pages.length - (again?.pages.length ?? 0);
    if (again) list[before] = next;
    else list.push(next);
  }
  return {
    days,
    visitors: made === 0 ? 0 : Math.round((list.length * visits) / made),
    isSample: made < visits,
    list,
  };
}

/** Two visits of one visitor in the order of their pages; where they would lie over each other the later one waits. */
function together(one: readonly RecordedPage[], another: readonly RecordedPage[]): RecordedPage[] {
  const ordered =
    (one[0]?.atMs ?? 0) <= (another[0]?.atMs ?? 0) ? [...one, ...another] : [...another, ...one];
  let freeMs = 0;
  return ordered.map((page) => {
    const atMs = Math.max(page.atMs, freeMs);
    freeMs = atMs + (page.seconds ?? 0) * 1000;
    return { ...page, atMs };
  });
}
