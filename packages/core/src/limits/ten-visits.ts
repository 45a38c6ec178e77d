import type { Limits } from '@velarium/contract';
import { decideCaps } from '../caps/caps.ts';
import {
  type Memory,
  NO_ARRIVAL,
  newMemory,
  rememberClosed,
  rememberConverted,
  rememberRefused,
  rememberShown,
  touchSession,
} from '../visit/memory.ts';

/** What an imagined visitor does each time the message is shown. */
export type Reply = 'closes' | 'refuses' | 'converts' | 'ignores';

const MINUTE = 60_000;
const HOUR = 60 * MINUTE;
const DAY = 24 * HOUR;

/** Ten visits that ask of caps what people ask of them: at once again, later, the next day, weeks after. */
export const TEN_VISITS: readonly { readonly afterMs: number; readonly words: string }[] = [
  { afterMs: 0, words: 'first visit' },
  { afterMs: 10 * MINUTE, words: '10 minutes later' },
  { afterMs: 2 * HOUR, words: 'two hours later' },
  { afterMs: DAY, words: 'next day' },
  { afterMs: DAY + HOUR, words: 'an hour after' },
  { afterMs: 3 * DAY, words: 'two days on' },
  { afterMs: 7 * DAY, words: 'after a week' },
  { afterMs: 14 * DAY, words: 'after two weeks' },
  { afterMs: 31 * DAY, words: 'after a month' },
  { afterMs: 90 * DAY, words: 'after three months' },
];

export interface ImaginedVisit {
  readonly words: string;
  readonly isShown: boolean;
  /** What stands in the way; `null` when it is shown. */
  readonly code: string | null;
}

type CapLimits = Pick<Limits, 'caps' | 'afterClose' | 'afterNo' | 'afterConversion' | 'stopAfterUnanswered'>;
const CAMPAIGN = 'campaign';

/** At which of the ten visits one visitor would be shown the campaign, if nothing but these limits decided. */
export function imagineVisits(limits: CapLimits, reply: Reply, sessionMinutes: number): ImaginedVisit[] {
  let sessions = 0;
  const ids = { visitor: () => 'visitor', session: () => `session ${++sessions}` };
  const rule = { ...limits, epoch: 0, id: CAMPAIGN };
  let memory: Memory = newMemory(ids, 0, NO_ARRIVAL);
  return TEN_VISITS.map(({ afterMs, words }) => {
    memory = touchSession(memory, afterMs, sessionMinutes, ids, NO_ARRIVAL);
    const now = { nowMs: afterMs, session: memory.session.id };
    const objection = decideCaps(rule, memory.campaigns[CAMPAIGN], now);
    if (objection) return { words, isShown: false, code: objection.code };
    memory = rememberShown(memory, rule, afterMs);
    if (reply === 'closes') memory = rememberClosed(memory, CAMPAIGN, afterMs);
    if (reply === 'refuses') memory = rememberRefused(memory, CAMPAIGN, afterMs);
    if (reply === 'converts') memory = rememberConverted(memory, CAMPAIGN, afterMs);
    return { words, isShown: true, code: null };
  });
}
