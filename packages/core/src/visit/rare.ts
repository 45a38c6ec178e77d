export type { UserAgent } from '../devices/browser.ts';
export type { GoalReached } from '../goals/reached-by.ts';
export { createBackGesture, createQuickScroll } from '../page/leaving-by-touch.ts';

import { assign, manifestFor } from '../assignment/assign.ts';
import { browserOf, systemOf } from '../devices/browser.ts';
import { reachedBy } from '../goals/reached-by.ts';
import type { PageKeys } from '../pages/page-key.ts';
import { isOnPage, type PageAddress, pageAddress } from '../pages/page-rule.ts';
import type { Extras } from './extras.ts';
import { joinMemory } from './join-memory.ts';
import { scheduleVerdict } from './schedule-verdict.ts';

/**
 * Reads page rules of every kind. A page is taken apart once for all the rules it is asked about, and a pattern that many
 * campaigns share is tried on it once.
 */
function createRuleReader(): Extras['isAmongPlain'] {
  let of: PageKeys | undefined;
  let page: PageAddress;
  let known = new Map<string, boolean>();
  return (rules, href, keys, facts) => {
    if (of !== keys) {
      of = keys;
      page = pageAddress(href, keys);
      known = new Map();
    }
    return rules.some((rule) => {
      // What the page holds can change while one looks.
      if (rule.kind !== 'program') return isOnPage(rule, page, facts);
      const name = JSON.stringify(rule);
      let isOn = known.get(name);
      if (isOn === undefined) {
        isOn = isOnPage(rule, page, facts);
        known.set(name, isOn);
      }
      return isOn;
    });
  };
}

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
  /** For all kinds of page rules; goes before the one in the extras. */
  isAmong: createRuleReader() as Extras['isAmongPlain'],
} as const;
export type Rare = typeof RARE;
