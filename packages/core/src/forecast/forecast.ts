import type {
  Assumptions,
  Device,
  Manifest,
  ManifestCampaign,
  SiteLimits,
  Traffic,
} from '@velarium/contract';
import { DEVICES } from '@velarium/contract/values';
import { playVisit } from '../rehearsal/play.ts';
import { pairedDifference } from '../statistics/paired.ts';
import { wilson, Z_95 } from '../statistics/wilson.ts';
import { asRehearsal, staysOf } from './as-rehearsal.ts';
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
export interface Forecast {
  /** Of the site, in the days that were replayed. */
  readonly visitors: number;
  /** How many were played. */
  readonly played: number;
  readonly campaigns: readonly CampaignForecast[];
  /** Visitors who meet no message, one, two, three …; the last are those who meet as many or more. */
  readonly met: readonly number[];
}

/** The last of `met` counts all who meet so many or more. */
const MET = 6;
const PAGES_NAMED = 5;
const DAY_MS = 86_400_000;

/** How many more visitors a campaign reaches in one cast than in another, of the same visits. */
export interface ReachGain extends Estimate {
  readonly campaign: string;
}

interface Tally {
  reached: number;
  showings: number;
  /** Of the showings of each visitor, for their spread. */
  squares: number;
  readonly seconds: number[];
  readonly devices: Record<Device, number>;
  /** Visitors by the day it reached them first. */
  readonly days: number[];
  readonly pages: Map<string, number>;
  readonly gaveWay: Map<string, number>;
  readonly way: ReturnType<typeof createWay>;
  /** Whom it reached, a bit for each visitor. */
  readonly who: Uint8Array;
}
/** Seconds kept of one campaign: enough for a median, and no more however many visitors come. */
const SECONDS_KEPT = 20_000;

