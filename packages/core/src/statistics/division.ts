import { logGamma } from './gamma.ts';

/** How sure one must be that visitors are not divided as drawn: wrongly so at most once in as many experiments. */
const ALARM = 1000;
/** Visitors' worth of belief in the division as drawn. */
const BELIEF = 100;

export interface Division {
  /** Relative to the others. */
  readonly weight: number;
  readonly visitors: number;
}

/**
 * The evidence that visitors are divided otherwise than drawn, which may be looked at as often as one likes: the odds of
 * any division around the drawn one against that one itself. Where the draw is right it passes N at most once in N
 * experiments, over all looks together.
 *
 * Source: Ville (1939), the inequality for non-negative martingales; the odds are those of a Dirichlet-multinomial.
 */
export function divisionEvidence(arms: readonly Division[]): number {
  const drawn = arms.filter(({ weight }) => weight > 0);
  const weights = drawn.reduce((sum, { weight }) => sum + weight, 0);
  const all = drawn.reduce((sum, { visitors }) => sum + visitors, 0);
  if (arms.some(({ weight, visitors }) => weight <= 0 && visitors > 0)) return Number.POSITIVE_INFINITY;
  if (drawn.length < 2) return 1;
  let odds = logGamma(BELIEF) - logGamma(BELIEF + all);
  for (const { weight, visitors } of drawn) {
    const share = weight / weights;
    odds += logGamma(BELIEF * share + visitors) - logGamma(BELIEF * share) - visitors * Math.log(share);
  }
  return Math.exp(odds);
}

/** Whether visitors are surely not divided as drawn: then no winner may be named. */
export const isDividedWrongly = (arms: readonly Division[]): boolean => divisionEvidence(arms) >= ALARM;
