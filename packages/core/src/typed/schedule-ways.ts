import type { Schedule } from '@velarium/contract';
import { scheduleSchema } from '@velarium/contract';
import { MONTHS } from '../sentence/limits-words.ts';
import {
  CLOCK,
  DATE,
  DAYS,
  dateMeant,
  dayAfter,
  daysMeant,
  lastOf,
  STRETCH,
  stretchMeant,
  timeMeant,
} from './dates.ts';
import { COUNT, numberOf, only } from './numbers.ts';
import { type Answer, onLimits, onSchedule, type Reading, setOnce, type Way } from './reading.ts';

const NO_DAY = 'the calendar has no such day';
const NO_TIME = 'a day has no such time';

/** What was said of a part of the schedule before. */
const saidOf = (reading: Reading, part: keyof Schedule): unknown => {
  const known = reading.settings.get(`schedule ${part}`);
  return known && JSON.parse(known.value);
};
function inSchedule(reading: Reading, part: keyof Schedule, value: unknown): Answer {
  if (!scheduleSchema.shape[part].safeParse(value).success) return 'out of range';
  const [start, end] = [
    part === 'start' ? value : saidOf(reading, 'start'),
    part === 'end' ? value : saidOf(reading, 'end'),
  ];
  if (typeof start === 'string' && typeof end === 'string' && start >= end)
    return 'it would end before it begins';
  return setOnce(reading, `schedule ${part}`, value, onSchedule({ [part]: value }));
}

function fromDay(reading: Reading, said: string, time: string | undefined): Answer {
  const date = dateMeant(said, reading.today);
  if (date === undefined) return NO_DAY;
  const clock = time === undefined ? '00:00' : timeMeant(time);
  return clock === undefined ? NO_TIME : inSchedule(reading, 'start', `${date}T${clock}`);
}
/** Until a day is until it is over; before a day, until it begins. */
function untilDay(reading: Reading, said: string, time: string | undefined, isBefore = false): Answer {
  // “From Monday until Friday” is the Friday after that Monday.
  const start = saidOf(reading, 'start');
  const date = dateMeant(said, typeof start === 'string' ? start.slice(0, 10) : reading.today);
  if (date === undefined) return NO_DAY;
  if (time === undefined) return inSchedule(reading, 'end', `${isBefore ? date : dayAfter(date)}T00:00`);
  const clock = timeMeant(time, true);
  if (clock === undefined) return NO_TIME;
  return inSchedule(reading, 'end', clock === '24:00' ? `${dayAfter(date)}T00:00` : `${date}T${clock}`);
}
function onDays(reading: Reading, said: string): Answer {
  return inSchedule(reading, 'days', daysMeant(said));
}
const hourOf = (said: string): number =>
  /noon/i.test(said) ? 12 : Number.parseFloat(said.replace(':', '.'));
function inHours(reading: Reading, begin: string, end: string): Answer {
  // “1 to 3 pm” are both after noon; “9 to 5 pm” cannot be. By the clock of 24 otherwise.
  const to = timeMeant(end, true);
  const afternoon = /p\.?m/i.test(end) && /\d$/.test(begin) ? timeMeant(`${begin} pm`) : undefined;
  // “9 to 5”, “1 pm to 5:30”: by the clock of 24 they would end on the next morning. A nought before it says that clock.
  const isHalf = /p\.?m|noon/i.test(begin) || (/a\.?m|^(?!0)\d/i.test(begin) && hourOf(end) <= hourOf(begin));
  if (/^(?!0)[\d:.]+$/.test(end) && hourOf(end) <= 12 && hourOf(begin) <= 12 && isHalf)
    return 'say am and pm, or count the hours to 24';
  const from = afternoon !== undefined && to !== undefined && afternoon < to ? afternoon : timeMeant(begin);
  return from === undefined || to === undefined ? NO_TIME : inSchedule(reading, 'hours', [{ from, to }]);
}
/** “6 to 9” in the evening are both after noon, and its 12 is midnight. */
function inPart(reading: Reading, part: string | undefined, begin: string, end: string): Answer {
  const isLate = /^(?:afternoon|evening)/i.test(part ?? '');
  const late = (said: string): string =>
    isLate && /^\d{1,2}(?:[:.]\d{2})?$/.test(said) && hourOf(said) < 12 ? `${said} pm` : said;
  return inHours(reading, late(begin), isLate && end === '12' ? 'midnight' : late(end));
}
function notOn(reading: Reading, first: string, last: string): Answer {
  const [from, to] = [dateMeant(first, reading.today), dateMeant(last, reading.today)];
  if (from === undefined || to === undefined) return NO_DAY;
  const known = saidOf(reading, 'blackouts');
  const blackouts = [...(Array.isArray(known) ? known : []), { from, to }];
  if (!scheduleSchema.shape.blackouts.safeParse(blackouts).success) return 'out of range';
  reading.settings.delete('schedule blackouts');
  return inSchedule(reading, 'blackouts', blackouts);
}
function within(reading: Reading, [first, last]: readonly [string, string]): Answer {
  return all(
    inSchedule(reading, 'start', `${first}T00:00`),
    inSchedule(reading, 'end', `${dayAfter(last)}T00:00`),
  );
}
/** Several things at once, each of which must be understood. */
const all = (...answers: readonly Answer[]): Answer => answers.find((answer) => answer !== true) ?? true;

