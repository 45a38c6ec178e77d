import { useQuery } from '@tanstack/react-query';
import type { Delivery, DeliveryFilter } from '@velarium/contract';
import { deliveryKindWords, figure } from '@velarium/core';
import { deliveryTriesQuery } from '../api/deliveries.ts';
import { Dialog } from '../ui/dialog.tsx';
import { ErrorState, Skeleton } from '../ui/states.tsx';
import { when } from '../ui/when.ts';
import { StateWord } from './state-word.tsx';

interface DeliverySheetProps {
  readonly siteId: string;
  readonly delivery: Delivery;
  readonly of: DeliveryFilter['of'];
  readonly onClose: () => void;
}

/** The fate of one delivery: every try with what came back, and what was sent to the byte. */
export function DeliverySheet({ siteId, delivery, of, onClose }: DeliverySheetProps) {
  const { data, error, refetch } = useQuery(deliveryTriesQuery(siteId, delivery.id, of));
  return (
    <Dialog
      isOpen
      onClose={onClose}
      title={deliveryKindWords(delivery.kind)}
      description={`To ${delivery.connection ?? delivery.recipient}`}
      className="w-[min(94vw,52rem)]"
    >
      <div className="grid gap-4">
        <div>
          <StateWord delivery={delivery} />
          <p className="text-xs text-soft">Its id, the same over all tries: {delivery.id}</p>
        </div>
        {error && !data ? (
          <ErrorState error={error} onRetry={() => void refetch()} />
        ) : !data ? (
          <Skeleton rows={2} label="Loading its tries" />
        ) : (
          <>
            <section>
              <h3 className="pb-1 font-serif text-lg">Tries</h3>
              {data.tries.length === 0 ? (
                <p className="text-soft">None yet.</p>
              ) : (
                <ol className="grid gap-2">
                  {data.tries.map(({ at, words, milliseconds, answer }) => (
                    <li key={at} className="border-l-2 border-line-strong pl-2">
                      <span className="text-soft">{when.format(new Date(at))}</span> {words}{' '}
                      <span className="text-soft">{figure(milliseconds)} ms</span>
                      {answer && <Written label="What came back" text={answer} />}
                    </li>
                  ))}
                </ol>
              )}
            </section>
            {data.sent && (
              <section>
                <h3 className="pb-1 font-serif text-lg">What was sent</h3>
                <p className="pb-1 text-xs text-soft">
                  To the byte; secrets and links that act for somebody are covered.
                </p>
                <Written label="What was sent" text={data.sent} />
              </section>
            )}
          </>
        )}
      </div>
    </Dialog>
  );
}

/** Bytes as they are, never taken for anything but text. */
export const Written = ({ label, text }: { readonly label: string; readonly text: string }) => (
  <section
    aria-label={label}
    // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls can be scrolled by keys
    tabIndex={0}
    className="max-h-64 overflow-auto rounded border border-line bg-sheet p-2 font-mono text-xs whitespace-pre-wrap break-all"
  >
    {text}
  </section>
);
