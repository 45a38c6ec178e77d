import type { Pause, Schedule } from '@velarium/contract';
import { ruleSchema, scheduleSchema } from '@velarium/contract';
import { CLOCK, DATE, DAYS, dateMeant, dayAfter, daysMeant, timeMeant } from './dates.ts';
import { COUNT, only, SPAN, spanOf, TIMES_SAID, timesOf } from './numbers.ts';
import { type Answer, addCap, onLimits, onSchedule, type Reading, setOnce, type Way } from './reading.ts';

const NO_DAY = 'the calendar has no such day';
const NO_TIME = 'a day has no such time';
const holdoutSchema = ruleSchema.shape.limits.shape.holdout;

const AT_MOST = '(?:at most |no more than |not more than |up to |a maximum of |max(?:imum)? |only |just )?';

/** What a visitor may have done to it, and which pause that begins. */
const DEEDS: readonly (readonly [string, 'afterClose' | 'afterNo' | 'afterConversion'])[] = [
  ['(?:a |the |it )?(?:clos(?:e|es|ed|ing)|being closed|is closed|they close(?: it)?)', 'afterClose'],
  ['(?:a |the )?(?:no|refusal|refusing|saying no|they refuse|they say no)', 'afterNo'],
  [
    '(?:a |the )?(?:conversion|converting|sign(?:ing)?[- ]?up|subscribing|subscription|answer(?:ing)?|they (?:convert|sign up|answer|subscribe))',
    'afterConversion',
  ],
];
const AWAY = `(?:(?:it )?(?:stays? away|stay(?:s)? hidden|hid(?:e|es|den)|waits?|pauses?|rests?|not(?: shown)?(?: again)?|comes? back|(?:shown )?again|(?:don’t|don't|do not) show(?: it)?(?: again)?))(?: only)?(?: for| after| in)? ${SPAN}`;
const NEVER = '(?:it )?(?:never(?: (?:comes? |shown? |show it )?(?:again|back))?|not (?:ever )?again)';
const REST_OF_SESSION =
  '(?:it )?(?:stays? away|not(?: again)?|waits?|hides?|pauses?) (?:for|in) (?:the rest of )?the (?:session|visit)';

const pausing = (deed: (typeof DEEDS)[number]): Way[] => {
  const [said, setting] = deed;
  const pause = (reading: Reading, value: Pause): Answer =>
    ruleSchema.shape.limits.shape.afterClose.safeParse(value).success
      ? setOnce(reading, setting, value, onLimits({ [setting]: value }))
      : 'out of range';
  const both = (what: string): string => `after ${said}[,:]? ${what}|${what} after ${said}`;
  return [
    [
      only(both(AWAY)),
      ([, count, unit, otherCount, otherUnit], reading) =>
        pause(reading, spanOf(count ?? otherCount ?? '', unit ?? otherUnit ?? '')),
    ],
    [only(both(NEVER)), (_, reading) => pause(reading, 'ever')],
    [only(both(REST_OF_SESSION)), (_, reading) => pause(reading, 'session')],
  ];
};

const inSchedule = (reading: Reading, part: keyof Schedule, value: unknown): Answer =>
  scheduleSchema.shape[part].safeParse(value).success
    ? setOnce(reading, `schedule ${part}`, value, onSchedule({ [part]: value }))
    : 'out of range';

function fromDay(reading: Reading, said: string, time: string | undefined): Answer {
  const date = dateMeant(said, reading.today);
  if (date === undefined) return NO_DAY;
  const clock = time === undefined ? '00:00' : timeMeant(time);
  return clock === undefined ? NO_TIME : inSchedule(reading, 'start', `${date}T${clock}`);
}
/** Until a day is until it is over; before a day, until it begins. */
function untilDay(reading: Reading, said: string, time: string | undefined, isBefore = false): Answer {
  const date = dateMeant(said, reading.today);
  if (date === undefined) return NO_DAY;
  if (time === undefined) return inSchedule(reading, 'end', `${isBefore ? date : dayAfter(date)}T00:00`);
  const clock = timeMeant(time, true);
  if (clock === undefined) return NO_TIME;
  return inSchedule(reading, 'end', clock === '24:00' ? `${dayAfter(date)}T00:00` : `${date}T${clock}`);
}
function onDays(reading: Reading, said: string): Answer {
  return inSchedule(reading, 'days', daysMeant(said));
}
function inHours(reading: Reading, begin: string, end: string): Answer {
  // “9 to 5 pm” leaves the half of the day to the end; both by the clock of 24 otherwise.
  const [from, to] = [timeMeant(begin), timeMeant(end, true)];
  return from === undefined || to === undefined ? NO_TIME : inSchedule(reading, 'hours', [{ from, to }]);
}
function notOn(reading: Reading, first: string, last: string): Answer {
  const [from, to] = [dateMeant(first, reading.today), dateMeant(last, reading.today)];
  if (from === undefined || to === undefined) return NO_DAY;
  return inSchedule(reading, 'blackouts', [{ from, to }]);
}
/** Several things at once, each of which must be understood. */
const all = (...answers: readonly Answer[]): Answer => answers.find((answer) => answer !== true) ?? true;

