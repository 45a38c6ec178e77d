import type { ResultCounts } from '@velarium/contract';

/** One step of the way from a showing to what a campaign is for. */
export interface WayStep {
  readonly id: 'shown' | 'seen' | 'clicked' | 'begun' | 'converted' | 'confirmed';
  readonly words: string;
  /** Unique visitors, or answers where people are asked to confirm. */
  readonly count: number;
  /** How many of the step before did not come so far; `null` at the first. */
  readonly left: number | null;
  /** Share of the first step, 0 to 1. */
  readonly ofFirst: number;
}

const STEP_WORDS: Readonly<Record<WayStep['id'], string>> = {
  shown: 'Visitors it was shown to',
  seen: 'had it in sight for a second',
  clicked: 'clicked in it',
  begun: 'began to answer',
  converted: 'converted',
  confirmed: 'confirmed by mail',
};

/**
 * The way down. Steps that nobody can take here are left out: a form has no click before it, and nobody confirms what is
 * not asked.
 */
export function wayDown({
  counts,
  confirmed,
}: {
  readonly counts: ResultCounts;
  readonly confirmed: number;
}): WayStep[] {
  const { visitors, viewers, clickers, writers, converters } = counts;
  const all: { id: WayStep['id']; count: number }[] = [
    { id: 'shown', count: visitors },
    { id: 'seen', count: viewers },
    ...(clickers > 0 ? [{ id: 'clicked' as const, count: clickers }] : []),
    ...(writers > 0 ? [{ id: 'begun' as const, count: writers }] : []),
    { id: 'converted', count: converters },
    ...(confirmed > 0 ? [{ id: 'confirmed' as const, count: confirmed }] : []),
  ];
  return all.map(({ id, count }, at) => ({
    id,
    words: STEP_WORDS[id],
    count,
    left: at === 0 ? null : Math.max(0, (all[at - 1]?.count ?? 0) - count),
    ofFirst: visitors === 0 ? 0 : Math.min(1, count / visitors),
  }));
}
