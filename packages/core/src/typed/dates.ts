import { DAY_NAMES, MONTHS } from '../sentence/limits-words.ts';

const DAY_MS = 86_400_000;
const short = (names: readonly string[], letters: number): string =>
  names.map((name) => `${name.slice(0, letters)}(?:${name.slice(letters)})?`).join('|');
const WEEKDAY = `(?:${short(DAY_NAMES, 3)})`;
const MONTH = `(?:${short(MONTHS, 3)})`;

/** Days that people call by name, the same each year; common practice. */
const NAMED_DAYS: Readonly<Record<string, readonly [day: number, month: number]>> = {
  'christmas eve': [24, 12],
  christmas: [25, 12],
  'christmas day': [25, 12],
  'boxing day': [26, 12],
  'new year’s eve': [31, 12],
  'new year': [1, 1],
  'new year’s day': [1, 1],
  'valentine’s day': [14, 2],
  'midsummer’s day': [24, 6],
  halloween: [31, 10],
};
const NAMED_DAY = `(?:${[...Object.keys(NAMED_DAYS)]
  .sort((a, b) => b.length - a.length)
  .map((name) => name.replace('’', "[’']?"))
  .join('|')}|black friday|easter(?: sunday)?)`;

/** A day as people write it, in one group: `24 December`, `Dec 24th, 2026`, `24.12.`, `tomorrow`, `next Monday`. */
export const DATE = `(today|tomorrow|${NAMED_DAY}|\\d{4}-\\d{2}-\\d{2}|(?:next )?${WEEKDAY}|(?:the )?\\d{1,2}(?:st|nd|rd|th)?(?: of)? ${MONTH}(?:,? \\d{4})?|${MONTH} (?:the )?\\d{1,2}(?:st|nd|rd|th)?(?:,? \\d{4})?|\\d{1,2}\\.\\d{1,2}\\.(?:\\d{4})?|\\d{1,2}/\\d{1,2}(?:/\\d{4})?|the end of (?:the month|the year|${MONTH}))`;

const beginsAs = (names: readonly string[], said: string): number =>
  names.findIndex((name) => name.toLowerCase().startsWith(said.slice(0, 3).toLowerCase()));
const msOf = (date: string): number => Date.parse(`${date}T00:00Z`);
const dateOf = (ms: number): string => new Date(ms).toISOString().slice(0, 10);
export const dayAfter = (date: string): string => dateOf(msOf(date) + DAY_MS);
/** 1 Monday to 7 Sunday. */
const weekdayOf = (date: string): number => new Date(msOf(date)).getUTCDay() || 7;

/** This day of the month in the year named, else the next there is from today on; nothing where no calendar has it. */
function dayOfMonth(day: number, month: number, year: string | undefined, today: string): string | undefined {
  const written = (ofYear: number) => `${monthOf(ofYear, month)}-${String(day).padStart(2, '0')}`;
  const isReal = (date: string) => !Number.isNaN(msOf(date)) && dateOf(msOf(date)) === date;
  const thisYear = Number(today.slice(0, 4));
  // A leap day is four years off at most, but for the turn of some centuries.
  const years = year === undefined ? Array.from({ length: 9 }, (_, n) => thisYear + n) : [Number(year)];
  return years.map(written).find((date) => isReal(date) && (year !== undefined || date >= today));
}

