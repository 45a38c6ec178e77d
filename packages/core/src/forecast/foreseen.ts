import type { Foreseen, KeptForecast } from '@velarium/contract';
import { counted, figure } from '../sentence/words.ts';
import type { CampaignForecast } from './tally.ts';

/** What is kept of a forecast with a launch. */
export const keptForecastOf = ({ byDay }: CampaignForecast, visitors: number): KeptForecast => ({
  visitors,
  byDay: byDay.map(({ value, low, high }) => ({ value, low, high })),
});

/** `as foreseen` within the interval of the last day that is over; `too early` before one is. */
export type HowItHeld = 'too early' | 'as foreseen' | 'fewer' | 'more';

/** How a launch came out against what was foreseen of it. */
export function howItHeld({ forecast, came }: Pick<Foreseen, 'forecast' | 'came'>): HowItHeld {
  const now = came.at(-1);
  const then = forecast.byDay[came.length - 1];
  if (now === undefined || !then) return 'too early';
  return now < then.low ? 'fewer' : now > then.high ? 'more' : 'as foreseen';
}

/** `1,310 visitors met it in 7 days; 1,240 were foreseen (1,190 to 1,290).` */
export function foreseenWords({ forecast, came }: Pick<Foreseen, 'forecast' | 'came'>): string {
  const now = came.at(-1);
  const then = forecast.byDay[came.length - 1];
  if (now === undefined || !then) {
    const whole = forecast.byDay.at(-1);
    return `No day is over yet; ${counted(whole?.value ?? 0, 'visitor is', 'visitors are')} foreseen in ${counted(forecast.byDay.length, 'day')} (${figure(whole?.low ?? 0)} to ${figure(whole?.high ?? 0)}).`;
  }
  return `${counted(now, 'visitor')} met it in ${counted(came.length, 'day')}; ${figure(then.value)} ${then.value === 1 ? 'was' : 'were'} foreseen (${figure(then.low)} to ${figure(then.high)}).`;
}

/** Of all that were kept, how many came out as foreseen; those of which no day is over are left out. */
export function heldSoFar(all: readonly Pick<Foreseen, 'forecast' | 'came'>[]): {
  readonly held: number;
  readonly of: number;
} {
  const told = all.map(howItHeld).filter((how) => how !== 'too early');
  return { held: told.filter((how) => how === 'as foreseen').length, of: told.length };
}
