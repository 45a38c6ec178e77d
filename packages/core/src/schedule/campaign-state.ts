import type { CampaignState, Schedule } from '@velarium/contract';
import { nextChange, scheduleState } from './schedule.ts';

export type StoredState = 'draft' | 'running' | 'resting' | 'archived';

export interface DerivedState {
  readonly state: CampaignState;
  /** The next instant (epoch milliseconds) at which its schedule opens or shuts it; `null` for none. */
  readonly nextChangeMs: number | null;
}

/**
 * A campaign's state as people see it. Scheduled and Ended are never stored: a running campaign is Scheduled until
 * its start and Ended from its end on. Between its hours it is Running all the same, with the next change told.
 */
export function deriveState(
  stored: StoredState,
  schedule: Schedule | null,
  nowMs: number,
  zone: string,
): DerivedState {
  if (stored !== 'running' || !schedule) return { state: stored, nextChangeMs: null };
  const now = scheduleState(schedule, nowMs, zone);
  const state = now === 'before' ? 'scheduled' : now === 'after' ? 'ended' : 'running';
  return { state, nextChangeMs: nextChange(schedule, nowMs, zone) };
}
