import type { ManifestGoal } from '@velarium/contract';
import { isAsAsked, valueAt } from '../triggers/event-data.ts';

/** What an event was worth at most; more is no price. */
const MOST = 1e12;

/** A goal that an event has reached, and what it was worth where the page told. */
export interface GoalReached {
  readonly goal: string;
  readonly worth?: number;
}

/**
 * Which goals an event of the page reaches. A worth that is no number, or less than nothing, is left out: the deed was done
 * all the same.
 *
 * @param basketTotal What the basket costs at this moment; `null` where the page has told of none.
 */
export function reachedBy(
  goals: readonly ManifestGoal[],
  event: { readonly name: string; readonly data: unknown },
  basketTotal: number | null,
): GoalReached[] {
  return goals
    .filter(({ name, condition }) => name === event.name && isAsAsked(condition, event.data))
    .map(({ id, worth }) => {
      const value =
        worth?.from === 'data' ? valueAt(event.data, worth.path) : worth?.from === 'basket' && basketTotal;
      return typeof value === 'number' && value >= 0 && value <= MOST
        ? { goal: id, worth: value }
        : { goal: id };
    });
}
