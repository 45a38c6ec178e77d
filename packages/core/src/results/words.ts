import type {
  Breakdown,
  CloseWay,
  Device,
  ResultAgainst,
  ResultPeriod,
  Stretch,
  TriggerKind,
} from '@velarium/contract';
import { counted, DEVICE_WORDS, figure } from '../sentence/words.ts';
import type { BeforeAfter } from '../statistics/before-after.ts';
import type { Difference } from '../statistics/difference.ts';
import type { Rate } from '../statistics/wilson.ts';

/** A share as people read it: `7.4 %`, `0.31 %`, `12 %`. */
export function percent(share: number): string {
  const points = share * 100;
  const digits = points === 0 || Math.abs(points) >= 10 ? 0 : Math.abs(points) >= 1 ? 1 : 2;
  return `${points.toFixed(digits)} %`;
}

/** A chance as people read it; never as certain as none is: `more than 99.9 %`. */
export const chanceWords = (chance: number): string =>
  chance > 0.999 ? 'more than 99.9 %' : chance < 0.001 ? 'less than 0.1 %' : `${(chance * 100).toFixed(1)} %`;

/** `6.1 to 8.9 %`. */
export function intervalWords({ low, high }: Pick<Rate, 'low' | 'high'>): string {
  return `${percent(low).replace(' %', '')} to ${percent(high)}`;
}

/** A difference of rates in points: `+1.2`, `−0.4`. */
export function pointsWords(share: number): string {
  const points = (Math.abs(share) * 100).toFixed(1);
  // What rounds to nothing is neither more nor less.
  return points === '0.0' ? points : `${share < 0 ? '−' : '+'}${points}`;
}

/** What choosing wrongly would cost, in points of rate: `0.04 points`. */
export const costWords = (share: number): string => `${(share * 100).toFixed(2)} points`;

/** Which share of a whole a part is; nothing where there is no whole. */
export const shareOf = (part: number, whole: number): string => (whole > 0 ? percent(part / whole) : '');

/** A difference of rates in points: `+1.2 points (+0.3 to +2.1)`. */
export function differenceWords({ value, low, high }: Difference): string {
  if (value === null) return 'nothing to compare with';
  return `${pointsWords(value)} points (${pointsWords(low)} to ${pointsWords(high)})`;
}

const dayFormat = new Intl.DateTimeFormat('en-GB', {
  day: 'numeric',
  month: 'long',
  year: 'numeric',
  timeZone: 'UTC',
});
const dayWords = (day: string): string => dayFormat.format(new Date(`${day}T00:00:00Z`));
export const stretchWords = ({ from, until }: Stretch): string =>
  from === until ? dayWords(from) : `${dayWords(from)} to ${dayWords(until)}`;

/** Which days are told of: `1 November 2026 to 7 November 2026, against 25 October 2026 to 31 October 2026`. */
export const periodWords = ({
  period,
  against,
}: {
  readonly period: Stretch;
  readonly against: Stretch | null;
}): string => `${stretchWords(period)}${against ? `, against ${stretchWords(against)}` : ''}`;

export const PERIOD_WORDS: Readonly<Record<ResultPeriod, string>> = {
  today: 'Today',
  yesterday: 'Yesterday',
  '7': 'Last 7 days',
  '28': 'Last 28 days',
  '90': 'Last 90 days',
  launch: 'Since the first day',
  own: 'Days of my choice',
};
export const AGAINST_WORDS: Readonly<Record<ResultAgainst, string>> = {
  before: 'the days before',
  weekdays: 'the same weekdays before',
  none: 'nothing',
  own: 'days of my choice',
};
export const BREAKDOWN_WORDS: Readonly<Record<Breakdown, string>> = {
  device: 'Device',
  page: 'Page',
  group: 'Page group',
  source: 'Where from',
  country: 'Country',
  language: 'Language of the visitor',
  arrival: 'New or returning',
  written: 'Language of the message',
  cause: 'Trigger',
  hour: 'Hour',
  weekday: 'Weekday',
  version: 'Version',
  variant: 'Variant',
};
export const CLOSE_WAY_WORDS: Readonly<Record<CloseWay, string>> = {
  button: 'By its close button',
  escape: 'By Escape',
  backdrop: 'By a press beside it',
  action: 'By one of its own buttons',
  script: 'By the page',
  time: 'By itself',
};

