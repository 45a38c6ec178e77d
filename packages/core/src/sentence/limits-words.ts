import type { Cap, Schedule } from '@velarium/contract';
import { NORMAL_PRIORITY } from '@velarium/contract/values';
import { everySpan, listOf } from './words.ts';

export function capsWords(caps: readonly Cap[], stopAfterUnanswered: number | null): string {
  const often = caps.length === 0 ? 'every time a page is opened' : listOf(caps.map(capWords));
  if (stopAfterUnanswered === null) return often;
  return `${often}, until ${stopAfterUnanswered === 1 ? '1 showing goes' : `${stopAfterUnanswered} showings go`} unanswered`;
}

function capWords({ max, per }: Cap): string {
  const often = max === 1 ? 'once' : `at most ${max} times`;
  if (per === 'session') return `${often} per session`;
  if (per === 'ever') return `${often} per visitor`;
  return `${often} ${everySpan(per)}`;
}

export const DAY_NAMES = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'];
export const MONTHS = [
  'January',
  'February',
  'March',
  'April',
  'May',
  'June',
  'July',
  'August',
  'September',
  'October',
  'November',
  'December',
];

const WORKING_DAYS = 5;
/** Days of a week that are said as one stretch. */
const STRETCH = 3;

/** `weekdays`, `Mondays to Saturdays`, `every day but Wednesdays`, `Mondays and Fridays`. */
export function daysWords(days: readonly number[]): string {
  const [first = 1] = days;
  const plural = (day: number) => `${DAY_NAMES[day - 1]}s`;
  const isOneStretch = days.every((day, n) => day === first + n);
  if (!isOneStretch && days.length === DAY_NAMES.length - 1) {
    const missing = DAY_NAMES.findIndex((_, n) => !days.includes(n + 1));
    return `every day but ${plural(missing + 1)}`;
  }
  if (!isOneStretch || days.length < STRETCH) return listOf(days.map(plural));
  if (first === 1 && days.length === WORKING_DAYS) return 'weekdays';
  return `${plural(first)} to ${plural(first + days.length - 1)}`;
}

/** `18:00 and 22:00`, `22:00 and 02:00 the next day`. */
export const hoursWords = ({ from, to }: Schedule['hours'][number]): string =>
  `${from} and ${to}${to <= from ? ' the next day' : ''}`;

function dateWords(date: string): string {
  const [year, month, day] = date.split('-').map(Number) as [number, number, number];
  return `${day} ${MONTHS[month - 1]} ${year}`;
}
const leftOutWords = ({ from, to }: Schedule['blackouts'][number]): string =>
  from === to ? `on ${dateWords(from)}` : `from ${dateWords(from)} to ${dateWords(to)}`;
const timeWords = (local: string): string => `${dateWords(local.slice(0, 10))} at ${local.slice(11)}`;

/** `from 1 December 2026 at 09:00, on Fridays, between 18:00 and 22:00, by the site's clock`. */
export function scheduleWords({ zone, start, end, days, hours, blackouts }: Schedule): string {
  const parts = [
    ...(start ? [`from ${timeWords(start)}`] : []),
    ...(end ? [`until ${timeWords(end)}`] : []),
    ...(days.length > 0 ? [`on ${daysWords(days)}`] : []),
    ...(hours.length > 0 ? [`between ${listOf(hours.map(hoursWords), 'or')}`] : []),
    ...(blackouts.length > 0 ? [`but not ${listOf(blackouts.map(leftOutWords), 'or')}`] : []),
  ];
  return [...(parts.length > 0 ? parts : ['at any time']), `by the ${zone}’s clock`].join(', ');
}

/** `going first with priority 8 of 9`; what is normal is not said. */
export const priorityWords = (priority: number): string =>
  `${priority > NORMAL_PRIORITY ? 'going before others' : 'letting others go first'} with priority ${priority} of 9`;

/** `held back from 10 % of visitors and tried in 3 variants (a 50 %, b 30 %, c 20 %)`. */
export function experimentWords(
  holdout: number,
  variants: readonly { readonly id: string; readonly weight: number }[],
): string {
  const rest = 100 - variants.reduce((sum, { weight }) => sum + weight, 0);
  const shares = [{ id: 'a', weight: rest }, ...variants].map(({ id, weight }) => `${id} ${weight} %`);
  return listOf([
    ...(holdout > 0 ? [`held back from ${holdout} % of visitors`] : []),
    ...(variants.length > 0 ? [`tried in ${variants.length + 1} variants (${shares.join(', ')})`] : []),
  ]);
}
