import type { Pause } from '@velarium/contract';
import { ruleSchema } from '@velarium/contract';
import { COUNT, numberOf, only, SPAN, spanOf, TIMES_SAID, timesOf } from './numbers.ts';
import { type Answer, addCap, onLimits, type Reading, setOnce, type Way } from './reading.ts';

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
  [
    `(?:a |the )?(?:no|refusal|refusing|declin(?:ed|ing)|saying no|${WHO} (?:refuses?|refused|declines?|declined|says? no|said no))`,
    'afterNo',
  ],
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

const withhold = (reading: Reading, holdout: number): Answer =>
  holdoutSchema.safeParse(holdout).success
    ? setOnce(reading, 'holdout', holdout, onLimits({ holdout }))
    : 'out of range';
const RANKS = 'say which priority, from 1, the lowest, to 9';
const rank = (reading: Reading, priority: number): Answer =>
  ruleSchema.shape.limits.shape.priority.safeParse(priority).success
    ? setOnce(reading, 'priority', priority, onLimits({ priority }))
    : 'from 1 to 9';
/** Ways of saying how often, and who goes first. */
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
    only(
      `(?:at most|no more than|not more than|up to|max(?:imum)?) ${COUNT} an? (day|week|month|hour|session|visit)`,
    ),
    ([, count = '', unit = ''], reading) =>
      addCap(reading, {
        max: numberOf(count),
        per: /^s|^v/i.test(unit) ? 'session' : spanOf('1', unit),
      }),
  ],
  [
    only('(?:again )?(?:(?:at|on|in) )?(?:every|each) (?:session|visit)(?: again)?'),
    (_, reading) => addCap(reading, { max: 1, per: 'session' }),
  ],
  [
    only(`again (?:after|in) ${SPAN}|again the next (day|week|month)`),
    ([, count, unit, next], reading) =>
      addCap(reading, { max: 1, per: spanOf(count ?? '1', unit ?? next ?? '') }),
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
      '(?:every|each) time(?: (?:a|the) page is opened)?|always|on each page view|as often as (?:they come|one likes)|without (?:a )?limits?|no limits?',
    ),
    (_, reading) =>
      reading.caps.length > 0
        ? 'something else was said before'
        : setOnce(reading, 'uncapped', true, onLimits({ caps: [] })),
  ],
  ...DEEDS.flatMap(pausing),
  [
    only(
      `(?:after|once|when|if) (?:${WHO} )?(?:have |has )?(?:closed|dismissed|seen|met) it (?:twice|${COUNT} times)`,
    ),
    () => 'say how often it may show; closes are not counted one by one',
  ],
  [
    only(
      '(?:let|give|giving|letting) (?:the )?(?:others?|other (?:messages|campaigns))(?: ones)? (?:go first|(?:a )?precedence|(?:a )?priority|the first go)',
    ),
    () => RANKS,
  ],
  [
    only('(?:as |it is )?the (?:most|least) important(?: one| message| campaign)?'),
    ([said = ''], reading) => rank(reading, / most /i.test(` ${said} `) ? 9 : 1),
  ],
  [
    only(
      `(?:only )?(?:for |to )?(?:every )?(\\d+|one|two|three) (?:in|of|out of) (?:every |each )?${COUNT} (?:visitors|people|readers)`,
    ),
    ([, some = '', all = ''], reading) => {
      const shown = (numberOf(some) / numberOf(all)) * 100;
      return Number.isInteger(shown) && shown <= 100
        ? withhold(reading, 100 - shown)
        : 'say which share, in whole %';
    },
  ],
  [
    only(
      '(?:keep|hold|leave) (?:out |back |away )?(?:(half)|(?:a|one) (third|quarter|fifth|tenth)) of (?:all |the |our )*(?:visitors|people|readers|traffic)(?: (?:out|back|away))?',
    ),
    ([, half, part = ''], reading) =>
      withhold(
        reading,
        half ? 50 : ({ third: 33, quarter: 25, fifth: 20, tenth: 10 }[part.toLowerCase()] ?? 0),
      ),
  ],
  [only('(?:with )?(?:a )?(?:very )?(?:low|lower|high|higher|medium|normal|middle) priority'), () => RANKS],
  [
    only(
      `(?:wait |leave |keep )?(?:at least )?${SPAN} (?:of (?:quiet|rest) )?between (?:any )?(?:two |other )?(?:messages|pop-?ups|campaigns)|(?:at most |no more than )?(?:one|${COUNT}) (?:messages?|pop-?ups?) (?:per|a|each|every) (?:day|week|session|visit|page)`,
    ),
    () => 'a site says that for all its campaigns, in Site',
  ],
  [
    only(
      '(\\d+) ?(?:%|per ?cent) (?:as (?:a )?)?(?:holdout|control group|comparison group|held back|kept out)',
    ),
    ([, share = ''], reading) => withhold(reading, Number(share)),
  ],
  [
    only('(?:an? )?(?:a/b|ab|split|50/50|half and half) ?(?:test|experiment|trial)?'),
    () => 'an experiment is begun in the Workbench, under Experiment',
  ],
  [
    only('(?:with )?(?:a )?priority(?: of)? ([0-9]+)(?: of 9)?'),
    ([, count = ''], reading) => rank(reading, Number(count)),
  ],
  [
    only(
      '(?:with )?(?:the )?(?:highest|top) priority|before (?:all (?:the )?(?:others?|other (?:messages|campaigns))|everything else|every other (?:message|campaign))|ahead of (?:all (?:the )?others?|everything else)',
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