/** How often chance alone does something, for people: `once in 40`. */
const onceIn = (chance: number): string =>
  chance > 0.5
    ? 'more often than not'
    : `once in ${figure(chance < 1e-6 ? 1_000_000 : Math.round(1 / chance))}${chance < 1e-6 ? ' or more' : ''}`;

/** What comparing two stretches of days says, in a sentence a person can act on. */
export function beforeAfterWords(found: BeforeAfter): string {
  const { before, after, ratio, low, high, chance, daysBefore, daysAfter } = found;
  if (daysBefore === 0 || daysAfter === 0) return 'There are no days on one side of this date.';
  const rates = `${before.toFixed(1)} a day before, ${after.toFixed(1)} after`;
  if (ratio === null || chance === null)
    return `${rates}. There is too little on one side to say whether that is a change.`;
  const clear = low > 1 || high < 1;
  const change = `${ratio.toFixed(2)} times as many (${low.toFixed(2)} to ${high.toFixed(2)})`;
  return `${rates}: ${change}. ${
    clear
      ? `Chance alone would do this ${onceIn(chance)}.`
      : `That may be chance: it would do as much ${onceIn(chance)}.`
  }`;
}

/** How uneven days are, where it widened an interval. */
export const unevennessWords = ({ unevenness, daysBefore, daysAfter }: BeforeAfter): string =>
  `${counted(daysBefore, 'day')} against ${counted(daysAfter, 'day')}. ${
    unevenness > 1.05
      ? `These days are ${unevenness.toFixed(1)} times as uneven as chance makes them, and the interval is wider by the root of that.`
      : 'These days are no more uneven than chance makes them.'
  }`;

const CAUSE_WORDS: Readonly<Record<TriggerKind, string>> = {
  load: 'the page was there',
  time: 'time on the page',
  sessionTime: 'time on the site',
  scroll: 'scroll depth',
  element: 'an element was reached',
  articleEnd: 'the end of the article',
  exitMouse: 'leaving by mouse',
  exitTouch: 'leaving by touch',
  tabReturn: 'coming back to the tab',
  inactivity: 'inactivity',
  interact: 'a click, hover or focus',
  count: 'a count of pages or sessions',
  event: 'an event of the page',
  hand: 'called by hand',
};
const WEEKDAYS = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'] as const;
const named = (kind: 'region' | 'language', key: string): string => {
  try {
    return (
      new Intl.DisplayNames('en-GB', { type: kind }).of(kind === 'region' ? key.toUpperCase() : key) ?? key
    );
  } catch {
    return key;
  }
};

/** What those are called of whom nothing is said. */
const UNNAMED: Readonly<Partial<Record<Breakdown, string>>> = {
  source: 'typed in, or not known',
  variant: 'not divided',
  cause: 'several together, or not known',
  written: 'in one language only',
  group: 'in no group',
};

/** What a part of a campaign's visitors is called. */
export function partWords(by: Breakdown, key: string | null): string {
  if (key === null) return UNNAMED[by] ?? 'not known';
  switch (by) {
    case 'device':
      return DEVICE_WORDS[key as Device] ?? key;
    case 'country':
      return named('region', key);
    case 'language':
    case 'written':
      return named('language', key);
    case 'cause':
      return CAUSE_WORDS[key as TriggerKind] ?? key;
    case 'hour':
      return `${key}:00`;
    case 'weekday':
      return WEEKDAYS[Number(key) - 1] ?? key;
    case 'version':
      return `version ${key}`;
    case 'variant':
      return `variant ${key.toUpperCase()}`;
    default:
      return key;
  }
}

/** How many closes of some campaigns came before anybody can have read. */
export function closedSoonWords(
  counts: readonly { readonly closes: number; readonly closedSoon: number }[],
): string {
  const closes = counts.reduce((sum, one) => sum + one.closes, 0);
  const soon = counts.reduce((sum, { closedSoon }) => sum + closedSoon, 0);
  return closes === 0
    ? 'No message was closed on these days.'
    : `Of ${counted(closes, 'close')}, ${figure(soon)} came within two seconds of the opening (${percent(soon / closes)}): those messages were not read.`;
}
