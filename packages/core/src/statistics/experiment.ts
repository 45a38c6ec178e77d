import { directionOf, rateDifference } from './difference.ts';
import { isDividedWrongly } from './division.ts';
import { mixtureBoundary } from './mixture.ts';
import { LEAST_STEP, spendingBoundaries } from './spending.ts';

/** One variant by the end of a day: visitors whose window has closed, and those of them who reached the goal. */
export interface ArmCounts {
  readonly id: string;
  readonly weight: number;
  readonly visitors: number;
  readonly converters: number;
}
/** How an experiment stood by the end of a day; arms in one order, the present one first. */
export interface ExperimentDay {
  readonly day: string;
  readonly arms: readonly ArmCounts[];
}

export interface ExperimentPlan {
  /** Visitors a side it is planned for; `null` runs without an end. */
  readonly visitorsASide: number | null;
  /** The smallest difference of rates worth having, in shares of 1. */
  readonly smallest: number;
  /** Error over all looks and all variants together. */
  readonly alpha?: number;
}

/** One variant against the present one, on one day. */
export interface Look {
  readonly day: string;
  readonly difference: number;
  /** Of the difference: right on all days together. */
  readonly low: number;
  readonly high: number;
  readonly z: number;
  /** The z that would have been needed. */
  readonly boundary: number;
}

export interface ArmStory {
  readonly id: string;
  readonly looks: readonly Look[];
  /** The look at which it was decided, after which nothing changes it. */
  readonly decided: Look | null;
}

export type ExperimentCode =
  | 'nothing'
  | 'division'
  | 'better'
  | 'present'
  | 'noDifference'
  | 'undecided'
  | 'notYet';
export interface ExperimentVerdict {
  readonly code: ExperimentCode;
  /** The variant it speaks of. */
  readonly arm: string | null;
  readonly look: Look | null;
  readonly stories: readonly ArmStory[];
  /** Share of the plan that has been seen; `null` without one. */
  readonly seen: number | null;
}

const ALPHA = 0.05;

/** The difference with its variance, pooled for the test and apart for the interval. */
function differenceOf(present: ArmCounts, other: ArmCounts) {
  const [n, m] = [present.visitors, other.visitors];
  if (n === 0 || m === 0) return undefined;
  const [p, q] = [present.converters / n, other.converters / m];
  const pooled = (present.converters + other.converters) / (n + m);
  const variance = pooled * (1 - pooled) * (1 / n + 1 / m);
  const apart = (p * (1 - p)) / n + (q * (1 - q)) / m;
  return variance > 0 ? { difference: q - p, variance, apart: Math.max(apart, 1e-12) } : undefined;
}

function storyOf(days: readonly ExperimentDay[], id: string, plan: ExperimentPlan, alpha: number): ArmStory {
  const found = days.flatMap(({ day, arms }) => {
    const [present, other] = [arms[0], arms.find((arm) => arm.id === id)];
    const known = present && other && differenceOf(present, other);
    if (!present || !other || !known) return [];
    return [{ day, ...known, visitors: Math.min(present.visitors, other.visitors) }];
  });
  const looks: Look[] = [];
  const put = ({ day, difference, variance, apart }: (typeof found)[number], boundary: number) => {
    const reach = boundary * Math.sqrt(apart);
    looks.push({
      day,
      difference,
      low: Math.max(-1, difference - reach),
      high: Math.min(1, difference + reach),
      z: difference / Math.sqrt(variance),
      boundary,
    });
  };
  const { visitorsASide, smallest } = plan;
  if (visitorsASide === null) {
    for (const one of found) {
      const information = 1 / one.apart;
      // Narrowest where the smallest difference worth having would be noticed by a fixed test.
      const tuned = 8 / Math.max(1e-9, smallest * smallest);
      put(one, mixtureBoundary(information, tuned, alpha));
    }
  } else {
    const seen: typeof found = [];
    const shares: number[] = [];
    for (const one of found) {
      const share = Math.min(1, one.visitors / visitorsASide);
      const before = shares.at(-1) ?? 0;
      if (before >= 1 || (share < 1 && share - before < LEAST_STEP)) continue;
      // The last step may be a small one: it is taken together with the one before.
      if (share - before < LEAST_STEP) {
        shares.pop();
        seen.pop();
      }
      shares.push(share);
      seen.push(one);
    }
    const bounds = spendingBoundaries(shares, alpha);
    seen.forEach((one, n) => {
      put(one, bounds[n] as number);
    });
  }
  return { id, looks, decided: looks.find(({ z, boundary }) => Math.abs(z) >= boundary) ?? null };
}

/**
 * What an experiment says, which may be asked every day: all looks at all variants together err no more often than
 * `alpha`. Variants share the error between them (Bonferroni). A division that is not as drawn is said before all else.
 */
export function experimentVerdict(days: readonly ExperimentDay[], plan: ExperimentPlan): ExperimentVerdict {
  const last = days.at(-1)?.arms ?? [];
  const others = last.slice(1).map(({ id }) => id);
  const alpha = (plan.alpha ?? ALPHA) / Math.max(1, others.length);
  const stories = others.map((id) => storyOf(days, id, plan, alpha));
  const least = last.length === 0 ? 0 : Math.min(...last.map(({ visitors }) => visitors));
  const seen = plan.visitorsASide === null ? null : Math.min(1, least / plan.visitorsASide);
  const say = (code: ExperimentCode, story?: ArmStory, look: Look | null = null): ExperimentVerdict => ({
    code,
    arm: story?.id ?? null,
    look,
    stories,
    seen,
  });
  if (last.every(({ visitors }) => visitors === 0)) return say('nothing');
  if (isDividedWrongly(last)) return say('division');
  const better = stories
    .filter(({ decided }) => decided && decided.difference > 0)
    .sort((a, b) => (b.looks.at(-1)?.difference ?? 0) - (a.looks.at(-1)?.difference ?? 0));
  const [best] = better;
  if (best) return say('better', best, best.decided);
  if (stories.length > 0 && stories.every(({ decided }) => decided)) {
    const [story] = stories;
    return say('present', story, story?.decided ?? null);
  }
  const open = stories.filter(({ decided }) => !decided);
  const isSmall = ({ looks }: ArmStory) => {
    const look = looks.at(-1);
    return look !== undefined && look.low > -plan.smallest && look.high < plan.smallest;
  };
  const [first] = open;
  const latest = first?.looks.at(-1) ?? null;
  if (open.length > 0 && open.every(isSmall)) return say('noDifference', first, latest);
  if (seen !== null && seen >= 1) return say('undecided', first, latest);
  return say('notYet', first, latest);
}

/** Days still to go if visitors keep coming as they did; `null` where that cannot be said. */
export function daysToGo(days: readonly ExperimentDay[], visitorsASide: number | null): number | null {
  const last = days.at(-1);
  if (!last || visitorsASide === null) return null;
  const least = Math.min(...last.arms.map(({ visitors }) => visitors));
  const perDay = least / days.length;
  return perDay > 0 ? Math.max(0, Math.ceil((visitorsASide - least) / perDay)) : null;
}

/** Two variants on their plain counts, where nobody has looked before: the holdout's comparison. */
export const plainDifference = (present: ArmCounts, other: ArmCounts) => {
  const difference = rateDifference(present, other);
  return { ...difference, direction: directionOf(difference) };
};
