import type { Pause, Schedule } from '@velarium/contract';
import { ruleSchema, scheduleSchema } from '@velarium/contract';
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
import { COUNT, numberOf, only, SPAN, spanOf, TIMES_SAID, timesOf } from './numbers.ts';
import { type Answer, addCap, onLimits, onSchedule, type Reading, setOnce, type Way } from './reading.ts';

const NO_DAY = 'the calendar has no such day';
const NO_TIME = 'a day has no such time';
const holdoutSchema = ruleSchema.shape.limits.shape.holdout;

const AT_MOST =
  '(?:at most |(?:not|no) more often than |no more than |not more than |up to |a maximum of |max(?:imum)? |only |just )?';

const WHO = '(?:they|the visitor|a visitor|somebody|someone|visitors|people)';

/** What a visitor may have done to it, and which pause that begins. */
const DEEDS: readonly (readonly [string, 'afterClose' | 'afterNo' | 'afterConversion'])[] = [
  [
    `(?:a |the |it )?(?:clos(?:e|es|ed|ing)|being closed|is closed|dismissed|dismissing(?: it)?|${WHO} (?:close|closes|closed|have closed|has closed|dismiss|dismissed)(?: it)?)`,
    'afterClose',
  ],
  [`(?:a |the )?(?:no|refusal|refusing|saying no|${WHO} (?:refuses?|refused|says? no|said no))`, 'afterNo'],
  [
    '(?:a |the )?(?:conversion|converting|sign(?:ing)?[- ]?up|subscribing|subscription|subscribed|converted|signed up|answer(?:ing|ed)?|' +
      `${WHO} (?:have |has )?(?:convert(?:s|ed)?|signs? up|signed up|answer(?:s|ed)?|subscribed?|subscribes))`,
    'afterConversion',
  ],
];
const AWAY = `(?:(?:it )?(?:stays? away|stay(?:s)? hidden|hid(?:e|es|den)|waits?|pauses?|rests?|not(?: shown)?(?: again)?|comes? back|(?:shown )?again|(?:don’t|don't|do not) show(?: it)?(?: again)?))(?: only)?(?: for| after| in)? ${SPAN}`;
const NEVER =
  "(?:it )?(?:never(?: (?:comes? |shown? |show it )?(?:again|back))?|not (?:ever )?again|(?:do not|don’t|don't|never) show (?:it )?again|stops?(?: showing)?(?: it)?|hides?(?: it)?(?: for good| for ?ever)?|(?:gone|hidden|away) for ?ever|(?:it )?goes for good)";
const REST_OF_SESSION =
  '(?:it )?(?:stays? away|not(?: again)?|waits?|hides?|pauses?) (?:for|in) (?:the rest of )?the (?:session|visit)';

