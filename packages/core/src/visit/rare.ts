export type { UserAgent } from '../devices/browser.ts';

import { assign } from '../assignment/assign.ts';
import { browserOf, systemOf } from '../devices/browser.ts';
import { joinMemory } from './join-memory.ts';
import { scheduleVerdict } from './schedule-verdict.ts';

/** What fewer sites still use: schedules, experiments and holdouts, kinds of browsers, memory that waits for consent. */
export const RARE = { assign, browserOf, systemOf, joinMemory, scheduleVerdict } as const;
export type Rare = typeof RARE;
