import type { Audience, CompiledPageRule } from '@velarium/contract';
import { isInAudience } from '../audience/audience.ts';
import type { PageKeys } from '../pages/page-key.ts';
import { isOnPage, type PageFacts, pageAddress } from '../pages/page-rule.ts';
import { isMetBy } from '../triggers/trigger.ts';
import type { Memory } from './memory.ts';
import { type PageViewFacts, visitorFacts } from './visitor-facts.ts';

/**
 * The laws that many sites never use: triggers beyond time, audiences, page rules beyond exact pages. The tag loads them
 * only for a manifest that asks for them; everybody else takes {@link EXTRAS} as they are.
 */
export const EXTRAS = {
  isMetBy,
  isInAudience: (audience: Audience, memory: Memory, told: PageViewFacts, campaign: string): boolean =>
    isInAudience(audience, visitorFacts(memory, told), campaign),
  isAmong(rules: readonly CompiledPageRule[], href: string, keys: PageKeys, facts: PageFacts): boolean {
    const page = pageAddress(href, keys);
    return rules.some((rule) => isOnPage(rule, page, facts));
  },
} as const;
export type Extras = typeof EXTRAS;
