import type { Moment, Trigger } from '@velarium/contract';

/**
 * The trigger that opens a message: of several the first that has happened; of those that are needed all together none by itself.
 *
 * @param left Milliseconds until each has happened by time alone; 0 where it has.
 */
export const causeOf = (
  { join, triggers }: Pick<Moment, 'join' | 'triggers'>,
  left: readonly number[],
): Trigger['kind'] | undefined =>
  join === 'any' || triggers.length === 1 ? triggers[left.indexOf(0)]?.kind : undefined;
