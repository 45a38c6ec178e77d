import { clockWords } from '../rehearsal/expectations.ts';
import { counted, figure } from '../sentence/words.ts';
import type { CampaignForecast } from './forecast.ts';

/** By which share a count grows, 0.5 for half as many again; `null` where there was nothing to grow from. */
export const gain = (before: number, after: number): number | null =>
  before === 0 ? (after === 0 ? 0 : null) : (after - before) / before;

/** `1,234 of 11,690 visitors would meet it (1,180 to 1,290), 1.2 times each, half of them by 0:12 of a page.` */
export function forecastWords({ reached, showings, second }: CampaignForecast, visitors: number): string {
  if (reached.value === 0 || second === null) return `none of ${counted(visitors, 'visitor')} would meet it.`;
  const each = (showings.value / reached.value).toFixed(1);
  return `${figure(reached.value)} of ${counted(visitors, 'visitor')} would meet it (${figure(reached.low)} to ${figure(reached.high)}), ${each} times each, half of the times by ${clockWords(second)} of a page.`;
}
