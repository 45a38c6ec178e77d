import type {
  Assumptions,
  Manifest,
  ManifestCampaign,
  MetByPage,
  SiteLimits,
  Traffic,
  TrafficVisitor,
} from '@velarium/contract';
import { DEVICES } from '@velarium/contract/values';
import { isSame } from '../merge/is-same.ts';
import { createPlayer } from '../rehearsal/play.ts';
import { pairedDifference } from '../statistics/paired.ts';
import { asVisit, staysOf, usualReactions } from './as-visit.ts';
import { type CampaignForecast, createTally, type Estimate } from './tally.ts';

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
const DAY_MS = 86_400_000;

/** How many more visitors a campaign reaches in one cast than in another, of the same visits. */
export interface ReachGain extends Estimate {
  readonly campaign: string;
}

/** Replays recorded traffic against every campaign of a manifest, visitor by visitor; what is kept does not grow with them. */
export function createForecast(
  manifest: Manifest,
  traffic: Traffic,
  assumptions: Assumptions,
  origin: string,
) {
  const stays = staysOf(traffic);
  const play = createPlayer({ manifest, origin });
  const reactions = usualReactions(manifest, assumptions);
  const [beganMs, endedMs] = stretchOf(traffic);
  // What has been recorded for three days foresees three.
  const days = Math.max(1, Math.min(traffic.days, Math.floor((endedMs - beganMs) / DAY_MS) + 1));
  const tallies = manifest.campaigns.map(({ id }) => createTally(id, days, traffic.list.length));
  const byId = new Map(tallies.map((tally) => [tally.campaign, tally]));
  const met = Array.from({ length: MET + 1 }, () => 0);
  let played = 0;

  const playOne = (visitor: TrafficVisitor, nth: number) => {
    const visit = asVisit({ visitor, nth, stays, assumptions });
    const pages = play({ ...visit, reactions });
    let openings = 0;
    for (const [n, { wallMs, openings: here }] of pages.entries()) {
      openings += here.length;
      for (const { campaign, second } of here)
        byId.get(campaign)?.opened(nth, {
          day: Math.min(days - 1, Math.max(0, Math.floor((wallMs + second * 1000 - beganMs) / DAY_MS))),
          device: visitor.device,
          page: visit.pages[n]?.path ?? '',
          second,
        });
    }
    for (const [n, tally] of tallies.entries()) tally.passed(nth, pages, n);
    const most = Math.min(openings, MET);
    met[most] = (met[most] as number) + 1;
  };

  return {
    /** Plays the next visitors, as many as are asked for; whether there are more. */
    play(count: number): boolean {
      const until = Math.min(played + count, traffic.list.length);
      for (; played < until; played++) playOne(traffic.list[played] as TrafficVisitor, played);
      return played < traffic.list.length;
    },
    /** Whom each campaign reached of those played, a bit for each. */
    who: (): ReadonlyMap<string, Uint8Array> => new Map(tallies.map(({ campaign, who }) => [campaign, who])),
    /** How often each campaign was shown on each page and device, reckoned up to all visitors of the site. */
    byPage: (): MetByPage[] =>
      tallies.flatMap(({ campaign, pages }) =>
        DEVICES.flatMap((device) =>
          [...pages[device]].map(([path, count]) => ({
            campaign,
            path,
            device,
            showings: Math.round((count * traffic.visitors) / played),
          })),
        ),
      ),
    /** What comes out of those played so far, reckoned up to all visitors of the site. */
    result(): Forecast {
      const times = played === 0 ? 0 : traffic.visitors / played;
      return {
        visitors: traffic.visitors,
        played,
        met: met.map((count) => Math.round(count * times)),
        campaigns: tallies.map((tally) => tally.result(played, times)),
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

/** What came of a cast that was replayed to the last visitor, and whom each of its campaigns reached. */
export interface ReplayedCast {
  readonly forecast: Pick<Forecast, 'visitors' | 'played'>;
  readonly who: ReadonlyMap<string, Uint8Array>;
}

/** Of two casts over the same visits, how many more visitors each campaign that is in both reaches in the second. */
export function reachGains(
  before: ReplayedCast,
  after: ReplayedCast,
  campaigns: readonly Pick<ManifestCampaign, 'id'>[],
): ReachGain[] {
  const bits = (byte: number): number => (byte === 0 ? 0 : (byte & 1) + bits(byte >> 1));
  return campaigns.flatMap(({ id }) => {
    const [was, is] = [before.who.get(id), after.who.get(id)];
    if (!was || !is) return [];
    let [gained, lost] = [0, 0];
    for (let n = 0; n < was.length; n++) {
      const [old, now] = [was[n] as number, is[n] as number];
      gained += bits(now & ~old);
      lost += bits(old & ~now);
    }
    const { visitors, played } = after.forecast;
    const { value, low, high } = pairedDifference({ pairs: played, gained, lost });
    const scaled = (share: number) => Math.round(share * visitors);
    return [{ campaign: id, value: scaled(value ?? 0), low: scaled(low), high: scaled(high) }];
  });
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
  if (isSame(freed, one)) return undefined;
  return { ...manifest, campaigns: manifest.campaigns.map((other) => (other === one ? freed : other)) };
}
