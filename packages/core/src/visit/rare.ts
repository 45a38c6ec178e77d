export type { UserAgent } from '../devices/browser.ts';
export type { GoalReached } from '../goals/reached-by.ts';
export { createBackGesture, createQuickScroll } from '../page/leaving-by-touch.ts';

import { assign, manifestFor } from '../assignment/assign.ts';
import { browserOf, systemOf } from '../devices/browser.ts';
import { reachedBy } from '../goals/reached-by.ts';
import { isOnPage, pageAddress } from '../pages/page-rule.ts';
import type { Extras } from './extras.ts';
import { joinMemory } from './join-memory.ts';
import { scheduleVerdict } from './schedule-verdict.ts';

/**
 * What fewer sites still use: goals, schedules, experiments and holdouts, kinds of browsers, leaving by touch, page rules that take
 * an address apart, memory that waits for consent.
 */
export const RARE = {
  assign,
  manifestFor,
  browserOf,
  systemOf,
  reachedBy,
  joinMemory,
  scheduleVerdict,
  /** Takes the place of the one in the extras, for all kinds of page rules. */
  isAmong: ((rules, href, keys, facts) => {
    const page = pageAddress(href, keys);
    return rules.some((rule) => isOnPage(rule, page, facts));
  }) as Extras['isAmong'],
} as const;
export type Rare = typeof RARE;
