import type { PersonState } from '@velarium/contract';

/** What happens to a person's standing. */
export type PersonDeed = 'answered' | 'askedToConfirm' | 'confirmed' | 'left';

/**
 * How a person stands after a deed. Whoever has left stays so whatever they answer: nothing at all is sent to them. A
 * confirmation once given is not asked for again.
 */
export function nextPersonState(state: PersonState | null, deed: PersonDeed): PersonState {
  if (deed === 'left' || state === 'left') return 'left';
  if (deed === 'confirmed' || state === 'confirmed') return 'confirmed';
  if (deed === 'askedToConfirm') return 'waiting';
  return state ?? 'agreed';
}

/** Whether anything may be sent to somebody who stands so; to those who are waiting nothing but the confirmation. */
export const mayBeWrittenTo = (state: PersonState, isConfirmation: boolean): boolean =>
  state === 'waiting' ? isConfirmation : state !== 'left' && !(isConfirmation && state === 'confirmed');

const STATE_WORDS: Readonly<Record<PersonState, string>> = {
  agreed: 'agreed',
  waiting: 'asked to confirm',
  confirmed: 'confirmed',
  left: 'left',
};
export const personStateWords = (state: PersonState, hasExpired = false): string =>
  hasExpired && state === 'waiting' ? 'did not confirm in time' : STATE_WORDS[state];
