import type { Cap, Pause } from '@velarium/contract';
import type { CampaignMemory } from '../visit/memory.ts';
import { spanMs } from './span.ts';

/** The parts of a campaign's limits that look at what this visitor has already seen. */
export interface CapRule {
  readonly caps: readonly Cap[];
  readonly afterClose: Pause;
  readonly afterNo: Pause;
  readonly afterConversion: Pause;
  readonly stopAfterUnanswered: number | null;
  /** Counting began afresh with it: what was counted in another epoch no longer holds, conversions excepted. */
  readonly epoch: number;
}

export type CapDecision =
  | { readonly isAllowed: true }
  | {
      readonly isAllowed: false;
      readonly code: 'cap.converted' | 'cap.refused' | 'cap.closed' | 'cap.unanswered' | 'cap.showings';
      /** First instant (epoch milliseconds) at which this reason is gone; `null` when time alone never lifts it. */
      readonly retryAtMs: number | null;
    };

const ALLOWED: CapDecision = { isAllowed: true };

/**
 * Decides whether a visitor who has seen a campaign may see it again. Windows roll and are measured from the
 * showing; a showing exactly as old as the window no longer counts. Instants in the future count too: a clock
 * set back must not lift a cap.
 */
export function decideCaps(
  rule: CapRule,
  memory: CampaignMemory | undefined,
  now: { readonly nowMs: number; readonly session: string },
): CapDecision {
  if (!memory) return ALLOWED;
  const isCounted = memory.epoch === rule.epoch;
  return (
    decidePause('cap.converted', rule.afterConversion, memory.convertedAtMs, memory.convertedIn, now) ??
    (isCounted
      ? (decidePause('cap.refused', rule.afterNo, memory.refusedAtMs, memory.refusedIn, now) ??
        decidePause('cap.closed', rule.afterClose, memory.closedAtMs, memory.closedIn, now) ??
        decideUnanswered(rule.stopAfterUnanswered, memory) ??
        decideShowings(rule.caps, memory, now))
      : undefined) ??
    ALLOWED
  );
}

function decidePause(
  code: 'cap.converted' | 'cap.refused' | 'cap.closed',
  pause: Pause,
  sinceMs: number | undefined,
  /** Missing for what was counted in another epoch. */
  session: string | undefined,
  now: { readonly nowMs: number; readonly session: string },
): CapDecision | undefined {
  if (sinceMs === undefined || session === undefined || pause === 'none') return undefined;
  if (pause === 'ever') return { isAllowed: false, code, retryAtMs: null };
  if (pause === 'session')
    return session === now.session ? { isAllowed: false, code, retryAtMs: null } : undefined;
  const retryAtMs = sinceMs + spanMs(pause);
  return now.nowMs < retryAtMs ? { isAllowed: false, code, retryAtMs } : undefined;
}

/** A visitor who leaves message after message without an answer has given one. */
function decideUnanswered(most: number | null, memory: CampaignMemory): CapDecision | undefined {
  if (most === null || memory.unanswered < most) return undefined;
  return { isAllowed: false, code: 'cap.unanswered', retryAtMs: null };
}

function decideShowings(
  caps: readonly Cap[],
  memory: CampaignMemory,
  now: { readonly nowMs: number; readonly session: string },
): CapDecision | undefined {
  let retryAtMs: number | null = 0;
  let isCapped = false;
  for (const cap of caps) {
    const reopensAtMs = reopening(cap, memory, now);
    if (reopensAtMs === undefined) continue;
    isCapped = true;
    // Every cap must have lifted: the latest of them decides, and one that never lifts decides for good.
    retryAtMs = retryAtMs === null || reopensAtMs === null ? null : Math.max(retryAtMs, reopensAtMs);
  }
  return isCapped ? { isAllowed: false, code: 'cap.showings', retryAtMs } : undefined;
}

/** `undefined` while the cap has room; else when it reopens, or `null` for never by time alone. */
function reopening(
  { max, per }: Cap,
  memory: CampaignMemory,
  now: { readonly nowMs: number; readonly session: string },
): number | null | undefined {
  if (per === 'ever') return memory.showings >= max ? null : undefined;
  if (per === 'session') {
    return memory.shownIn === now.session && memory.showingsInSession >= max ? null : undefined;
  }
  const windowMs = spanMs(per);
  const counted = memory.shownAtMs.filter((atMs) => now.nowMs - atMs < windowMs).sort((a, b) => b - a);
  const blockingAtMs = counted[max - 1];
  return blockingAtMs === undefined ? undefined : blockingAtMs + windowMs;
}