const pausing = (deed: (typeof DEEDS)[number]): Way[] => {
  const [said, setting] = deed;
  const pause = (reading: Reading, value: Pause): Answer =>
    ruleSchema.shape.limits.shape.afterClose.safeParse(value).success
      ? setOnce(reading, setting, value, onLimits({ [setting]: value }))
      : 'out of range';
  const once = '(?:after|once|when|if)';
  const both = (what: string): string => `${once} ${said}[,:]? ${what}|${what} ${once} ${said}`;
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
function within(reading: Reading, [first, last]: readonly [string, string]): Answer {
  return all(
    inSchedule(reading, 'start', `${first}T00:00`),
    inSchedule(reading, 'end', `${dayAfter(last)}T00:00`),
  );
}
/** From this number in a month to that one. */
const inMonth = (first: string, last: string, month: string): readonly [string, string] => [
  `${first} ${month}`,
  `${last} ${month}`,
];
const withhold = (reading: Reading, holdout: number): Answer =>
  holdoutSchema.safeParse(holdout).success
    ? setOnce(reading, 'holdout', holdout, onLimits({ holdout }))
    : 'out of range';
const rank = (reading: Reading, priority: number): Answer =>
  ruleSchema.shape.limits.shape.priority.safeParse(priority).success
    ? setOnce(reading, 'priority', priority, onLimits({ priority }))
    : 'from 1 to 9';
/** Several things at once, each of which must be understood. */
const all = (...answers: readonly Answer[]): Answer => answers.find((answer) => answer !== true) ?? true;

const HOURS = `(?:between |from )?${CLOCK} ?(?:-|–|to|and|until|till) ?${CLOCK}(?: o’clock)?`;
const FROM = '(?:from|starting(?: on)?|beginning(?: on)?|as of|as from|since) ';
const UNTIL =
  '(?:(?:from (?:now|today)(?: on)? )?(?:until|till|up to|through)|(?:it )?(?:end(?:ing|s)?|stop(?:ping|s)?)(?: on| at the end of)?) ';
const AT = `(?:(?:,| at)? (?:at )?${CLOCK})?`;

/** A time of day that cannot be a number of seconds. */
const TIME_OF_DAY = '(\\d{1,2}[:.]\\d{2}(?: ?[ap]\\.?m\\.?)?|\\d{1,2} ?[ap]\\.?m\\.?|noon|midnight)';
const MONTH_NAMED = `(${MONTHS.map((name) => `${name.slice(0, 3)}(?:${name.slice(3)})?`).join('|')})`;
const DAY_OF_MONTH = '(?:the )?(\\d{1,2})(?:st|nd|rd|th)?';

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
      `${AT_MOST}${TIMES_SAID}(?: at most)? (?:an?|per|every|each|in|within) (?:${COUNT} )?(minutes?|hours?|days?|weeks?|months?)(?: (?:per|for (?:each|every)) (?:visitor|person|reader))?`,
    ),
    ([, word, times, count = '1', unit = ''], reading) =>
      addCap(reading, { max: timesOf(word, times), per: spanOf(count, unit) }),
  ],
  [
    only(
      `(?:at most |no more than |not more than |up to |a maximum of |max(?:imum)? )?${COUNT} (?:per|each|every) (session|visit|visitor|person|minute|hour|day|week|month)`,
    ),
    ([, count = '', unit = ''], reading) => {
      const per = /^s|^visit$/i.test(unit) ? 'session' : /^(?:v|p)/i.test(unit) ? 'ever' : spanOf('1', unit);
      return addCap(reading, { max: numberOf(count), per });
    },
  ],
  [
    only('every (week|month)'),
    ([, unit = ''], reading) => addCap(reading, { max: 1, per: spanOf('1', unit) }),
  ],
  [
    only(
      `(?:gives? up|stops?|ends?)(?: itself| showing)? after ${COUNT} (?:unanswered(?: showings| times)?|(?:times|showings)? ?without (?:an |any )?(?:answer|response|reaction|click))`,
    ),
    ([, count = ''], reading) => {
      const stopAfterUnanswered = numberOf(count);
      return ruleSchema.shape.limits.shape.stopAfterUnanswered.safeParse(stopAfterUnanswered).success
        ? setOnce(reading, 'stopAfterUnanswered', stopAfterUnanswered, onLimits({ stopAfterUnanswered }))
        : 'out of range';
    },
  ],
  [
    only(`every ${SPAN}`),
    ([, count = '', unit = ''], reading) => addCap(reading, { max: 1, per: spanOf(count, unit) }),
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
  [
    only(
      `(?:only )?(?:from |between )?${DAY_OF_MONTH} ?(?:to|until|till|and|through|-|–) ?${DAY_OF_MONTH}(?: of)? ${MONTH_NAMED}|(?:only )?(?:from |between )?${MONTH_NAMED} ${DAY_OF_MONTH} ?(?:to|until|till|and|through|-|–) ?${DAY_OF_MONTH}`,
    ),
    ([, first, last, month, otherMonth, otherFirst, otherLast], reading) => {
      const [from, until] = inMonth(
        first ?? otherFirst ?? '',
        last ?? otherLast ?? '',
        month ?? otherMonth ?? '',
      );
      return all(fromDay(reading, from, undefined), untilDay(reading, until, undefined));
    },
  ],
  [
    only(`(?:only )?(?:in |during |throughout |for )?${STRETCH}(?: only)?`),
    ([, said = ''], reading) => {
      const meant = stretchMeant(said, reading.today);
      return meant ? within(reading, meant) : false;
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
    only(`(?:only )?(?:on |at )?${DAYS},? ${HOURS}`),
    ([, days = '', begin = '', end = ''], reading) =>
      all(onDays(reading, days), inHours(reading, begin, end)),
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
  [
    only('(?:with )?(?:a )?priority(?: of)? ([0-9]+)(?: of 9)?'),
    ([, count = ''], reading) => rank(reading, Number(count)),
  ],
  [
    only(
      '(?:with )?(?:the )?(?:highest|top) priority|before (?:all (?:the )?others?|everything else|every other (?:message|campaign))|ahead of (?:all (?:the )?others?|everything else)',
    ),
    (_, reading) => rank(reading, 9),
  ],
  [
    only('(?:with )?(?:the )?lowest priority|after (?:all (?:the )?others?|everything else)'),
    (_, reading) => rank(reading, 1),
  ],
  [
    only(
      "(?:but )?(?:not|never|(?:do not|don’t|don't|never) show(?: it)?) (?:together|at the same time|along) (?:with|as) (?:another|other|any other) (?:messages?|campaigns?|one)|(?:give|giving|gives) way (?:to (?:others|other messages|other campaigns)|when another (?:message )?is (?:open|shown|there))|only (?:when|while|if) (?:no other (?:message|campaign)|nothing else) is (?:open|shown|there)",
    ),
    (_, reading) => setOnce(reading, 'whenBusy', 'yield', onLimits({ whenBusy: 'yield' })),
  ],
  [
    only(
      '(?:hold(?:ing)? (?:it )?back(?: from)?|held back from|keep(?:ing)? (?:it )?from|with(?:hold(?:ing)?(?: it)? from)?(?: a)?(?: holdout of)?|(?:a )?holdout(?: of)?) (\\d+) ?(?:%|per ?cent)(?: of (?:the )?(?:visitors|people|readers)| as a holdout| held back)?',
    ),
    ([, share = ''], reading) => withhold(reading, Number(share)),
  ],
  [
    only('(?:with )?(?:a |an )?(?:control|holdout|comparison) group of (\\d+) ?(?:%|per ?cent)'),
    ([, share = ''], reading) => withhold(reading, Number(share)),
  ],
  [
    only(
      '(?:only )?(?:shown? )?(?:for|to) (?:only )?(?:(\\d+) ?(?:%|per ?cent)|(half)|(?:a|one) (third|quarter|tenth)) of (?:all |the |our )*(?:visitors|people|readers|traffic)',
    ),
    ([, share, half, part = ''], reading) =>
      withhold(
        reading,
        100 -
          (share !== undefined
            ? Number(share)
            : half
              ? 50
              : ({ third: 33, quarter: 25, tenth: 10 }[part.toLowerCase()] ?? 0)),
      ),
  ],
];
