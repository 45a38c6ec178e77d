import type { DataCondition, Moment, Trigger } from '@velarium/contract';
import { COUNTED, LEAVING_BY_MOUSE } from './moment-words.ts';
import {
  as,
  either,
  found,
  list,
  maybe,
  number,
  oneOf,
  ownWords,
  type Parser,
  quantityOf,
  said,
  words,
} from './parsers.ts';
import { COMPARISON_WORDS } from './words.ts';

const seconds = quantityOf('second');
const nth = found(/\d+(?:st|nd|rd|th)/, (match) => Number.parseInt(match, 10));

const having: Parser<DataCondition> = as(
  said` with ${ownWords} ${oneOf(COMPARISON_WORDS)} ${either<string | number | boolean>(ownWords, number, words('true', true), words('false', false))}`,
  ([path, comparison, value]) => ({ path, comparison, value }),
);

/** What `triggerWords` says. */
export const trigger: Parser<Trigger> = either<Trigger>(
  words('when the page is ready', { kind: 'load', when: 'ready' }),
  words('when the page has loaded', { kind: 'load', when: 'loaded' }),
  words('when the page asks for it', { kind: 'hand' }),
  words('at once', { kind: 'time', seconds: 0 }),
  words('at the end of the article', { kind: 'articleEnd' }),
  words('on coming back to the tab', { kind: 'tabReturn' }),
  words('on a quick scroll up by touch', { kind: 'exitTouch', by: 'scrollUp' }),
  words('on the back gesture', { kind: 'exitTouch', by: 'back' }),
  as(said`after ${seconds} in the session`, ([count]) => ({ kind: 'sessionTime', seconds: count })),
  as(said`after ${seconds} of inactivity`, ([count]) => ({ kind: 'inactivity', seconds: count })),
  as(said`after ${seconds}`, ([count]) => ({ kind: 'time', seconds: count })),
  as(said`after ${number} % of the page`, ([amount]) => ({ kind: 'scroll', unit: 'percent', amount })),
  as(said`after ${quantityOf('pixel')} of the page`, ([amount]) => ({
    kind: 'scroll',
    unit: 'pixels',
    amount,
  })),
  as(said`on reaching ${ownWords}`, ([selector]) => ({ kind: 'element', selector })),
  as(oneOf(LEAVING_BY_MOUSE), (certainty) => ({ kind: 'exitMouse', certainty })),
  as(said`on a click on ${ownWords}`, ([selector]) => ({ kind: 'interact', what: 'click', selector })),
  as(said`on a hover over ${ownWords}`, ([selector]) => ({ kind: 'interact', what: 'hover', selector })),
  as(said`when ${ownWords} takes the focus`, ([selector]) => ({ kind: 'interact', what: 'focus', selector })),
  as(said`from the ${nth} ${oneOf(COUNTED)} onwards`, ([atLeast, of]) => ({ kind: 'count', of, atLeast })),
  as(said`on the event ${ownWords}${maybe(having, null)}`, ([name, condition]) => ({
    kind: 'event',
    name,
    condition,
  })),
);

const together = either<Pick<Moment, 'join' | 'triggers'>>(
  as(said`${list(trigger, 'and')} (all of them)`, ([triggers]) => ({ join: 'all', triggers })),
  as(list(trigger, 'or'), (triggers) => ({ join: 'any', triggers })),
);

/** What `momentWords` says. */
export const moment: Parser<Moment> = as(
  said`${together}${maybe(said`, not before ${seconds}`, [0] as const)}${maybe(said`, and again ${seconds} after it is gone`, [null] as const)}`,
  ([joined, [notBeforeSeconds], [againAfterSeconds]]) => ({ ...joined, notBeforeSeconds, againAfterSeconds }),
);
