import type { PeriodQuestion, Stretch } from '@velarium/contract';

const DAY_MS = 86_400_000;
/** Days asked about at once at most. */
const MOST_DAYS = 1100;

const msOf = (day: string): number => Date.parse(`${day}T00:00:00Z`);
/** The day so many after another, by the calendar. */
export const dayAfter = (day: string, days: number): string =>
  new Date(msOf(day) + days * DAY_MS).toISOString().slice(0, 10);
export const daysIn = ({ from, until }: Stretch): number =>
  Math.round((msOf(until) - msOf(from)) / DAY_MS) + 1;

/** Every day of a stretch, the first one first. */
export const daysOf = (stretch: Stretch): string[] =>
  Array.from({ length: daysIn(stretch) }, (_, n) => dayAfter(stretch.from, n));

export interface Asked {
  readonly period: Stretch;
  readonly against: Stretch | null;
}

/**
 * The days a question is about.
 *
 * @param today Of the site.
 * @param first The first day anything happened on; today's where nothing has.
 * @returns What is wrong with the question, in words, where something is.
 */
export function askedDays(
  { period, from, until, against, againstFrom, againstUntil }: PeriodQuestion,
  today: string,
  first: string,
): Asked | string {
  const stretch = stretchOf(period, { from, until }, today, first);
  if (typeof stretch === 'string') return stretch;
  if (against === 'none') return { period: stretch, against: null };
  if (against === 'own') {
    const other = ownStretch({ from: againstFrom, until: againstUntil }, 'the days to compare with');
    return typeof other === 'string' ? other : { period: stretch, against: other };
  }
  const days = daysIn(stretch);
  // The same weekdays lie whole weeks back.
  const back = against === 'weekdays' ? Math.ceil(days / 7) * 7 : days;
  return {
    period: stretch,
    against: { from: dayAfter(stretch.from, -back), until: dayAfter(stretch.until, -back) },
  };
}

function stretchOf(
  period: PeriodQuestion['period'],
  own: Partial<Record<keyof Stretch, string | undefined>>,
  today: string,
  first: string,
): Stretch | string {
  switch (period) {
    case 'today':
      return { from: today, until: today };
    case 'yesterday':
      return { from: dayAfter(today, -1), until: dayAfter(today, -1) };
    case 'launch': {
      const earliest = dayAfter(today, 1 - MOST_DAYS);
      return { from: first > today ? today : first < earliest ? earliest : first, until: today };
    }
    case 'own':
      return ownStretch(own, 'the period');
    default:
      return { from: dayAfter(today, 1 - Number(period)), until: today };
  }
}

function ownStretch(
  { from, until }: Partial<Record<keyof Stretch, string | undefined>>,
  what: string,
): Stretch | string {
  if (!from || !until) return `Choose the first and the last day of ${what}.`;
  if (until < from) return `The last day of ${what} lies before the first. Swap them, or choose another.`;
  if (daysIn({ from, until }) > MOST_DAYS) return `At most ${MOST_DAYS} days can be asked about at once.`;
  return { from, until };
}
