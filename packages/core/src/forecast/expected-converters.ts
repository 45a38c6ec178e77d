import type { CampaignNumbers } from '@velarium/contract';
import { wilson } from '../statistics/wilson.ts';
import type { Estimate } from './tally.ts';

/**
 * How many of those a campaign would reach would convert, by the rate it has had; `null` where it has had none.
 *
 * Both ends are taken at once, of those reached and of the rate: the interval holds at least as often as either does.
 */
export function expectedConverters(
  reached: Estimate,
  { visitors, converters }: Pick<CampaignNumbers, 'visitors' | 'converters'>,
): Estimate | null {
  const { value, low, high } = wilson(Math.min(converters, visitors), visitors);
  if (value === null) return null;
  return {
    value: Math.round(reached.value * value),
    low: Math.floor(reached.low * low),
    high: Math.ceil(reached.high * high),
  };
}
