import type {
  Audience,
  AudienceShare,
  Browser,
  Condition,
  SeenValues,
  Source,
  System,
} from '@velarium/contract';
import { wilson } from '../statistics/wilson.ts';
import { isInAudience, type VisitorFacts } from './audience.ts';

/** One session as it was recorded; `null` is not known. */
export interface RecordedVisit {
  readonly startedAtMs: number;
  readonly views: number;
  /** 1 for the visitor's first session. */
  readonly number: number | null;
  readonly landing: string;
  readonly arrival: Readonly<Record<string, string>>;
  readonly referrer: string | null;
  readonly source: Source | null;
  readonly country: string | null;
  readonly languages: readonly string[];
  readonly browser: Browser;
  readonly system: System;
  readonly signedIn: boolean | null;
  readonly basket: { readonly items: number; readonly total: number } | null;
  readonly attributes: Readonly<Record<string, string>>;
}

export interface RecordedVisitor {
  readonly visits: readonly RecordedVisit[];
  /** When the visitor first saw, closed and converted on a campaign, epoch milliseconds. */
  readonly first: (campaign: string) => {
    readonly seen?: number | undefined;
    readonly closed?: number | undefined;
    readonly converted?: number | undefined;
  };
}

interface ShareInput {
  readonly audience: Audience | null;
  readonly visitors: readonly RecordedVisitor[];
  /** The campaign whose audience it is. */
  readonly campaign: string;
}

const COUNT_MOST = 10_000;

/**
 * How many of these visitors were in an audience in at least one of their visits, as things stood at its end; what
 * came of a campaign in the same visit does not count for it yet.
 *
 * @returns The count with the Wilson interval of its share, and the conditions no visit told anything about: they were
 *   true of nobody for want of knowledge.
 */
export function audienceShare({
  audience,
  visitors,
  campaign,
}: ShareInput): Omit<AudienceShare, 'visitors' | 'isSample'> {
  const isIn = ({ visits, first }: RecordedVisitor) =>
    visits.some((visit) => isInAudience(audience, factsOf(visit, first), campaign));
  const inside = visitors.filter(isIn).length;
  const { low, high } = wilson(inside, visitors.length);
  const told = new Set(visitors.flatMap(({ visits }) => visits.flatMap(toldKinds)));
  const asked = audience?.groups.flatMap(({ items }) => items.map(({ condition }) => condition.kind)) ?? [];
  const unheard = [...new Set(asked)].filter((kind) => TOLD_BY_PAGES.has(kind) && !told.has(kind));
  return { inside, of: visitors.length, low, high, unheard };
}

const TOLD_BY_PAGES: ReadonlySet<Condition['kind']> = new Set([
  'signedIn',
  'basketItems',
  'basketTotal',
  'attribute',
]);
const toldKinds = ({ signedIn, basket, attributes }: RecordedVisit): Condition['kind'][] => [
  ...(signedIn === null ? [] : (['signedIn'] as const)),
  ...(basket === null ? [] : (['basketItems', 'basketTotal'] as const)),
  ...(Object.keys(attributes).length === 0 ? [] : (['attribute'] as const)),
];

function factsOf(
  { startedAtMs, number, views, referrer, ...visit }: RecordedVisit,
  first: RecordedVisitor['first'],
): VisitorFacts {
  return {
    ...visit,
    sessions: number ?? 1,
    viewsInSession: views,
    referrer: referrer ?? '',
    history(id) {
      const { seen, closed, converted } = first(id);
      const isBefore = (atMs: number | undefined) => atMs !== undefined && atMs < startedAtMs;
      return { seen: isBefore(seen), closed: isBefore(closed), converted: isBefore(converted) };
    },
  };
}

/** What visitors came with and were told of, each with how many of them, the most frequent first. */
export function seenValues(visitors: readonly RecordedVisitor[], most = 60): SeenValues {
  const collect = (valuesOf: (visit: RecordedVisit) => readonly string[]) => {
    const counts = new Map<string, number>();
    for (const { visits } of visitors) {
      for (const value of new Set(visits.flatMap(valuesOf))) {
        if (counts.size < COUNT_MOST || counts.has(value)) counts.set(value, (counts.get(value) ?? 0) + 1);
      }
    }
    return [...counts]
      .sort(([a, countA], [b, countB]) => countB - countA || (a < b ? -1 : 1))
      .slice(0, most)
      .map(([value, count]) => ({ value, visitors: count }));
  };
  const pairs = (of: (visit: RecordedVisit) => Readonly<Record<string, string>>) =>
    collect((visit) => Object.entries(of(visit)).map((pair) => JSON.stringify(pair))).map(
      ({ value, visitors: count }) => {
        const [name, one] = JSON.parse(value) as [string, string];
        return { name, value: one, visitors: count };
      },
    );
  return {
    referrers: collect(({ referrer }) => (referrer ? [referrer] : [])),
    landings: collect(({ landing }) => (landing ? [landing] : [])),
    languages: collect(({ languages }) => languages),
    countries: collect(({ country }) => [country ?? 'unknown']),
    parameters: pairs(({ arrival }) => arrival),
    attributes: pairs(({ attributes }) => attributes),
  };
}

/** Ids are read this far: 48 bits, which a number holds exactly. */
const ID_DIGITS = 12;

/**
 * How many visitors there are when those with the smallest random ids are known: `known` of them lie below `boundary`,
 * the id that comes next. Source: Beyer et al. (2007), "On synopses for distinct-value estimation under multiset
 * operations", the unbiased estimator (k - 1) / U(k) with k = known + 1.
 */
export function reckonVisitors(known: number, boundary: string): number {
  const share = Number.parseInt(boundary.replaceAll('-', '').slice(0, ID_DIGITS), 16) / 16 ** ID_DIGITS;
  return share > 0 ? Math.round(known / share) : known;
}
