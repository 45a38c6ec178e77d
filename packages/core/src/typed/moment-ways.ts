import type { Trigger } from '@velarium/contract';
import { closeSchema, ruleSchema, selectorSchema } from '@velarium/contract';
import { COUNT, numberOf, ORDINAL, only, ordinalOf, secondsOf, TIME } from './numbers.ts';
import { type Answer, addTrigger, onMoment, type Reading, setJoin, setOnce, type Way } from './reading.ts';

/** An element of the page: `.open`, `#prices`, `[data-open]`, or any selector in quotation marks. */
const ELEMENT =
  '(?:(?:the |a |an )?(?:(?:button|link|element|picture|image|field|form|section|heading) )?)?(“[^”]+”|"[^"]+"|[.#[][^\\s,]+)(?: (?:button|link|element|picture|field))?';
const elementOf = (said: string): string => said.replace(/^[“"]|[”"]$/g, '');

const WHO =
  '(?:they|(?:the |a )?(?:visitor|reader|user|customer|shopper)|users|customers|shoppers|somebody|someone|visitors|readers|people)';
const WAYS_OF_ACTING: readonly (readonly [RegExp, 'click' | 'hover' | 'focus'])[] = [
  [/^(?:click|press|tap)/i, 'click'],
  [/^(?:hover|point)/i, 'hover'],
  [/^focus/i, 'focus'],
];
const acting = (said: string) => WAYS_OF_ACTING.find(([words]) => words.test(said))?.[1] ?? 'click';
const ACTS =
  '(click(?:ing|ed|s)?|press(?:ing|ed|es)?|tap(?:ping|ped|s)?|hover(?:ing|ed|s)?|focus(?:ing|ed|es)?)';

const SHARES: Readonly<Record<string, number>> = {
  half: 50,
  'a half': 50,
  'the half': 50,
  'half way': 50,
  '1/2': 50,
  '1/4': 25,
  '3/4': 75,
  '1/3': 33,
  '2/3': 67,
  'the middle': 50,
  'one third': 33,
  'one quarter': 25,
  halfway: 50,
  'half-way': 50,
  'a quarter': 25,
  'three quarters': 75,
  'three-quarters': 75,
  'two thirds': 67,
  'a third': 33,
};
const SHARE = `(${Object.keys(SHARES).join('|')})`;

const trigger =
  (one: Trigger): Way[1] =>
  (_, reading) =>
    addTrigger(reading, one);
const scrollTo =
  (unit: 'percent' | 'pixels'): Way[1] =>
  ([, amount = ''], reading) =>
    addTrigger(reading, { kind: 'scroll', unit, amount: SHARES[amount.toLowerCase()] ?? Number(amount) });
const SCROLLING = `(?:(?:after|on|when|once|if|as soon as)? ?(?:${WHO} )?(?:have |has )?(?:scroll(?:ing|ed|s)?|reach(?:ing|ed|es)?|gett?(?:ing|s)?|got|read(?:ing|s)?|see(?:n|ing)?)(?: (?:down|past|to|by|through|beyond|at least))* |after |at |past |when )?`;

function holdBack(reading: Reading, count: string, unit: string): Answer {
  const notBeforeSeconds = secondsOf(count, unit);
  return ruleSchema.shape.moment.shape.notBeforeSeconds.safeParse(notBeforeSeconds).success
    ? setOnce(reading, 'before', notBeforeSeconds, onMoment({ notBeforeSeconds }))
    : 'from 0.1 seconds to an hour';
}

const NAME_IT = 'name it as its page does, as in “#map”, or by its words, in quotation marks';