const comingOf = (today: string, dayOf: (year: number) => string): string => {
  const year = Number(today.slice(0, 4));
  const thisYear = dayOf(year);
  return thisYear >= today ? thisYear : dayOf(year + 1);
};
/** The day after the fourth Thursday of November. */
function blackFriday(year: number): string {
  const first = weekdayOf(`${year}-11-01`);
  return dateOf(Date.UTC(year, 10, 1 + ((4 - first + 7) % 7) + 21 + 1));
}
/** By the Gregorian rule of Meeus, Jones and Butcher (Meeus, Astronomical Algorithms, chapter 8), from memory. */
function easterSunday(year: number): string {
  const [a, b, c] = [year % 19, Math.floor(year / 100), year % 100];
  const g = Math.floor((8 * b + 13) / 25);
  const h = (19 * a + b - Math.floor(b / 4) - g + 15) % 30;
  const l = (32 + 2 * (b % 4) + 2 * Math.floor(c / 4) - h - (c % 4)) % 7;
  const m = Math.floor((a + 11 * h + 19 * l) / 433);
  const month = Math.floor((h + l - 7 * m + 90) / 25);
  return dateOf(Date.UTC(year, month - 1, (h + l - 7 * m + 33 * month + 19) % 32));
}

const monthOf = (year: number, month: number): string => `${year}-${String(month).padStart(2, '0')}`;
/** The last day of a month, given by any day of it, or as `2026-11`. */
const endOfMonth = (date: string): string => {
  const [year, month] = date.split('-').map(Number) as [number, number];
  return dateOf(Date.UTC(year, month, 0));
};

