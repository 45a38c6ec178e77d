import type { PlayedPage } from '../rehearsal/play-page.ts';
import type { Verdict } from '../verdict/verdict.ts';

/** How far a visitor comes towards a showing: whoever is at a step has been at those before it. */
export const WAY_STEPS = ['came', 'covered', 'audience', 'moment', 'shown'] as const;
export type WayStepId = (typeof WAY_STEPS)[number];

/** At which step each verdict keeps a visitor; the gates' own order. */
const KEPT_AT: Readonly<Record<Verdict['code'], WayStepId>> = {
  'blocked:schedule.before': 'came',
  'blocked:schedule.closed': 'came',
  'blocked:schedule.after': 'came',
  'blocked:page.nowhere': 'came',
  'blocked:page.unmatched': 'came',
  'blocked:page.excluded': 'came',
  'blocked:device': 'covered',
  'blocked:audience': 'covered',
  'blocked:memory': 'audience',
  'blocked:cap.converted': 'audience',
  'blocked:cap.refused': 'audience',
  'blocked:cap.closed': 'audience',
  'blocked:cap.unanswered': 'audience',
  'blocked:cap.showings': 'audience',
  'blocked:page.view': 'audience',
  'waiting:trigger': 'audience',
  'blocked:limit.pageView': 'moment',
  'blocked:limit.session': 'moment',
  'blocked:limit.day': 'moment',
  'blocked:limit.gap': 'moment',
  'blocked:unreachable': 'moment',
  'blocked:yielded': 'moment',
  'waiting:floor': 'moment',
  'held:holdout': 'moment',
  ready: 'moment',
  shown: 'shown',
};

/** Why visitors came no further than a step. */
export interface Kept {
  readonly code: Verdict['code'];
  readonly visitors: number;
}
export interface WayToShowing {
  readonly step: WayStepId;
  /** Who came at least so far. */
  readonly visitors: number;
  /** Of all who came, 0 to 1. */
  readonly share: number;
  /** What kept those who came no further, the most first. */
  readonly kept: readonly Kept[];
}

const STEP_OF = Object.fromEntries(
  Object.entries(KEPT_AT).map(([code, step]) => [code, WAY_STEPS.indexOf(step)]),
) as Readonly<Record<Verdict['code'], number>>;

/** The last verdict at the furthest step to which a campaign came on some pages; nothing where it came to none. */
function furthest(pages: readonly PlayedPage[], at: number): Verdict['code'] | undefined {
  let found: Verdict['code'] | undefined;
  for (const { verdicts } of pages)
    for (const { verdict } of verdicts[at] ?? [])
      if (found === undefined || STEP_OF[verdict.code] >= STEP_OF[found]) found = verdict.code;
  return found;
}

/** Counts how far the visitors of one campaign come. */
export function createWay() {
  const keptAt = WAY_STEPS.map(() => new Map<Verdict['code'], number>());
  return {
    /** One visitor's pages. `at` is where the campaign stands in the manifest. */
    add(pages: readonly PlayedPage[], at: number, isShown: boolean): void {
      const code = isShown ? 'shown' : furthest(pages, at);
      const kept = code && keptAt[STEP_OF[code]];
      if (kept) kept.set(code, (kept.get(code) ?? 0) + 1);
    },
    /** Every count taken so many times. */
    result(times: number): WayToShowing[] {
      const sums = keptAt.map((codes) => [...codes.values()].reduce((sum, count) => sum + count, 0));
      const from = (at: number) => sums.slice(at).reduce((sum, count) => sum + count, 0);
      const all = from(0);
      return WAY_STEPS.map((step, at) => ({
        step,
        visitors: Math.round(from(at) * times),
        share: all === 0 ? 0 : from(at) / all,
        kept:
          step === 'shown'
            ? []
            : [...(keptAt[at] ?? [])]
                .map(([code, count]) => ({ code, visitors: Math.round(count * times) }))
                .sort((a, b) => b.visitors - a.visitors),
      }));
    },
  };
}