const HOURS = `(?:between |from )?${CLOCK} ?(?:-|–|to|and|until|till) ?${CLOCK}(?: o’clock)?`;
const FROM = '(?:from|(?:it )?start(?:ing|s)?(?: on)?|(?:it )?begin(?:ning|s)?(?: on)?|as of|as from|since) ';
const UNTIL =
  '(?:(?:from (?:now|today)(?: on)? )?(?:until|till|up to|through)|(?:it )?(?:end(?:ing|s)?|stop(?:ping|s)?)(?: on| at the end of)?) ';
const AT = `(?:(?:,| at)? (?:at )?${CLOCK})?`;

const PART_OF_DAY = '((?:early |late )?(?:mornings?|afternoons?|evenings?|nights?|lunch(?: ?time)?))';
/** A time of day that cannot be a number of seconds. */
const TIME_OF_DAY = '(\\d{1,2}[:.]\\d{2}(?: ?[ap]\\.?m\\.?)?|\\d{1,2} ?[ap]\\.?m\\.?|noon|midnight)';
const MONTH_NAMED = `(${MONTHS.map((name) => `${name.slice(0, 3)}(?:${name.slice(3)})?`).join('|')})`;
const DAY_OF_MONTH = '(?:the )?(\\d{1,2})(?:st|nd|rd|th)?';