/** The day somebody means by what `DATE` finds, seen from today; nothing where there is no such day. */
export function dateMeant(said: string, today: string): string | undefined {
  const text = said.toLowerCase();
  if (text === 'today') return today;
  if (text === 'tomorrow') return dayAfter(today);
  const iso = /^(\d{4})-(\d{2})-(\d{2})$/.exec(text);
  if (iso) return dayOfMonth(Number(iso[3]), Number(iso[2]), iso[1], today);
  const named = Object.entries(NAMED_DAYS).find(
    ([name]) => name.replace('’', '') === text.replace(/[’']/, ''),
  );
  if (named) return dayOfMonth(...named[1], undefined, today);
  if (text === 'black friday') return comingOf(today, blackFriday);
  if (text.startsWith('easter')) return comingOf(today, easterSunday);
  const dotted = /^(\d{1,2})[./](\d{1,2})[./]?(\d{4})?$/.exec(text);
  if (dotted) return dayOfMonth(Number(dotted[1]), Number(dotted[2]), dotted[3], today);
  const end = /^the end of (the month|the year|[a-z]+)$/.exec(text)?.[1];
  if (end === 'the month') return endOfMonth(today);
  if (end === 'the year') return `${today.slice(0, 4)}-12-31`;
  if (end !== undefined) {
    const month = beginsAs(MONTHS, end) + 1;
    return month === 0 ? undefined : comingOf(today, (year) => endOfMonth(monthOf(year, month)));
  }
  const weekday = new RegExp(`^(?:next )?(${WEEKDAY})$`, 'i').exec(text)?.[1];
  if (weekday !== undefined) {
    // The coming one; on that very day, in a week.
    const ahead = (beginsAs(DAY_NAMES, weekday) + 1 - weekdayOf(today) + 7) % 7 || 7;
    return dateOf(msOf(today) + ahead * DAY_MS);
  }
  const month = new RegExp(MONTH, 'i').exec(text)?.[0] ?? '';
  const day = /\d{1,2}(?!\d)/.exec(text)?.[0] ?? '';
  return dayOfMonth(Number(day), beginsAs(MONTHS, month) + 1, /\d{4}/.exec(text)?.[0], today);
}

/** Whole days that a stretch named as one covers: `next week`, `this weekend`, `in December`, `two weeks` from today. */
export const STRETCH = `((?:this|next|the coming) (?:week|weekend|month)|(?:all of |the whole of )?${MONTH})`;
export function stretchMeant(
  said: string,
  today: string,
): readonly [first: string, last: string] | undefined {
  const text = said.toLowerCase();
  const monday = dateOf(msOf(today) + (1 - weekdayOf(today)) * DAY_MS);
  const after = (date: string, days: number) => dateOf(msOf(date) + days * DAY_MS);
  const isNext = text.startsWith('next') || text.startsWith('the coming');
  if (text.endsWith('weekend')) {
    const saturday = after(monday, text.startsWith('next') ? 12 : 5);
    return [saturday < today ? today : saturday, after(saturday, 1)];
  }
  if (text.endsWith('week'))
    return isNext ? [after(monday, 7), after(monday, 13)] : [today, after(monday, 6)];
  if (text.endsWith('month')) {
    if (!isNext) return [today, endOfMonth(today)];
    const first = dayAfter(endOfMonth(today));
    return [first, endOfMonth(first)];
  }
  const month = beginsAs(MONTHS, new RegExp(MONTH, 'i').exec(text)?.[0] ?? '') + 1;
  if (month === Number(today.slice(5, 7))) return [today, endOfMonth(today)];
  const first = dayOfMonth(1, month, undefined, today);
  return first === undefined ? undefined : [first, endOfMonth(first)];
}
/** The last of so many days, weeks or months from today on, today among them. */
export function lastOf(count: number, unit: string, today: string): string {
  if (!/^month/i.test(unit))
    return dateOf(msOf(today) + (count * (/^week/i.test(unit) ? 7 : 1) - 1) * DAY_MS);
  const [year, month, day] = today.split('-').map(Number) as [number, number, number];
  const lastDay = new Date(Date.UTC(year, month - 1 + count + 1, 0)).getUTCDate();
  return dateOf(Date.UTC(year, month - 1 + count, Math.min(day, lastDay)) - DAY_MS);
}

/** A time of day as people write it: `9`, `9:30`, `09.30`, `5 pm`. */
export const CLOCK = '(\\d{1,2}(?:[:.]\\d{2})?(?: ?[ap]\\.?m\\.?)?|noon|midnight)';
/** `09:30`; nothing where a day has no such time. What ends a day may be its 24th hour. */
export function timeMeant(said: string, isEnd = false): string | undefined {
  const text = said.toLowerCase().replaceAll(/[ .](?=[ap]\.?m)|(?<=[apm])\./g, '');
  if (text === 'noon') return '12:00';
  if (text === 'midnight') return isEnd ? '24:00' : '00:00';
  const [, written = '', minutes = '00', half] = /^(\d{1,2})(?:[:.](\d{2}))?([ap]m)?$/.exec(text) ?? [];
  let hour = Number(written);
  if (written === '' || Number(minutes) > 59 || (half && (hour < 1 || hour > 12))) return undefined;
  if (half) hour = (hour % 12) + (half === 'pm' ? 12 : 0);
  const isDayEnd = hour === 24 && minutes === '00' && isEnd;
  return hour < 24 || isDayEnd ? `${String(hour).padStart(2, '0')}:${minutes}` : undefined;
}

const ONE_DAY = `(?:${WEEKDAY}s?)`;
/** Days of the week: `weekdays`, `Mondays`, `Monday to Friday`, `Saturdays and Sundays`. */
export const DAYS = `(weekdays|work(?:ing )?days|weekends?|(?:the )?weekend|${ONE_DAY}(?:(?: ?(?:-|–|to) ?| through )${ONE_DAY}|(?:(?:, | and |, and )${ONE_DAY})*))`;
/** 1 Monday to 7 Sunday. */
export function daysMeant(said: string): number[] {
  const text = said.toLowerCase();
  if (/^w.*days$/.test(text) && !text.startsWith('wed')) return [1, 2, 3, 4, 5];
  if (text.includes('weekend')) return [6, 7];
  const named = [...text.matchAll(new RegExp(WEEKDAY, 'gi'))].map(([name]) => beginsAs(DAY_NAMES, name) + 1);
  if (!/-|–|to|through/.test(text) || named.length !== 2) return [...new Set(named)].sort((a, b) => a - b);
  const [first, last] = named as [number, number];
  return Array.from({ length: ((last - first + 7) % 7) + 1 }, (_, n) => ((first + n - 1) % 7) + 1).sort(
    (a, b) => a - b,
  );
}