const HOURS = `(?:between |from )?${CLOCK} ?(?:-|–|to|and|until|till) ?${CLOCK}(?: o’clock)?`;
const FROM = '(?:from|starting(?: on)?|beginning(?: on)?|as of|as from|since) ';
const UNTIL = '(?:until|till|up to|through|ending(?: on)?) ';
const AT = `(?:(?:,| at)? (?:at )?${CLOCK})?`;

/** Ways of saying how often, and in which days and hours. */
export const LIMITS_WAYS: readonly Way[] = [
  [
    only(`${AT_MOST}${TIMES_SAID}(?: at most)? (?:per|in|a|an|each|every|in each|in one) (?:session|visit)`),
    ([, word, count], reading) => addCap(reading, { max: timesOf(word, count), per: 'session' }),
  ],
  [
    only(
      `${AT_MOST}(?:${TIMES_SAID})(?: at most)?(?: (?:per|for (?:each|every)|each|every) (?:visitor|person|reader)| ever| only| in all| in total| altogether)*`,
    ),
    ([, word, count], reading) => addCap(reading, { max: timesOf(word, count), per: 'ever' }),
  ],
  [
    only(
      `${AT_MOST}${TIMES_SAID}(?: at most)? (?:an?|per|every|each|in|within) (?:${COUNT} )?(minutes?|hours?|days?|weeks?|months?)`,
    ),
    ([, word, times, count = '1', unit = ''], reading) =>
      addCap(reading, { max: timesOf(word, times), per: spanOf(count, unit) }),
  ],
  [
    only(`${AT_MOST}(?:${TIMES_SAID} )?(daily|hourly|weekly|monthly)`),
    ([, word, count, rhythm = ''], reading) =>
      addCap(reading, {
        max: timesOf(word, count),
        per: spanOf(
          '1',
          { d: 'day', h: 'hour', w: 'week', m: 'month' }[rhythm.charAt(0).toLowerCase()] ?? '',
        ),
      }),
  ],
  [
    only(
      '(?:every|each) time(?: (?:a|the) page is opened)?|always|on each page view|as often as (?:they come|one likes)|without (?:a )?limits?',
    ),
    (_, reading) =>
      reading.caps.length > 0
        ? 'something else was said before'
        : setOnce(reading, 'uncapped', true, onLimits({ caps: [] })),
  ],
  ...DEEDS.flatMap(pausing),
  [
    only(`(?:only )?(?:${FROM}|between )${DATE}${AT} (?:to|until|till|and|through|-|–) ${DATE}${AT}`),
    ([, first = '', begin, last = '', end], reading) =>
      all(fromDay(reading, first, begin), untilDay(reading, last, end)),
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
    only(`(?:only )?(?:on |at |during )?${DAYS}(?: only)?`),
    ([, days = ''], reading) => onDays(reading, days),
  ],
  [
    only(`(?:only )?(?:on |at )?${DAYS},? ${HOURS}`),
    ([, days = '', begin = '', end = ''], reading) =>
      all(onDays(reading, days), inHours(reading, begin, end)),
  ],
  [
    only(`(?:only )?${HOURS}(?: every day| daily)?`),
    ([, begin = '', end = ''], reading) => inHours(reading, begin, end),
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
  [
    only('(?:with )?(?:a )?priority(?: of)? ([0-9]+)(?: of 9)?'),
    ([, count = ''], reading) =>
      ruleSchema.shape.limits.shape.priority.safeParse(Number(count)).success
        ? setOnce(reading, 'priority', Number(count), onLimits({ priority: Number(count) }))
        : 'from 1 to 9',
  ],
  [
    only(
      '(?:hold(?:ing)? (?:it )?back(?: from)?|held back from|keep(?:ing)? (?:it )?from|with(?:hold(?:ing)?(?: it)? from)?(?: a)?(?: holdout of)?|(?:a )?holdout(?: of)?) (\\d+) ?(?:%|per ?cent)(?: of (?:the )?(?:visitors|people|readers)| as a holdout| held back)?',
    ),
    ([, share = ''], reading) =>
      holdoutSchema.safeParse(Number(share)).success
        ? setOnce(reading, 'holdout', Number(share), onLimits({ holdout: Number(share) }))
        : 'out of range',
  ],
];
