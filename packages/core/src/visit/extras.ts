import type { CompiledPageRule } from '@velarium/contract';
import { isInAudience } from '../audience/audience.ts';
import type { PageKeys } from '../pages/page-key.ts';
import { isOnPage, type PageFacts, pageAddress } from '../pages/page-rule.ts';
import { nextChange, scheduleState } from '../schedule/schedule.ts';
import { isMetBy } from '../triggers/trigger.ts';

/**
 * The laws that many sites never use: triggers beyond time, audiences, schedules, page rules beyond exact pages. The tag loads them
 * only for a manifest that asks for them; everybody else takes {@link EXTRAS} as they are.
 */
export const EXTRAS = {
  isMetBy,
  isInAudience,
  scheduleState,
  nextChange,
  isAmong(rules: readonly CompiledPageRule[], keys: PageKeys, facts: PageFacts): boolean {
    const page = pageAddress(keys);
    return rules.some((rule) => isOnPage(rule, page, facts));
  },
} as const;
export type Extras = typeof EXTRAS;
