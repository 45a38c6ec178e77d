import type { Cap, Pause, Schedule, Span } from '@velarium/contract';
import { SPAN_UNITS } from '@velarium/contract/values';
import { DAY_NAMES, MONTHS } from './limits-words.ts';
import {
  as,
  either,
  found,
  joined,
  list,
  maybe,
  number,
  type Parser,
  quantityOf,
  said,
  words,
} from './parsers.ts';

const spanOf = (count: number, unit: Span['unit']): Span => ({ count, unit });

/** What `spanWords` says. */
const span: Parser<Span> = either(
  ...SPAN_UNITS.map((unit) => as(quantityOf(unit.slice(0, -1)), (count) => spanOf(count, unit))),
);
/** What `everySpan` says. */
const everySpan: Parser<Span> = either(
  as(said`every ${span}`, ([one]) => one),
  ...SPAN_UNITS.map((unit) => words(`every ${unit.slice(0, -1)}`, spanOf(1, unit))),
);

/** What `capWords` says. */
export const cap: Parser<Cap> = as(
  said`${either(
    words('once', 1),
    as(said`at most ${number} times`, ([max]) => max),
  )} ${either<Cap['per']>(words('per session', 'session'), words('per visitor', 'ever'), everySpan)}`,
  ([max, per]) => ({ max, per }),
);

export const unanswered: Parser<number> = either(
  words('until 1 showing goes unanswered', 1),
  as(said`until ${number} showings go unanswered`, ([count]) => count),
);

/** What `capsWords` says. */
export const caps: Parser<{ caps: Cap[]; stopAfterUnanswered: number | null }> = as(
  said`${either<Cap[]>(words('every time a page is opened', []), list(cap))}${maybe(said`, ${unanswered}`, [null] as const)}`,
  ([all, [stopAfterUnanswered]]) => ({ caps: all, stopAfterUnanswered }),
);

/** What `pauseWords` says. */
export const pause: Parser<Pause> = either<Pause>(
  words('it may come again', 'none'),
  words('it stays away for the rest of the session', 'session'),
  words('it never comes again', 'ever'),
  as(said`it stays away for ${span}`, ([one]) => one),
);

const two = (count: number): string => String(count).padStart(2, '0');
const month = either(...MONTHS.map((name, n) => words(name, two(n + 1))));
const date = as(
  said`${number} ${month} ${found(/\d{4}/, String)}`,
  ([day, ofYear, year]) => `${year}-${ofYear}-${two(day)}`,
);
const timeOfDay = found(/\d\d:\d\d/, String);
const localTime = as(said`${date} at ${timeOfDay}`, (parts) => parts.join('T'));
const day = either(...DAY_NAMES.map((name, n) => words(`${name}s`, n + 1)));
const from = (first: number, last: number): number[] =>
  Array.from({ length: Math.max(last - first + 1, 0) }, (_, n) => first + n);
const days = either<number[]>(
  words('weekdays', from(1, 5)),
  as(said`${day} to ${day}`, ([first, last]) => from(first, last)),
  as(said`every day but ${day}`, ([missing]) => from(1, 7).filter((one) => one !== missing)),
  list(day),
);
const stretch = as(
  said`${timeOfDay} and ${timeOfDay}${maybe(words(' the next day', null), null)}`,
  ([begin, end]) => ({ from: begin, to: end }),
);
const daysLeftOut = either(
  as(said`on ${date}`, ([one]) => ({ from: one, to: one })),
  as(said`from ${date} to ${date}`, ([from, to]) => ({ from, to })),
);

/** Something of a schedule, with the comma that follows it. */
const partOf = <Value, Without>(parser: Parser<readonly [Value]>, without: Without) =>
  maybe(
    as(said`${parser}, `, ([[value]]) => value),
    without,
  );

/** What `scheduleWords` says. */
export const schedule: Parser<Schedule> = as(
  said`${maybe(words('at any time, ', null), null)}${partOf(said`from ${localTime}`, null)}${partOf(said`until ${localTime}`, null)}${partOf(said`on ${days}`, [])}${partOf(said`between ${list(stretch, 'or')}`, [])}${partOf(said`but not ${list(daysLeftOut, 'or')}`, [])}by the ${either(words('site', 'site' as const), words('visitor', 'visitor' as const))}’s clock`,
  ([, start, end, days, hours, blackouts, zone]) => ({ zone, start, end, days, hours, blackouts }),
);

/** What `priorityWords` says. */
export const priority: Parser<number> = as(
  said`${either(words('going before others', 0), words('letting others go first', 0))} with priority ${number} of 9`,
  ([, count]) => count,
);

const share = as(said`${found(/[a-z0-9-]+/, String)} ${number} %`, ([id, weight]) => ({ id, weight }));
// People say either word.
const tried = either(words('variants', 0), words('versions', 0));
const variants = as(said`tried in ${number} ${tried} (${joined(share, ', ')})`, ([, , shares]) =>
  shares.slice(1),
);
const heldBack = as(said`held back from ${number} % of visitors`, ([part]) => part);

/** What `experimentWords` says; the first variant's share is what the others leave. */
export const experiment: Parser<{ holdout: number; variants: { id: string; weight: number }[] }> = either(
  as(said`${heldBack} and ${variants}`, ([holdout, shares]) => ({ holdout, variants: shares })),
  as(heldBack, (holdout) => ({ holdout, variants: [] })),
  as(variants, (shares) => ({ holdout: 0, variants: shares })),
);
