import { DAY_NAMES, MONTHS } from '../sentence/limits-words.ts';

const DAY_MS = 86_400_000;
const short = (names: readonly string[], letters: number): string =>
  names.map((name) => `${name.slice(0, letters)}(?:${name.slice(letters)})?`).join('|');
const WEEKDAY = `(?:${short(DAY_NAMES, 3)})`;
const MONTH = `(?:${short(MONTHS, 3)})`;

/** A day as people write it, in one group: `24 December`, `Dec 24th, 2026`, `24.12.`, `tomorrow`, `next Monday`. */
export const DATE = `(today|tomorrow|\\d{4}-\\d{2}-\\d{2}|(?:next )?${WEEKDAY}|(?:the )?\\d{1,2}(?:st|nd|rd|th)?(?: of)? ${MONTH}(?:,? \\d{4})?|${MONTH} (?:the )?\\d{1,2}(?:st|nd|rd|th)?(?:,? \\d{4})?|\\d{1,2}\\.\\d{1,2}\\.(?:\\d{4})?|the end of (?:the month|the year|${MONTH}))`;

const beginsAs = (names: readonly string[], said: string): number =>
  names.findIndex((name) => name.toLowerCase().startsWith(said.slice(0, 3).toLowerCase()));
const msOf = (date: string): number => Date.parse(`${date}T00:00Z`);
const dateOf = (ms: number): string => new Date(ms).toISOString().slice(0, 10);
export const dayAfter = (date: string): string => dateOf(msOf(date) + DAY_MS);
/** 1 Monday to 7 Sunday. */
const weekdayOf = (date: string): number => new Date(msOf(date)).getUTCDay() || 7;

/** This day of the month in the year named, else the next there is from today on; nothing where no calendar has it. */
function dayOfMonth(day: number, month: number, year: string | undefined, today: string): string | undefined {
  const written = (ofYear: number) =>
    `${ofYear}-${String(month).padStart(2, '0')}-${String(day).padStart(2, '0')}`;
  const isReal = (date: string) => !Number.isNaN(msOf(date)) && dateOf(msOf(date)) === date;
  const thisYear = Number(today.slice(0, 4));
  // A leap day is four years off at most, but for the turn of some centuries.
  const years = year === undefined ? Array.from({ length: 9 }, (_, n) => thisYear + n) : [Number(year)];
  return years.map(written).find((date) => isReal(date) && (year !== undefined || date >= today));
}

/** The last day of a month, given by any day of it. */
const endOfMonth = (date: string): string => {
  const [year = 0, month = 0] = date.split('-').map(Number);
  return dateOf(Date.UTC(year, month, 0));
};

/** The day somebody means by what `DATE` finds, seen from today; nothing where there is no such day. */
export function dateMeant(said: string, today: string): string | undefined {
  const text = said.toLowerCase();
  if (text === 'today') return today;
  if (text === 'tomorrow') return dayAfter(today);
  const iso = /^(\d{4})-(\d{2})-(\d{2})$/.exec(text);
  if (iso) return dayOfMonth(Number(iso[3]), Number(iso[2]), iso[1], today);
  const dotted = /^(\d{1,2})\.(\d{1,2})\.(\d{4})?$/.exec(text);
  if (dotted) return dayOfMonth(Number(dotted[1]), Number(dotted[2]), dotted[3], today);
  const end = /^the end of (the month|the year|[a-z]+)$/.exec(text)?.[1];
  if (end === 'the month') return endOfMonth(today);
  if (end === 'the year') return `${today.slice(0, 4)}-12-31`;
  if (end !== undefined) {
    const first = dayOfMonth(28, beginsAs(MONTHS, end) + 1, undefined, today);
    return first && endOfMonth(first);
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
  const [first = 1, last = 1] = named;
  if (!/-|–|to|through/.test(text) || named.length !== 2) return [...new Set(named)].sort((a, b) => a - b);
  return Array.from({ length: ((last - first + 7) % 7) + 1 }, (_, n) => ((first + n - 1) % 7) + 1).sort(
    (a, b) => a - b,
  );
}
