import type { Moment, Trigger } from '@velarium/contract';
import { COMPARISON_WORDS, listOf, ordinal, quantity, quoted } from './words.ts';

/** When it opens: `after 12 seconds or at the end of the article, not before 3 seconds`. */
export function momentWords({ join, triggers, notBeforeSeconds, againAfterSeconds }: Moment): string {
  const joined = listOf(triggers.map(triggerWords), join === 'any' ? 'or' : 'and');
  // With a single trigger the two ways of joining are one and the same.
  const together = triggers.length > 1 && join === 'all' ? `${joined} (all of them)` : joined;
  const arming = notBeforeSeconds > 0 ? `, not before ${quantity(notBeforeSeconds, 'second')}` : '';
  const again =
    againAfterSeconds === null ? '' : `, and again ${quantity(againAfterSeconds, 'second')} after it is gone`;
  return together + arming + again;
}

export const LEAVING_BY_MOUSE = {
  early: 'at an early sign of leaving by mouse',
  likely: 'at a likely sign of leaving by mouse',
  certain: 'once leaving by mouse is certain',
} as const;

export const COUNTED = {
  viewsInSession: 'page view of the session',
  viewsOfPage: 'view of the page',
  sessions: 'session',
} as const;

const INTERACTION_WORDS: Readonly<Record<'click' | 'hover' | 'focus', (on: string) => string>> = {
  click: (on) => `on a click on ${on}`,
  hover: (on) => `on a hover over ${on}`,
  focus: (on) => `when ${on} takes the focus`,
};

/** One trigger as the sentence says it. */
export function triggerWords(trigger: Trigger): string {
  switch (trigger.kind) {
    case 'load':
      return trigger.when === 'ready' ? 'when the page is ready' : 'when the page has loaded';
    case 'time':
      return trigger.seconds === 0 ? 'at once' : `after ${quantity(trigger.seconds, 'second')}`;
    case 'sessionTime':
      return `after ${quantity(trigger.seconds, 'second')} in the session`;
    case 'scroll':
      return trigger.unit === 'percent'
        ? `after ${trigger.amount} % of the page`
        : `after ${quantity(trigger.amount, 'pixel')} of the page`;
    case 'element':
      return `on reaching ${quoted(trigger.selector)}`;
    case 'articleEnd':
      return 'at the end of the article';
    case 'exitMouse':
      return LEAVING_BY_MOUSE[trigger.certainty];
    case 'exitTouch':
      return trigger.by === 'scrollUp' ? 'on a quick scroll up by touch' : 'on the back gesture';
    case 'tabReturn':
      return 'on coming back to the tab';
    case 'inactivity':
      return `after ${quantity(trigger.seconds, 'second')} of inactivity`;
    case 'interact':
      return INTERACTION_WORDS[trigger.what](quoted(trigger.selector));
    case 'count':
      return `from the ${ordinal(trigger.atLeast)} ${COUNTED[trigger.of]} onwards`;
    case 'event': {
      const { condition } = trigger;
      const value =
        condition && (typeof condition.value === 'string' ? quoted(condition.value) : condition.value);
      const having = condition
        ? ` with ${quoted(condition.path)} ${COMPARISON_WORDS[condition.comparison]} ${value}`
        : '';
      return `on the event ${quoted(trigger.name)}${having}`;
    }
    case 'hand':
      return 'when the page asks for it';
  }
}
