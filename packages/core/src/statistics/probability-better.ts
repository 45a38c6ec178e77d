import type { ConversionCounts } from './conversion-rate.ts';
import { logBeta } from './gamma.ts';

/** A beta distribution of what a rate may be. */
interface Beta {
  readonly a: number;
  readonly b: number;
}
/** What is believed of a rate after so many visitors, nothing having been believed before. */
const believed = ({ visitors, converters }: ConversionCounts): Beta => ({
  a: converters + 1,
  b: Math.max(0, visitors - converters) + 1,
});

const SMALL = 1e-17;

/**
 * The chance that a rate drawn from the second distribution is above one drawn from the first.
 *
 * Source: Miller (2014), closed form for beta distributions with whole parameters: a sum of terms of one sign. It is
 * added up outwards from its largest term, where neither side can underflow.
 */
function chanceAbove(first: Beta, second: Beta): number {
  // Summed over the smaller parameter; the chance of the opposite mirrors it.
  if (second.a > first.a) return 1 - chanceAbove(second, first);
  const term = (i: number): number =>
    Math.exp(
      logBeta(first.a + i, first.b + second.b) -
        Math.log(second.b + i) -
        logBeta(1 + i, second.b) -
        logBeta(first.a, first.b),
    );
  const last = second.a - 1;
  // The ratio of neighbours falls through 1 at one place: that is the largest term.
  const ratio = (i: number): number =>
    ((first.a + i) * (second.b + i)) / ((first.a + first.b + second.b + i) * (1 + i));
  let [low, high] = [0, last];
  while (low < high) {
    const middle = Math.floor((low + high) / 2);
    if (ratio(middle) >= 1) low = middle + 1;
    else high = middle;
  }
  const largest = term(low);
  let sum = largest;
  for (let [i, value] = [low, largest]; i < last; i++) {
    value *= ratio(i);
    sum += value;
    if (value < sum * SMALL) break;
  }
  for (let [i, value] = [low, largest]; i > 0; i--) {
    value /= ratio(i - 1);
    sum += value;
    if (value < sum * SMALL) break;
  }
  return Math.min(1, sum);
}

/**
 * The chance that the second rate is truly above the first, as description: it may not be watched until it pleases.
 * Uniform beliefs before. 0.5 where nothing is known of either.
 */
export const probabilityBetter = (first: ConversionCounts, second: ConversionCounts): number =>
  chanceAbove(believed(first), believed(second));

/**
 * What choosing the second would cost on average if it were the worse one: points of rate lost, counted as none where it
 * is the better.
 */
export function costOfChoosing(first: ConversionCounts, second: ConversionCounts): number {
  const [f, s] = [believed(first), believed(second)];
  const gained = (f.a / (f.a + f.b)) * chanceAbove(s, { ...f, a: f.a + 1 });
  const given = (s.a / (s.a + s.b)) * chanceAbove({ ...s, a: s.a + 1 }, f);
  return Math.max(0, gained - given);
}