/** Ways of saying when it opens and closes. */
export const MOMENT_WAYS: readonly Way[] = [
  [
    only(
      `(?:after )?${TIME} (?:of (?:stillness|inactivity|idleness|idling|silence|no (?:movement|activity)|doing nothing)|without (?:moving|a move|(?:any )?(?:movement|activity|action|interaction|input)|doing (?:anything|a thing)|touching anything)|idle|inactive|still|(?:of )?not moving)`,
    ),
    ([, count = '', unit = ''], reading) =>
      addTrigger(reading, { kind: 'inactivity', seconds: secondsOf(count, unit) }),
  ],
  [
    only(
      `(?:when |while |after |if |once )?(?:${WHO} )?(?:(?:are|is|have been|has been|being|sits?) )?(?:idle|inactive|still|(?:without|no) (?:any )?(?:movement|activity|action|interaction)|nothing (?:happens|moves|has happened)|(?:does?|do|doing|have done|has done) nothing|(?:does|do)(?:n’t|n't| not) move|stops? moving)(?: for)? ${TIME}`,
    ),
    ([, count = '', unit = ''], reading) =>
      addTrigger(reading, { kind: 'inactivity', seconds: secondsOf(count, unit) }),
  ],
  [
    only(
      `(?:it )?(?:auto(?:matically)?[- ]?)?(?:closes?|goes|disappears?|vanish(?:es)?|hides?(?: it)?) (?:itself |by itself |on its own |automatically )?after ${TIME}`,
    ),
    ([, count = '', unit = ''], reading) => {
      const afterSeconds = secondsOf(count, unit);
      if (!closeSchema.shape.afterSeconds.safeParse(afterSeconds).success)
        return 'whole seconds, from 2 seconds to an hour';
      return setOnce(reading, 'closing', afterSeconds, ({ message, ...rest }) => ({
        ...rest,
        message: { ...message, close: { ...message.close, afterSeconds } },
      }));
    },
  ],
  [
    only(`(?:but )?(?:(?:not|never|nothing) )?before ${TIME}(?: in| on the page)?`),
    ([, count = '', unit = ''], reading) => holdBack(reading, count, unit),
  ],
  [
    only(
      `(?:after )?${TIME} (?:(?:in|into|of|since the start of) (?:the|this|a) (?:session|visit)|(?:on|across) (?:the )?(?:whole )?site)`,
    ),
    ([, count = '', unit = ''], reading) =>
      addTrigger(reading, { kind: 'sessionTime', seconds: secondsOf(count, unit) }),
  ],
  [
    only(
      `(?:when |once |after |if )?(?:${WHO} )?(?:have |has )?(?:been|spent|stay(?:s|ed|ing)?)(?: here)? (?:on|in|across) (?:the |this |our )?(?:whole )?site (?:for )?(?:at least )?${TIME}|(?:when |once |after |if )?(?:${WHO} )?(?:have |has )?spent ${TIME} (?:on|in|across) (?:the |this |our )?(?:whole )?site`,
    ),
    ([, count, unit, otherCount, otherUnit], reading) =>
      addTrigger(reading, {
        kind: 'sessionTime',
        seconds: secondsOf(count ?? otherCount ?? '', unit ?? otherUnit ?? ''),
      }),
  ],
  [
    only(
      `(?:when |once |after |if )?(?:${WHO} )?(?:have |has )?(?:been |were )?(?:been|here|stay(?:s|ed|ing)?|spent|read(?:ing|s)?|linger(?:s|ed|ing)?|remain(?:s|ed|ing)?)(?: here| there)?(?: on (?:the|this|a) page)? (?:for )?(?:at least )?${TIME}(?: on (?:the|this|a) page)?`,
    ),
    ([, count = '', unit = ''], reading) =>
      addTrigger(reading, { kind: 'time', seconds: secondsOf(count, unit) }),
  ],
  [
    only(
      `(?:only )?(?:after |wait(?:ing)? |when )?${TIME}(?: (?:on (?:the|this|a|that) page|in|later|have passed|of reading|after (?:arriving|arrival|(?:the )?(?:page )?load(?:ing|s|ed)?|the page (?:opens|has opened|has loaded|is open))))?`,
    ),
    ([, count = '', unit = ''], reading) =>
      addTrigger(reading, { kind: 'time', seconds: secondsOf(count, unit) }),
  ],
  [
    only(
      `(?:when |once |after |if )(?:the|this) page (?:has been|is|was) open (?:for )?(?:at least )?${TIME}`,
    ),
    ([, count = '', unit = ''], reading) =>
      addTrigger(reading, { kind: 'time', seconds: secondsOf(count, unit) }),
  ],
  [
    // Beside another moment it holds that one back; by itself it could be either.
    only(`(?:but )?(?:only )?(?:after )?at least ${TIME}(?: (?:on (?:the|this) page|in))?`),
    ([, count = '', unit = ''], reading) =>
      reading.triggers.length > 0 ? holdBack(reading, count, unit) : 'say “after” so long, or “not before”',
  ],
  [
    only(
      '(?:after|with) (?:an? )?(?:short|little|small|brief|long) (?:delay|while|time|pause|wait)|after (?:a while|some time|a bit|a moment|a few (?:seconds|moments|minutes))',
    ),
    () => 'say after how many seconds',
  ],
  [
    only(
      '(?:at once|immediately|right away|straight ?away|instantly|as soon as (?:the page (?:is open(?:ed)?|opens)|they (?:arrive|come)|possible)|on arrival|when they arrive)',
    ),
    trigger({ kind: 'time', seconds: 0 }),
  ],
  [
    only(
      '(?:on|at|after|when)? ?(?:the )?(?:page )?(?:has |is )?load(?:ed|s|ing)?|when the page (?:has |is )?(?:fully )?load(?:s|ed)|(?:when|once|after) the page (?:has |is )?(?:finished|done) loading',
    ),
    trigger({ kind: 'load', when: 'loaded' }),
  ],
  [
    only(
      `${SCROLLING}(\\d+(?:\\.\\d+)?) ?(?:%|per ?cent)(?: of the page| scrolled| scroll| down| deep| depth)*(?: (?:is|has been|was) (?:scrolled|read|seen))?`,
    ),
    scrollTo('percent'),
  ],
  [
    only(
      `${SCROLLING}${SHARE}(?:(?: of)? the (?:way down(?: the page)?|page)| down(?: the page)?| of a page)?(?: (?:is|has been|was) (?:scrolled|read|seen))?`,
    ),
    scrollTo('percent'),
  ],
  [
    only(
      `${SCROLLING}(?:the )?(?:very )?(?:bottom|end|foot) of the page|(?:after|on|when|once)? ?(?:${WHO} )?(?:have |has )?scroll(?:ing|ed|s)?(?: down| all the way)* to the (?:very )?(?:bottom|end)|(?:when |if |once )?${WHO} (?:are|is) at the (?:very )?(?:bottom|end)(?: of the page)?`,
    ),
    trigger({ kind: 'scroll', unit: 'percent', amount: 100 }),
  ],
  [only(`${SCROLLING}(\\d+) ?(?:px|pixels?)(?: of the page| scrolled| down)*`), scrollTo('pixels')],
  [
    only(
      `(?:after|on|upon|at|when|if|before|who)? ?(?:${WHO} )?(?:(?:are|is) )?(?:(?:wants?|tries|try|starts?|begins?|moves?|decides?) to (?:leave|go|exit|close)|about to (?:leave|go)|on the way out|leaving|leaves?|exit|(?:exit|leaving|leave)[- ]intent|goes? away)(?: (?:the|this) (?:page|site))?(?: by mouse)?|(?:when|as|if|on|before) (?:${WHO} )?(?:tr(?:y|ies|ying) to )?(?:clos(?:e|es|ing)|leav(?:e|es|ing)) (?:the |this )?(?:tab|window|page|browser|site)|(?:on )?mouse ?(?:leave|leaving|out|exit)|when (?:the|their) (?:mouse|pointer|cursor) (?:leaves|goes|moves)(?: (?:out of|off|towards|to|for))?(?: the (?:top of the )?(?:page|window|screen|top|tabs?|address bar|close button))?`,
    ),
    trigger({ kind: 'exitMouse', certainty: 'likely' }),
  ],
  [
    only(
      '(?:on |after )?(?:a )?(?:quick(?:ly)?|fast|sudden) ?scroll(?:ing)?(?: back)? up(?: by touch)?|(?:on |after |when |while )?(?:they )?scroll(?:ing)? (?:back )?up(?: (?:quickly|fast))?',
    ),
    trigger({ kind: 'exitTouch', by: 'scrollUp' }),
  ],
  [
    only(
      `(?:on|at|by)? ?(?:the )?back (?:button|gesture|key)|(?:on )?going back|(?:when|if|once) (?:the )?back (?:button|key) is (?:pressed|used|hit|clicked|tapped)|(?:when|if|as) ${WHO} (?:(?:press|hit|tap|use|click)(?:es|s)?|go(?:es)?|tr(?:y|ies) to go) (?:the )?back(?: (?:button|gesture|key))?`,
    ),
    trigger({ kind: 'exitTouch', by: 'back' }),
  ],
  [
    only(
      `(?:on|when|after|if)? ?(?:${WHO} )?(?:(?:com|switch|go)(?:e|es|ing)? back|return(?:s|ing)?) (?:to|from) (?:the|this|our|another) tab`,
    ),
    trigger({ kind: 'tabReturn' }),
  ],
  [
    only(
      `(?:at|on|after|when they reach|having read to)? ?(?:reading )?(?:the )?end(?: of (?:the|an) (?:article|text|post|story|entry))?|(?:after|having|once|when) (?:${WHO} )?(?:have |has )?read to the end|(?:after|having|once|when) (?:they (?:have )?)?(?:read(?:ing)?|finish(?:ed|ing)?(?: reading)?) (?:the|an) (?:whole )?(?:article|text|post|story|entry)|(?:after|once|when) the (?:whole |entire )?(?:article|text|post|story|entry) (?:has been|is|was) read(?: to the end)?`,
    ),
    trigger({ kind: 'articleEnd' }),
  ],
  [
    only(
      `(?:on|when|once|after|at)? ?(?:(?:${WHO} )?(?:reach(?:ing|es)?|see(?:ing|s)?|scroll(?:ing|s)? to|gett?(?:ing|s)? to) ${ELEMENT}|${ELEMENT} (?:comes? into (?:view|sight)|is (?:reached|seen|in view|visible|on screen)|becomes visible|shows|appears))`,
    ),
    ([, one, other], reading) =>
      withElement(one ?? other ?? '', (selector) => ({ kind: 'element', selector }), reading),
  ],
  [
    only(`(?:on|when|after|at)? ?(?:an? )?(?:${WHO} )?${ACTS}(?: (?:on|over|of|in|into|onto))? ${ELEMENT}`),
    ([, what = '', said = ''], reading) =>
      withElement(said, (selector) => ({ kind: 'interact', what: acting(what), selector }), reading),
  ],
  [
    only(`(?:when|once|after|if) ${ELEMENT} (?:is |gets )?${ACTS}`),
    ([, said = '', what = ''], reading) =>
      withElement(said, (selector) => ({ kind: 'interact', what: acting(what), selector }), reading),
  ],
  [
    only(
      `(?:from|on|at|after|for) (?:the|their) ${ORDINAL} (?:(?:page|page view|view)(?: of (?:the|a) (?:session|visit))?)(?: on(?:wards)?)?`,
    ),
    ([, nth = ''], reading) =>
      addTrigger(reading, { kind: 'count', of: 'viewsInSession', atLeast: ordinalOf(nth) }),
  ],
  [
    only('from page (?:view )?(\\d+) on(?:wards)?'),
    ([, nth = ''], reading) =>
      addTrigger(reading, { kind: 'count', of: 'viewsInSession', atLeast: Number(nth) }),
  ],
  [
    only(
      `(?:after|on|with) (?:viewing |seeing |visiting |reading )?${COUNT} pages?(?: views?)?(?: (?:in|of) (?:the|a|this) (?:session|visit))?|(?:when|once|after|if) ${WHO} (?:have |has )?(?:seen?|viewed?|visit(?:ed)?|open(?:ed)?|read) ${COUNT} (?:or more )?pages(?: (?:in|of) (?:the|a|this) (?:session|visit))?`,
    ),
    ([, count, other], reading) =>
      addTrigger(reading, { kind: 'count', of: 'viewsInSession', atLeast: numberOf(count ?? other ?? '') }),
  ],
  [
    only(
      `(?:on|at|in) every (?:second|other|${ORDINAL}) (?:session|visit|page|page view)|every (?:second|other|${ORDINAL}) (?:session|visit|page|page view)`,
    ),
    () => 'a rule counts from a session or page on, not every so many',
  ],
  [
    only(
      `${SCROLLING}(?:${SHARE}|\\d+ ?(?:%|per ?cent))(?: of| through)? (?:the|an|a) (?:article|text|post|story|entry)(?: (?:is|has been|was) read)?`,
    ),
    () => 'say how much of the page, or “at the end of the article”',
  ],
  [
    only(`(?:on|when|once|after|if) (?:${WHO} )?${ACTS} (?:on |over )?(?:the|an?) [a-z][a-z -]*`),
    () => NAME_IT,
  ],
  [
    only(
      '(?:when|once|as soon as|if) (?:the |an? )?[a-z][a-z -]* (?:is|becomes|comes|gets) (?:visible|seen|reached|into (?:view|sight)|in view|on screen)',
    ),
    () => NAME_IT,
  ],
  [
    only(
      `(?:when|once|as soon as|if|after) (?:${WHO} )?(?:starts? to |begins? to )?scroll(?:s|ing|ed)?(?: down)?`,
    ),
    () => 'say how far, in % of the page or in pixels',
  ],
  [
    only(`${SCROLLING}${COUNT} screens?(?:fuls?)?(?: of the page| down)?`),
    () => 'say how far in % of the page or in pixels',
  ],
  [
    only(`from the ${ORDINAL} (?:session|visit)(?: on(?:wards)?)?`),
    ([, nth = ''], reading) =>
      addTrigger(reading, { kind: 'count', of: 'sessions', atLeast: ordinalOf(nth) }),
  ],
  [
    only(
      `(?:on|when|after) the (?:page’s |page's )?event (?:“([^”]+)”|"([^"]+)"|([\\w.:-]+))(?: (?:happens|comes|is told))?`,
    ),
    ([, ...names], reading) =>
      addTrigger(reading, { kind: 'event', name: names.find(Boolean) ?? '', condition: null }),
  ],
  [
    only('any(?: of them)?|whichever (?:is|comes|happens) first|the first of them'),
    (_, reading) => setJoin(reading, 'any'),
  ],
  [only('all of them|all together|both(?: of them)?|all three'), (_, reading) => setJoin(reading, 'all')],
];

const withElement = (said: string, make: (selector: string) => Trigger, reading: Parameters<Way[1]>[1]) => {
  const selector = elementOf(said);
  return selectorSchema.safeParse(selector).success ? addTrigger(reading, make(selector)) : false;
};
