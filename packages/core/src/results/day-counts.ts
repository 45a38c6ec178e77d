import type { DayCount } from '../statistics/before-after.ts';

/** Lines of a file of counts at most; as many days as three years have. */
const MOST_LINES = 1100;

export interface ReadDayCounts {
  readonly days: readonly DayCount[];
  /** Lines that could not be read, each with what is wrong with it. */
  readonly faults: readonly { readonly line: number; readonly words: string }[];
}

/** Whether a day is one of the calendar. */
const isDay = (text: string): boolean =>
  /^\d{4}-\d\d-\d\d$/.test(text) &&
  !Number.isNaN(Date.parse(text)) &&
  new Date(text).toISOString().startsWith(text);

/**
 * Reads counts of days as people have them in files: `2026-11-27,14`, a line each, also with semicolons or tabs between and
 * with heads. What cannot be read is said with its line, and nothing is taken by halves.
 */
export function readDayCounts(text: string): ReadDayCounts {
  const days = new Map<string, number>();
  const faults: { line: number; words: string }[] = [];
  const lines = text.replace(/^\uFEFF/, '').split(/\r\n|\n|\r/);
  lines.forEach((line, at) => {
    if (line.trim() === '') return;
    const fault = (words: string) => faults.push({ line: at + 1, words });
    const [day = '', count = '', ...more] = line
      .split(/[,;\t]/)
      .map((cell) => cell.trim().replace(/^"(.*)"$/, '$1'));
    if (at === 0 && !/\d/.test(line)) return;
    if (at >= MOST_LINES) {
      if (at === MOST_LINES) fault(`There are more than ${MOST_LINES} lines. Leave out the oldest.`);
    } else if (!isDay(day)) fault(`“${day}” is no day. Write it as 2026-11-27.`);
    else if (!/^\d{1,9}$/.test(count)) fault(`“${count}” is no count. Write a whole number.`);
    else if (more.some((cell) => cell !== '')) fault('There is more on this line than a day and a count.');
    else if (days.has(day)) fault(`${day} is there twice.`);
    else days.set(day, Number(count));
  });
  return {
    days: [...days].map(([day, count]) => ({ day, count })).sort((a, b) => (a.day < b.day ? -1 : 1)),
    faults,
  };
}

/** Two stretches around a day, those from it on after: as far as there are days, those without a count as none. */
export function aroundDay(
  days: readonly DayCount[],
  day: string,
): { readonly before: readonly DayCount[]; readonly after: readonly DayCount[] } {
  const [first, last] = [days[0]?.day, days.at(-1)?.day];
  if (!first || !last) return { before: [], after: [] };
  const known = new Map(days.map((one) => [one.day, one.count]));
  const all: DayCount[] = [];
  for (let ms = Date.parse(first); ms <= Date.parse(last); ms += 86_400_000) {
    const one = new Date(ms).toISOString().slice(0, 10);
    all.push({ day: one, count: known.get(one) ?? 0 });
  }
  return { before: all.filter((one) => one.day < day), after: all.filter((one) => one.day >= day) };
}
