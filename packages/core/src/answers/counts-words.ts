import type { PersonState } from '@velarium/contract';
import { counted, figure } from '../sentence/words.ts';

/** How a site's people stand, in words; empty where nobody was asked to confirm or has left. */
export function standingWords(people: Readonly<Record<PersonState, number>>, expired: number): string {
  const asked = people.waiting - expired;
  return [
    ...(people.confirmed > 0 ? [`${counted(people.confirmed, 'person', 'people')} confirmed`] : []),
    ...(asked > 0 ? [`${figure(asked)} asked to confirm`] : []),
    ...(expired > 0 ? [`${figure(expired)} did not confirm in time`] : []),
    ...(people.left > 0 ? [`${figure(people.left)} left`] : []),
  ].join(', ');
}

/** What bars of the same kind come to together, and the highest of them; at least 1, so that it can be divided by. */
export const barsOf = (values: readonly number[]): { readonly sum: number; readonly most: number } => ({
  sum: values.reduce((all, one) => all + one, 0),
  most: Math.max(1, ...values),
});
