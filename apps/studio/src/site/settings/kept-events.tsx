import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { Site } from '@velarium/contract';
import { LEAST_EVENT_DAYS } from '@velarium/contract/values';
import { counted } from '@velarium/core';
import { keepEvents, keptEventsQuery } from '../../api/queries.ts';
import { useSession } from '../../app/use-session.ts';
import { KeptFor } from '../../ui/kept-for.tsx';
import { tell, tellProblem } from '../../ui/toast.tsx';

/** What is offered first: a year, and a month of the next to hold against it. */
const FIRST_DAYS = 396;

/** How long single events are kept. Said by itself, not with the form beside it: what has gone does not come back. */
export function KeptEvents({ site }: { readonly site: Site }) {
  const isOwner = useSession()?.role === 'owner';
  const queryClient = useQueryClient();
  const { data: kept } = useQuery(keptEventsQuery(site.id));
  const keep = useMutation({
    mutationFn: (days: number | null) => keepEvents(site.id, { days }),
    onSuccess: (_nothing, days) => {
      queryClient.setQueryData(keptEventsQuery(site.id).queryKey, { days });
      tell(
        days === null
          ? 'Single events are kept for ever.'
          : `Single events are kept for ${counted(days, 'day')}.`,
      );
    },
    onError: tellProblem,
  });
  return (
    <section aria-label="What is kept" className="grid gap-3">
      <h2 className="font-serif text-xl">What is kept</h2>
      <fieldset disabled={!isOwner || !kept} className="grid gap-3">
        <KeptFor
          what="single events"
          hint="Who saw what at which second. Older ones are removed within the hour and cannot be had back. Results were counted from them and do not change."
          days={kept?.days}
          first={FIRST_DAYS}
          min={LEAST_EVENT_DAYS}
          isBusy={keep.isPending}
          onKeep={(days) => keep.mutate(days)}
        />
      </fieldset>
      <p className="text-soft">
        Days of visitors with campaigns go after 13 months, visits after one.
        {!isOwner && ' An owner of the workspace may change it.'}
      </p>
    </section>
  );
}
