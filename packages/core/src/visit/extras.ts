import type { Audience, CompiledPageRule } from '@velarium/contract';
import { isInAudience } from '../audience/audience.ts';
import type { PageKeys } from '../pages/page-key.ts';
import { isOnPageItself, type PageFacts } from '../pages/plain-page-rule.ts';
import { isMetBy } from '../triggers/trigger.ts';
import type { Memory } from './memory.ts';
import { type PageViewFacts, visitorFacts } from './visitor-facts.ts';

/** What was asked about last: many campaigns ask about one visitor. */
let asked: [Memory, PageViewFacts, ReturnType<typeof visitorFacts>] | undefined;
function factsOf(memory: Memory, told: PageViewFacts) {
  if (asked?.[0] !== memory || asked[1] !== told) asked = [memory, told, visitorFacts(memory, told)];
  return asked[2];
}

/**
 * The laws that many sites never use: triggers beyond time, audiences, page rules beyond addresses. The tag loads them
 * only for a manifest that asks for them; everybody else takes {@link EXTRAS} as they are.
 */
export const EXTRAS = {
  isMetBy,
  isInAudience: (audience: Audience, memory: Memory, told: PageViewFacts, campaign: string): boolean =>
    isInAudience(audience, factsOf(memory, told), campaign),
  isAmongPlain: (
    rules: readonly CompiledPageRule[],
    _href: string,
    _keys: PageKeys,
    facts: PageFacts,
  ): boolean => rules.some((rule) => isOnPageItself(rule, facts)),
} as const;
export type Extras = typeof EXTRAS;