/** Replays recorded traffic against every campaign of a manifest, visitor by visitor; what is kept does not grow with them. */
export function createForecast(
  manifest: Manifest,
  traffic: Traffic,
  assumptions: Assumptions,
  origin: string,
) {
  const stays = staysOf(traffic);
  const [beganMs, endedMs] = stretchOf(traffic);
  // What has been recorded for three days foresees three.
  const days = Math.max(1, Math.min(traffic.days, Math.floor((endedMs - beganMs) / DAY_MS) + 1));
  const tallies = new Map(
    manifest.campaigns.map(({ id }): [string, Tally] => [
      id,
      {
        reached: 0,
        showings: 0,
        squares: 0,
        seconds: [],
        devices: { desktop: 0, tablet: 0, mobile: 0 },
        days: Array.from({ length: days }, () => 0),
        pages: new Map(),
        gaveWay: new Map(),
        way: createWay(),
        who: new Uint8Array(Math.ceil(traffic.list.length / 8)),
      },
    ]),
  );
  const met = Array.from({ length: MET + 1 }, () => 0);
  let played = 0;

  return {
    /** Plays the next visitors, as many as are asked for; whether there are more. */
    play(count: number): boolean {
      const until = Math.min(played + count, traffic.list.length);
      for (; played < until; played++) {
        const visitor = traffic.list[played];
        if (!visitor) break;
        const rehearsal = asRehearsal({ visitor, nth: played, manifest, stays, assumptions });
        const { openings, lanes } = playVisit({ manifest, rehearsal, origin });
        const shown = new Map<string, number>();
        for (const { campaign, page, second, atMs } of openings) {
          const tally = tallies.get(campaign) as Tally;
          if (!shown.has(campaign)) {
            const day = Math.min(days - 1, Math.max(0, Math.floor((atMs - beganMs) / DAY_MS)));
            tally.days[day] = (tally.days[day] ?? 0) + 1;
          }
          shown.set(campaign, (shown.get(campaign) ?? 0) + 1);
          tally.devices[visitor.device]++;
          const path = rehearsal.pages[page]?.path.split(/[?#]/, 1)[0] ?? '';
          tally.pages.set(path, (tally.pages.get(path) ?? 0) + 1);
          if (tally.seconds.length < SECONDS_KEPT) tally.seconds.push(second);
        }
        for (const [campaign, times] of shown) {
          const tally = tallies.get(campaign) as Tally;
          tally.reached++;
          tally.who[played >> 3] = (tally.who[played >> 3] ?? 0) | (1 << (played & 7));
          tally.showings += times;
          tally.squares += times * times;
        }
        met[Math.min(openings.length, MET)] = (met[Math.min(openings.length, MET)] ?? 0) + 1;
        for (const { campaign, stretches } of lanes) {
          const lost = new Set<string>();
          for (const { page, verdict } of stretches) {
            const to =
              verdict.code === 'waiting:floor'
                ? verdict.heldBy
                : verdict.code === 'blocked:yielded'
                  ? verdict.to
                  : '';
            if (to !== '') lost.add(`${page} ${to}`);
          }
          const { gaveWay, way } = tallies.get(campaign) as Tally;
          way.add(stretches, shown.has(campaign));
          for (const one of lost) {
            const to = one.slice(one.indexOf(' ') + 1);
            gaveWay.set(to, (gaveWay.get(to) ?? 0) + 1);
          }
        }
      }
      return played < traffic.list.length;
    },
    /** Whom a campaign reached of those played, a bit for each; nothing where it is not in this cast. */
    whoOf: (campaign: string): Uint8Array | undefined => tallies.get(campaign)?.who,
    visitors: traffic.visitors,
    get played(): number {
      return played;
    },
    /** What comes out of those played so far, reckoned up to all visitors of the site. */
    result(): Forecast {
      const times = played === 0 ? 0 : traffic.visitors / played;
      return {
        visitors: traffic.visitors,
        played,
        met: met.map((count) => Math.round(count * times)),
        campaigns: manifest.campaigns.map(({ id }) =>
          forecastOf(id, tallies.get(id) as Tally, played, times),
        ),
      };
    },
  };
}

/** From the first page view to the last, epoch milliseconds. */
const stretchOf = ({ list }: Traffic): readonly [beganMs: number, endedMs: number] =>
  list.reduce<readonly [number, number]>(
    ([began, ended], { pages }) => [
      Math.min(began, pages[0]?.atMs ?? began),
      Math.max(ended, pages.at(-1)?.atMs ?? ended),
    ],
    [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY],
  );

/** The same seen from the other side: how many fewer. */
export const opposite = ({ campaign, value, low, high }: ReachGain): ReachGain => ({
  campaign,
  value: 0 - value,
  low: 0 - high,
  high: 0 - low,
});

type Replayed = Pick<ReturnType<typeof createForecast>, 'whoOf' | 'visitors' | 'played'>;

/** Of two casts over the same visits, how many more visitors each campaign that is in both reaches in the second. */
export function reachGains(
  before: Replayed,
  after: Replayed,
  campaigns: readonly Pick<ManifestCampaign, 'id'>[],
): ReachGain[] {
  const bits = (byte: number): number => (byte === 0 ? 0 : (byte & 1) + bits(byte >> 1));
  return campaigns.flatMap(({ id }) => {
    const [was, is] = [before.whoOf(id), after.whoOf(id)];
    if (!was || !is) return [];
    let [gained, lost] = [0, 0];
    for (let n = 0; n < was.length; n++) {
      const [old, now] = [was[n] ?? 0, is[n] ?? 0];
      gained += bits(now & ~old);
      lost += bits(old & ~now);
    }
    const { value, low, high } = pairedDifference({ pairs: after.played, gained, lost });
    const scaled = (share: number) => Math.round(share * after.visitors);
    return [{ campaign: id, value: scaled(value ?? 0), low: scaled(low), high: scaled(high) }];
  });
}

function forecastOf(campaign: string, tally: Tally, played: number, times: number): CampaignForecast {
  const scaled = (count: number) => Math.round(count * times);
  const reachedOf = (count: number): Estimate => {
    if (played === 0) return { value: 0, low: 0, high: 0 };
    const { low, high } = wilson(count, played);
    return { value: scaled(count), low: scaled(low * played), high: scaled(high * played) };
  };
  let byNow = 0;
  const mean = played === 0 ? 0 : tally.showings / played;
  const variance = played < 2 ? 0 : Math.max(0, (tally.squares - played * mean * mean) / (played - 1));
  const half = Z_95 * Math.sqrt(variance * played);
  const ordered = [...tally.seconds].sort((a, b) => a - b);
  const most = (counts: ReadonlyMap<string, number>) => [...counts].sort(([, a], [, b]) => b - a);
  return {
    campaign,
    reached: reachedOf(tally.reached),
    byDay: tally.days.map((count) => {
      byNow += count;
      return reachedOf(byNow);
    }),
    showings: {
      value: scaled(tally.showings),
      low: scaled(Math.max(0, tally.showings - half)),
      high: scaled(tally.showings + half),
    },
    second: ordered[Math.floor((ordered.length - 1) / 2)] ?? null,
    devices: Object.fromEntries(
      DEVICES.map((device) => [device, scaled(tally.devices[device])]),
    ) as CampaignForecast['devices'],
    pages: most(tally.pages)
      .slice(0, PAGES_NAMED)
      .map(([path, count]) => ({ path, share: count / tally.showings })),
    gaveWay: most(tally.gaveWay).map(([to, views]) => ({ to, views: scaled(views) })),
    way: tally.way.result(times),
  };
}

/** The same site with one campaign less, or with other limits of its own. */
export function manifestSupposing(
  manifest: Manifest,
  { without, limits }: { readonly without: string | null; readonly limits: SiteLimits | null },
): Manifest {
  return {
    ...manifest,
    site: limits ? { ...manifest.site, limits } : manifest.site,
    campaigns: manifest.campaigns.filter(({ id }) => id !== without),
  };
}

/** Parts of a rule that keep a campaign from people, each with what it would be without. */
const WITHOUT = {
  devices: (one) => ({ ...one, devices: 7 }),
  audience: (one) => ({ ...one, audience: null }),
  schedule: (one) => ({ ...one, schedule: null }),
  caps: (one) => ({ ...one, caps: [] }),
  exclude: (one) => ({ ...one, excludeKeys: [], exclude: [] }),
  pages: (one) => ({ ...one, includeKeys: [], include: [{ kind: 'every' }], excludeKeys: [], exclude: [] }),
  moment: (one) => ({
    ...one,
    moment: { ...one.moment, join: 'any', triggers: [{ kind: 'time', seconds: 0 }], notBeforeSeconds: 0 },
  }),
  pauses: (one) => ({ ...one, afterClose: 'none', afterNo: 'none', afterConversion: 'none' }),
} satisfies Readonly<Record<string, (one: ManifestCampaign) => ManifestCampaign>>;
export type CostlyPart = keyof typeof WITHOUT;
export const COSTLY_PARTS = Object.keys(WITHOUT) as CostlyPart[];

/** The same site with one campaign rid of one part of its rule; nothing where the part keeps it from nobody. */
export function manifestWithout(
  manifest: Manifest,
  campaign: string,
  part: CostlyPart,
): Manifest | undefined {
  const one = manifest.campaigns.find(({ id }) => id === campaign);
  if (!one) return undefined;
  const freed = WITHOUT[part](one);
  if (JSON.stringify(freed) === JSON.stringify(one)) return undefined;
  return { ...manifest, campaigns: manifest.campaigns.map((other) => (other === one ? freed : other)) };
}