/** Ways of saying in which days and hours. */
export const SCHEDULE_WAYS: readonly Way[] = [
  [
    only(`(?:only )?(?:${FROM}|between )${DATE}${AT} (?:to|until|till|and|through|-|–) ${DATE}${AT}`),
    ([, first = '', begin, last = '', end], reading) =>
      all(fromDay(reading, first, begin), untilDay(reading, last, end)),
  ],
  [
    only(
      `(?:only )?(?:from |between )?${DAY_OF_MONTH} ?(?:to|until|till|and|through|-|–) ?${DAY_OF_MONTH}(?: of)? ${MONTH_NAMED}|(?:only )?(?:from |between )?${MONTH_NAMED} ${DAY_OF_MONTH} ?(?:to|until|till|and|through|-|–) ?${DAY_OF_MONTH}`,
    ),
    ([, first, last, month, otherMonth, otherFirst, otherLast], reading) => {
      const of = month ?? otherMonth;
      return all(
        fromDay(reading, `${first ?? otherFirst} ${of}`, undefined),
        untilDay(reading, `${last ?? otherLast} ${of}`, undefined),
      );
    },
  ],
  [
    only(
      `(?:only )?(?:from |between )${DAY_OF_MONTH}(?: of)? ${MONTH_NAMED} ?(?:to|until|till|and|through|-|–) ?${DAY_OF_MONTH}`,
    ),
    ([, first, month, last], reading) =>
      all(fromDay(reading, `${first} ${month}`, undefined), untilDay(reading, `${last} ${month}`, undefined)),
  ],
  [
    only(`(?:only )?(?:in |during |throughout |for )?${STRETCH}(?: only)?`),
    ([, said = ''], reading) => {
      const meant = stretchMeant(said, reading.today);
      return meant ? within(reading, meant) : false;
    },
  ],
  [
    only(`(?:only )?for ${COUNT} (days?|weeks?|months?),? (?:from|starting|beginning)(?: on)? ${DATE}`),
    ([, count = '', unit = '', day = ''], reading) => {
      const first = dateMeant(day, reading.today);
      return first === undefined ? NO_DAY : within(reading, [first, lastOf(numberOf(count), unit, first)]);
    },
  ],
  [
    only(
      `(?:only )?for (?:the (?:next|coming) )?${COUNT} (days?|weeks?|months?)(?: only| from (?:now|today)(?: on)?)?`,
    ),
    ([, count = '', unit = ''], reading) =>
      within(reading, [reading.today, lastOf(numberOf(count), unit, reading.today)]),
  ],
  [only(`${FROM}${DATE}${AT}(?: on)?`), ([, day = '', time], reading) => fromDay(reading, day, time)],
  [
    only(`(?:(only|not) )?before ${DATE}${AT}|${UNTIL}${DATE}${AT}`),
    ([, before, early, atEarly, day = '', time], reading) =>
      early !== undefined
        ? before?.toLowerCase() === 'not'
          ? fromDay(reading, early, atEarly)
          : untilDay(reading, early, atEarly, true)
        : untilDay(reading, day, time),
  ],
  [
    only(`(?:but )?(?:not|never|except|nothing) (?:on )?${DATE}`),
    ([, day = ''], reading) => notOn(reading, day, day),
  ],
  [
    only(
      `(?:but )?(?:not|never|except|nothing) (?:from|between) ${DATE} (?:to|until|till|and|through) ${DATE}`,
    ),
    ([, first = '', last = ''], reading) => notOn(reading, first, last),
  ],
  [
    only(
      `(?:but )?(?:not|never|except) (?:on )?((?:the )?\\d{1,2}(?:st|nd|rd|th)?(?:(?:, | and | or )(?:the )?\\d{1,2}(?:st|nd|rd|th)?)+)(?: of)? ${MONTH_NAMED}`,
    ),
    ([, days = '', month = ''], reading) =>
      all(
        ...[...days.matchAll(/\d{1,2}/g)].map(([day]) =>
          notOn(reading, `${day} ${month}`, `${day} ${month}`),
        ),
      ),
  ],
  [
    only(`(?:but )?(?:not|never) (?:on |at )?${DAYS}`),
    ([, days = ''], reading) => {
      const out = daysMeant(days);
      return inSchedule(
        reading,
        'days',
        [1, 2, 3, 4, 5, 6, 7].filter((day) => !out.includes(day)),
      );
    },
  ],
  [
    only(
      `(?:on )?(?:every|each|any|all) days?,? (?:but|except|apart from|other than)(?: not)?(?: on| for)? ${DAYS}|except (?:on )?${DAYS}`,
    ),
    ([, days, others], reading) => {
      const out = daysMeant(days ?? others ?? '');
      return inSchedule(
        reading,
        'days',
        [1, 2, 3, 4, 5, 6, 7].filter((day) => !out.includes(day)),
      );
    },
  ],
  [
    only(`(?:only )?(?:on |at |during )?${DAYS}(?: only)?`),
    ([, days = ''], reading) => onDays(reading, days),
  ],
  [
    only(
      `(?:only )?(?:on )?${DAY_OF_MONTH}(?:(?:, | and | or |, and )${DAY_OF_MONTH})+(?: of)? ${MONTH_NAMED}`,
    ),
    () => 'one day, or from one day to another',
  ],
  // A weekday by its name alone is every one of them, and was read as that.
  [
    only(`(?:only )?(?:on |at )?${DATE}(?: only)?`),
    ([, day = ''], reading) => all(fromDay(reading, day, undefined), untilDay(reading, day, undefined)),
  ],
  [
    only(`(?:only )?(?:on |at )?${DAYS}(?: ${PART_OF_DAY})?,? ${HOURS}`),
    ([, days = '', part, begin = '', end = ''], reading) =>
      all(onDays(reading, days), inPart(reading, part, begin, end)),
  ],
  [
    only(`(?:only )?(?:every day |daily )?(?:in the |at )?${PART_OF_DAY},? ${HOURS}`),
    ([, part, begin = '', end = ''], reading) => inPart(reading, part, begin, end),
  ],
  [
    only(`(?:only )?${HOURS}(?: every day| daily)?`),
    ([, begin = '', end = ''], reading) => inHours(reading, begin, end),
  ],
  [
    only(`(?:only )?(?:after|from|since|starting at) ${TIME_OF_DAY}(?: on(?:wards)?)?`),
    ([, begin = ''], reading) => inHours(reading, begin, '24'),
  ],
  [
    only(`(?:only )?(?:before|until|till|up to) ${TIME_OF_DAY}`),
    ([, end = ''], reading) => inHours(reading, '0', end),
  ],
  [
    only(
      `(?:only )?(?:in the |(?:on |at )?${DAYS} )?(?:(?:early |late )?(?:mornings?|afternoons?|evenings?)|at night|(?:during|in|within) (?:business|office|opening|working|shop) hours|at lunch(?: ?time)?)`,
    ),
    () => 'say from when until when',
  ],
  [only(`(?:only )?after ${CLOCK} o’clock`), ([, begin = ''], reading) => inHours(reading, begin, '24')],
  [
    only('(?:at any time|all day|around the clock|without (?:a )?schedule)'),
    (_, reading) => setOnce(reading, 'schedule', null, onLimits({ schedule: null })),
  ],
  [
    only("(?:by|in|on) the (visitor|site)(?:’s|'s) (?:own )?(?:clock|time|time zone)"),
    ([, zone = ''], reading) => inSchedule(reading, 'zone', zone.toLowerCase()),
  ],
];
