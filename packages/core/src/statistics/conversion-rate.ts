import { type Rate, wilson } from './wilson.ts';

export interface ConversionCounts {
  /** Unique visitors who met the campaign. */
  readonly visitors: number;
  /** Unique visitors who converted. */
  readonly converters: number;
}

/**
 * The rate of a campaign's visitors who converted, with its 95 % interval. Whoever converted has met the campaign,
 * also when the news of the showing was lost on the way (a content blocker, a page that was left), so the visitors are
 * never fewer than the converters. Counts that are none say nothing rather than throw: no screen may end on a number.
 */
export function conversionRate({ visitors, converters }: ConversionCounts): Rate {
  const count = (value: number) => (Number.isSafeInteger(value) && value > 0 ? value : 0);
  return wilson(count(converters), Math.max(count(visitors), count(converters)));
}
