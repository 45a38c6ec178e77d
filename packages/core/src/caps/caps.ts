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

/** What a visitor's past has against a showing. */
export interface CapObjection {
  readonly code: 'cap.converted' | 'cap.refused' | 'cap.closed' | 'cap.unanswered' | 'cap.showings';
  /** First instant (epoch milliseconds) at which this reason is gone; `null` when time alone never lifts it. */
  readonly retryAtMs: number | null;
}

/**
 * Decides whether a visitor who has seen a campaign may see it again. Windows roll and are measured from the
 * showing; a showing exactly as old as the window no longer counts. Instants in the future count too: a clock
 * set back must not lift a cap.
 *
 * @returns What speaks against it, the first reason of several; nothing when it may.
 */
export function decideCaps(
  rule: CapRule,
  memory: CampaignMemory | undefined,
  { nowMs, session }: { readonly nowMs: number; readonly session: string },
): CapObjection | undefined {
  if (!memory) return undefined;
  /** A pause since something, if it is not over; `sinceIn` is missing for what was counted in another epoch. */
  const during = (
    code: CapObjection['code'],
    pause: Pause,
    sinceMs: number | undefined,
    sinceIn: string | undefined,
  ): CapObjection | undefined => {
    if (sinceMs === undefined || sinceIn === undefined || pause === 'none') return undefined;
    const retryAtMs = typeof pause === 'string' ? null : sinceMs + spanMs(pause);
    const isOver = pause === 'session' ? sinceIn !== session : retryAtMs !== null && nowMs >= retryAtMs;
    return isOver ? undefined : { code, retryAtMs };
  };
  /** `undefined` while a cap has room; else when it reopens, or `null` for never by time alone. */
  const reopening = ({ max, per }: Cap): number | null | undefined => {
    if (per === 'ever') return memory.showings >= max ? null : undefined;
    if (per === 'session')
      return memory.shownIn === session && memory.showingsInSession >= max ? null : undefined;
    const windowMs = spanMs(per);
    const blockingAtMs = memory.shownAtMs.filter((atMs) => nowMs - atMs < windowMs).sort((a, b) => b - a)[
      max - 1
    ];
    return blockingAtMs === undefined ? undefined : blockingAtMs + windowMs;
  };
  const converted = during('cap.converted', rule.afterConversion, memory.convertedAtMs, memory.convertedIn);
  if (converted || memory.epoch !== rule.epoch) return converted;
  const paused =
    during('cap.refused', rule.afterNo, memory.refusedAtMs, memory.refusedIn) ??
    during('cap.closed', rule.afterClose, memory.closedAtMs, memory.closedIn);
  if (paused) return paused;
  // A visitor who leaves message after message without an answer has given one.
  if (rule.stopAfterUnanswered !== null && memory.unanswered >= rule.stopAfterUnanswered)
    return { code: 'cap.unanswered', retryAtMs: null };
  const reopenings = rule.caps.map(reopening).filter((atMs) => atMs !== undefined);
  // Every cap must have lifted: the latest of them decides, and one that never lifts decides for good.
  return reopenings.length > 0
    ? {
        code: 'cap.showings',
        retryAtMs: reopenings.includes(null) ? null : Math.max(...(reopenings as number[])),
      }
    : undefined;
}
