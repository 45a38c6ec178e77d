import type { Device } from '@velarium/contract';
import { DEVICES } from '@velarium/contract/values';
import type { PlayedPage } from '../rehearsal/play-page.ts';
import { wilson, Z_95 } from '../statistics/wilson.ts';
import { pathOf } from './as-visit.ts';
import { createWay, type WayToShowing } from './way.ts';

/** A count of the whole site's visitors, with its 95 % interval. */
export interface Estimate {
  readonly value: number;
  readonly low: number;
  readonly high: number;
}
export interface CampaignForecast {
  readonly campaign: string;
  /** Visitors who would see it at least once (Wilson). */
  readonly reached: Estimate;
  /** Showings, from how they are spread over visitors. */
  readonly showings: Estimate;
  /** Seconds on the page at which half of its showings have opened; `null` where it opens for nobody. */
  readonly second: number | null;
  readonly devices: Readonly<Record<Device, number>>;
  /** Where it opens most, with the share of its showings, 0 to 1. */
  readonly pages: readonly { readonly path: string; readonly share: number }[];
  /** Times another one had its place, and which; page views. */
  readonly gaveWay: readonly { readonly to: string; readonly views: number }[];
  /** Visitors it would have reached by the end of each day, from the first to the last of which anything is known. */
  readonly byDay: readonly Estimate[];
  /** How far the site's visitors come towards it, and what keeps those who come no further. */
  readonly way: readonly WayToShowing[];
}

/** One showing to one visitor. */
interface Showing {
  /** Days since the first of which anything is known. */
  readonly day: number;
  readonly device: Device;
  /** Its address, with what follows the path. */
  readonly page: string;
  readonly second: number;
}

const PAGES_NAMED = 5;
/** Seconds kept of one campaign: enough for a median, and no more however many visitors come. */
const SECONDS_KEPT = 20_000;

const addOne = <Key>(counts: Map<Key, number>, key: Key) => counts.set(key, (counts.get(key) ?? 0) + 1);
const mostFirst = (counts: ReadonlyMap<string, number>) => [...counts].sort(([, a], [, b]) => b - a);

/** Counts what becomes of one campaign, visitor after visitor. */
export function createTally(campaign: string, days: number, visitors: number) {
  let reached = 0;
  let showings = 0;
  /** Of the showings of each visitor, for their spread. */
  let squares = 0;
  const seconds: number[] = [];
  /** Visitors by the day it reached them first. */
  const firstOn = Array.from({ length: days }, () => 0);
  const pages = {
    desktop: new Map<string, number>(),
    tablet: new Map<string, number>(),
    mobile: new Map<string, number>(),
  } satisfies Record<Device, Map<string, number>>;
  const gaveWay = new Map<string, number>();
  const way = createWay();
  const who = new Uint8Array(Math.ceil(visitors / 8));
  /** The visitor it was shown to last, and how often. */
  let latest = { nth: -1, times: 0 };

  return {
    campaign,
    /** Whom it reached, a bit for each visitor. */
    who,
    /** Showings by device and address. */
    pages: pages as Readonly<Record<Device, ReadonlyMap<string, number>>>,

    /** Showings of a visitor, in their order. */
    opened(nth: number, { day, device, page, second }: Showing): void {
      if (latest.nth !== nth) {
        latest = { nth, times: 0 };
        reached++;
        firstOn[day] = (firstOn[day] as number) + 1;
        who[nth >> 3] = (who[nth >> 3] as number) | (1 << (nth & 7));
      }
      // The next square is the last and twice its root and one.
      squares += 2 * latest.times + 1;
      latest.times++;
      showings++;
      addOne(pages[device], page);
      if (seconds.length < SECONDS_KEPT) seconds.push(second);
    },

    /** What the same visitor's pages came to, after their showings. `at` is where the campaign stands in the manifest. */
    passed(nth: number, pages: readonly PlayedPage[], at: number): void {
      way.add(pages, at, latest.nth === nth);
      for (const { verdicts } of pages) {
        let lost: Set<string> | undefined;
        for (const { verdict } of verdicts[at] ?? []) {
          if (verdict.code !== 'waiting:floor' && verdict.code !== 'blocked:yielded') continue;
          const to = verdict.code === 'waiting:floor' ? verdict.heldBy : verdict.to;
          // Once a page view, however often they met on it.
          if (lost?.has(to)) continue;
          lost = (lost ?? new Set()).add(to);
          addOne(gaveWay, to);
        }
      }
    },

    /** What comes out after so many visitors, every count taken so many times. */
    result(played: number, times: number): CampaignForecast {
      const scaled = (count: number) => Math.round(count * times);
      const reachedOf = (count: number): Estimate => {
        if (played === 0) return { value: 0, low: 0, high: 0 };
        const { low, high } = wilson(count, played);
        return { value: scaled(count), low: scaled(low * played), high: scaled(high * played) };
      };
      let byNow = 0;
      const mean = played === 0 ? 0 : showings / played;
      const variance = played < 2 ? 0 : Math.max(0, (squares - played * mean * mean) / (played - 1));
      const half = Z_95 * Math.sqrt(variance * played);
      const paths = new Map<string, number>();
      for (const device of DEVICES)
        for (const [page, count] of pages[device])
          paths.set(pathOf(page), (paths.get(pathOf(page)) ?? 0) + count);
      const ordered = [...seconds].sort((a, b) => a - b);
      return {
        campaign,
        reached: reachedOf(reached),
        byDay: firstOn.map((count) => {
          byNow += count;
          return reachedOf(byNow);
        }),
        showings: {
          value: scaled(showings),
          low: scaled(Math.max(0, showings - half)),
          high: scaled(showings + half),
        },
        second: ordered[Math.floor((ordered.length - 1) / 2)] ?? null,
        devices: Object.fromEntries(
          DEVICES.map((device) => [
            device,
            scaled([...pages[device].values()].reduce((sum, count) => sum + count, 0)),
          ]),
        ) as CampaignForecast['devices'],
        pages: mostFirst(paths)
          .slice(0, PAGES_NAMED)
          .map(([path, count]) => ({ path, share: count / showings })),
        gaveWay: mostFirst(gaveWay).map(([to, views]) => ({ to, views: scaled(views) })),
        way: way.result(times),
      };
    },
  };
}
