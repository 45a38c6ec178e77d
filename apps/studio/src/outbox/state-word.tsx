import type { Delivery, DeliveryState } from '@velarium/contract';
import { deliveryStateWords } from '@velarium/core';
import { when } from '../ui/when.ts';

/** A sign beside each state, so that it is told without colour. */
const SIGNS: Readonly<Record<DeliveryState, string>> = {
  waiting: '○',
  retrying: '↻',
  sent: '●',
  givenUp: '✕',
  held: '‖',
  stopped: '■',
};
const TONES: Readonly<Record<DeliveryState, string>> = {
  waiting: 'text-hold',
  retrying: 'text-sail-deep',
  sent: 'text-clear',
  givenUp: 'text-halt',
  held: 'text-hold',
  stopped: 'text-soft',
};

/** How a delivery stands, when something happens next, and what was answered last. */
export function StateWord({ delivery: { state, dueAt, sentAt, words } }: { readonly delivery: Delivery }) {
  const at =
    state === 'sent' && sentAt
      ? when.format(new Date(sentAt))
      : state === 'waiting' || state === 'retrying'
        ? `${state === 'retrying' ? 'at' : 'for'} ${when.format(new Date(dueAt))}`
        : '';
  return (
    <>
      <span className={TONES[state]}>
        <span aria-hidden="true" className="mr-1.5 inline-block w-3">
          {SIGNS[state]}
        </span>
        {deliveryStateWords(state)}
      </span>{' '}
      <span className="text-soft">{at}</span>
      {words && state !== 'sent' && <span className="block max-w-md text-xs text-soft">{words}</span>}
    </>
  );
}
