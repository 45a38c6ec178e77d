import { studentPoint, studentTails } from './gamma.ts';

/** What happened on a day of the site, `2026-11-27`. */
export interface DayCount {
  readonly day: string;
  readonly count: number;
}

export interface BeforeAfter {
  /** A day, on average. */
  readonly before: number;
  readonly after: number;
  /** How many times as many; `null` where nothing happened before. */
  readonly ratio: number | null;
  /** Of the ratio, 95 %; open where there is too little to say. */
  readonly low: number;
  readonly high: number;
  /** How often chance alone would do as much or more, either way; `null` where it cannot be said. */
  readonly chance: number | null;
  /** How many times as uneven the days are as chance alone makes them; at least 1. */
  readonly unevenness: number;
  /** Days compared on either side. */
  readonly daysBefore: number;
  readonly daysAfter: number;
}

const WEEK = 7;
const MOST = 0.05;
const weekdayOf = (day: string): number => new Date(`${day}T00:00:00Z`).getUTCDay();

/** The last whole weeks of the days before, and the first of those after. */
function wholeWeeks(days: readonly DayCount[], isBefore: boolean): readonly DayCount[] {
  const whole = Math.floor(days.length / WEEK) * WEEK;
  return isBefore ? days.slice(days.length - whole) : days.slice(0, whole);
}

/**
 * Two stretches of days against each other, weekdays matched where there are whole weeks. Counts of days are more uneven
 * than chance: the interval is widened by the root of how much more, which is measured on these very days against what
 * their stretch and their weekday lead one to expect.
 *
 * @param before Rising by day, without gaps; `after` likewise.
 * Source: McCullagh and Nelder (1989), "Generalized linear models", 6.2 and 9.2 (quasi-likelihood; Pearson's statistic
 * over its degrees of freedom), with Student's distribution of these.
 */
export function compareStretches(before: readonly DayCount[], after: readonly DayCount[]): BeforeAfter {
  const isMatched = before.length >= WEEK && after.length >= WEEK;
  const [old, young] = isMatched ? [wholeWeeks(before, true), wholeWeeks(after, false)] : [before, after];
  const sum = (days: readonly DayCount[]) => days.reduce((all, { count }) => all + count, 0);
  const [m, n] = [sum(old), sum(young)];
  const unevenness = unevennessOf([old, young], isMatched);
  const degrees = old.length + young.length - (isMatched ? WEEK + 1 : 2);
  const base = {
    before: old.length === 0 ? 0 : m / old.length,
    after: young.length === 0 ? 0 : n / young.length,
    unevenness,
    daysBefore: old.length,
    daysAfter: young.length,
  };
  if (m === 0 || n === 0 || old.length + young.length < 4)
    return {
      ...base,
      ratio: m === 0 ? null : (n / m) * (old.length / Math.max(1, young.length)),
      low: 0,
      high: Number.POSITIVE_INFINITY,
      chance: null,
    };
  const ratio = base.after / base.before;
  const spread = Math.sqrt(unevenness * (1 / m + 1 / n));
  const reach = studentPoint(MOST, degrees) * spread;
  return {
    ...base,
    ratio,
    low: ratio * Math.exp(-reach),
    high: ratio * Math.exp(reach),
    chance: studentTails(Math.log(ratio) / spread, degrees),
  };
}

/** Pearson's statistic over its degrees of freedom, never below what chance makes. */
function unevennessOf(stretches: readonly (readonly DayCount[])[], isMatched: boolean): number {
  const all = stretches.flat();
  const total = all.reduce((sum, { count }) => sum + count, 0);
  const ofWeekday = Array.from({ length: WEEK }, () => ({ count: 0, days: 0 }));
  for (const { day, count } of all) {
    const weekday = ofWeekday[weekdayOf(day)] as { count: number; days: number };
    weekday.count += count;
    weekday.days++;
  }
  const meanOfAll = total / all.length;
  let statistic = 0;
  for (const days of stretches) {
    const mean = days.reduce((sum, { count }) => sum + count, 0) / days.length;
    for (const { day, count } of days) {
      const weekday = ofWeekday[weekdayOf(day)] as { count: number; days: number };
      const expected = isMatched ? (mean * (weekday.count / weekday.days)) / meanOfAll : mean;
      if (expected > 0) statistic += (count - expected) ** 2 / expected;
    }
  }
  const degrees = all.length - (isMatched ? WEEK + 1 : stretches.length);
  return degrees <= 0 ? 1 : Math.max(1, statistic / degrees);
}
