import { useInfiniteQuery, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { Delivery, DeliveryFilter, DeliveryState, MoveDeliveries } from '@velarium/contract';
import { DELIVERY_KINDS, DELIVERY_STATES } from '@velarium/contract/values';
import { counted, deliveryKindWords, deliveryStateWords, figure } from '@velarium/core';
import { useDeferredValue, useState } from 'react';
import {
  type AskedDeliveries,
  connectionsQuery,
  deliveriesQuery,
  moveDeliveries,
} from '../api/deliveries.ts';
import { useSession } from '../app/use-session.ts';
import { Button } from '../ui/button.tsx';
import { Field } from '../ui/field.tsx';
import { Menu } from '../ui/menu.tsx';
import { Popover } from '../ui/popover.tsx';
import { SearchField } from '../ui/search-field.tsx';
import { Segments } from '../ui/segments.tsx';
import { Select } from '../ui/select.tsx';
import { EmptyState, ErrorState, Skeleton } from '../ui/states.tsx';
import { type Column, Table } from '../ui/table.tsx';
import { tell, tellProblem } from '../ui/toast.tsx';
import { when } from '../ui/when.ts';
import { DeliverySheet } from './delivery-sheet.tsx';
import { StateWord } from './state-word.tsx';

const ANY = 'any';
const EVERY = 'every';

/** What went and will go out, newest first: looked for, sent again, stopped. */
export function DeliveriesSection({ siteId }: { readonly siteId: string }) {
  const queryClient = useQueryClient();
  const [typed, setTyped] = useState<AskedDeliveries>({});
  const filter = useDeferredValue(typed);
  const isOwner = useSession()?.role === 'owner';
  const of: DeliveryFilter['of'] = filter.of ?? 'site';
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const [open, setOpen] = useState<Delivery | null>(null);
  const { data: connections = [] } = useQuery(connectionsQuery(siteId));
  const { data, error, refetch, hasNextPage, fetchNextPage, isFetchingNextPage } = useInfiniteQuery({
    ...deliveriesQuery(siteId, filter),
    refetchInterval: 3000,
    placeholderData: (old) => old,
  });
  const move = useMutation({
    mutationFn: (body: Partial<MoveDeliveries>) => moveDeliveries(siteId, { ...body, of }),
    onSuccess: ({ count }, { move: made }) => {
      void queryClient.invalidateQueries({ queryKey: ['sites', siteId, 'deliveries'] });
      setChosen(new Set());
      tell(
        `${counted(count, 'delivery', 'deliveries')} ${made === 'again' ? 'will be sent again' : 'stopped'}.`,
      );
    },
    onError: tellProblem,
  });
  if (error && !data) return <ErrorState error={error} onRetry={() => void refetch()} />;
  if (!data) return <Skeleton rows={6} label="Loading what goes out" />;
  const deliveries = data.pages.flatMap((page) => page.deliveries);
  const counts = data.pages[0]?.counts;
  // What a filter has taken out of sight is not acted on.
  const ids = deliveries.map(({ id }) => id).filter((id) => chosen.has(id));
  const toggle = (id: string) => {
    const next = new Set(chosen);
    if (!next.delete(id)) next.add(id);
    setChosen(next);
  };
  const isAsked = Object.values({ ...filter, of: '' }).some(Boolean);
  const columns: readonly Column<Delivery>[] = [
    {
      head: 'Choose',
      cell: ({ id, recipient }) => (
        <input
          type="checkbox"
          aria-label={`Choose what goes to ${recipient}`}
          className="size-4 accent-sail"
          checked={chosen.has(id)}
          onChange={() => toggle(id)}
        />
      ),
    },
    {
      head: 'What',
      cell: (delivery) => (
        <button
          type="button"
          className="text-left font-medium underline-offset-4 hover:underline"
          onClick={() => setOpen(delivery)}
        >
          {deliveryKindWords(delivery.kind)}
        </button>
      ),
    },
    {
      head: 'To',
      cell: ({ recipient, connection, about }) => (
        <>
          {connection ?? recipient}
          {about && about !== recipient && <span className="block text-xs text-soft">about {about}</span>}
        </>
      ),
    },
    { head: 'State', cell: (delivery) => <StateWord delivery={delivery} /> },
    { head: 'Written down', cell: ({ createdAt }) => when.format(new Date(createdAt)) },
    { head: 'Tries', cell: ({ tries }) => figure(tries), isNumber: true },
  ];
  return (
    <>
      <search className="flex flex-wrap items-center gap-2 pb-3">
        <SearchField
          label="Search what goes out"
          placeholder="Address or what was answered"
          value={typed.q ?? ''}
          onChange={(q) => setTyped({ ...typed, q })}
        />
        {isOwner && (
          <Segments
            label="Whose"
            isLabelHidden
            value={typed.of ?? 'site'}
            options={[
              { value: 'site', label: 'Of the site' },
              { value: 'team', label: 'To the team' },
            ]}
            onChange={(whose) => setTyped({ ...typed, of: whose })}
          />
        )}
        <Select
          label="State"
          isLabelHidden
          className="w-52"
          value={typed.state ?? EVERY}
          options={[
            { value: EVERY, label: 'In every state' },
            ...DELIVERY_STATES.map((state) => ({
              value: state as string,
              label:
                state === 'sent'
                  ? deliveryStateWords(state)
                  : `${deliveryStateWords(state)} (${figure(counts?.[state] ?? 0)})`,
            })),
          ]}
          onChange={(state) =>
            setTyped({
              ...typed,
              state: state === EVERY ? undefined : (state as DeliveryState),
            } as AskedDeliveries)
          }
        />
        <Select
          label="Kind"
          isLabelHidden
          className="w-56"
          value={typed.kind ?? ANY}
          options={[
            { value: ANY, label: 'Of any kind' },
            ...DELIVERY_KINDS.map((kind) => ({ value: kind as string, label: deliveryKindWords(kind) })),
          ]}
          onChange={(kind) =>
            setTyped({ ...typed, kind: kind === ANY ? undefined : kind } as AskedDeliveries)
          }
        />
        {connections.length > 0 && (
          <Select
            label="Connection"
            isLabelHidden
            className="w-44"
            value={typed.connection ?? ANY}
            options={[
              { value: ANY, label: 'Any way' },
              ...connections.map(({ id, settings }) => ({ value: id, label: settings.name })),
            ]}
            onChange={(id) =>
              setTyped({ ...typed, connection: id === ANY ? undefined : id } as AskedDeliveries)
            }
          />
        )}
        <Popover
          label="Days"
          trigger={<Button>{typed.from || typed.until ? 'Days chosen' : 'Any day'}</Button>}
        >
          <div className="grid gap-2">
            {(['from', 'until'] as const).map((end) => (
              <Field
                key={end}
                label={end === 'from' ? 'From' : 'Until'}
                type="date"
                value={typed[end] ?? ''}
                onChange={(event) => setTyped({ ...typed, [end]: event.target.value || undefined })}
              />
            ))}
          </div>
        </Popover>
        {isAsked && (
          <Button tone="quiet" onClick={() => setTyped({ of })}>
            Show everything
          </Button>
        )}
        <div className="ml-auto flex gap-2">
          {ids.length > 0 ? (
            <>
              <Button isBusy={move.isPending} onClick={() => move.mutate({ move: 'again', ids })}>
                Send again ({ids.length})
              </Button>
              <Button isBusy={move.isPending} onClick={() => move.mutate({ move: 'stop', ids })}>
                Stop ({ids.length})
              </Button>
            </>
          ) : (
            (counts?.givenUp ?? 0) + (counts?.retrying ?? 0) > 0 && (
              <Menu
                items={(['givenUp', 'retrying'] as const).map((state) => ({
                  label: state === 'givenUp' ? 'What was given up' : 'What failed and tries again later',
                  onSelect: () =>
                    move.mutate({ move: 'again', filter: { ...filter, of, q: filter.q ?? '', state } }),
                }))}
              >
                <Button isBusy={move.isPending}>Send again all of these …</Button>
              </Menu>
            )
          )}
        </div>
      </search>
      {deliveries.length === 0 ? (
        isAsked ? (
          <EmptyState title="Nothing like that" drawing="lens">
            Nothing that went out fits what you look for.
          </EmptyState>
        ) : (
          <EmptyState title="Nothing has gone out" drawing="letters">
            Mails after an answer, notices to your team and events to other services will be listed here, each
            with its fate. Say what follows an answer at the form of a message, and whom to tell under
            Connections.
          </EmptyState>
        )
      ) : (
        <Table caption="What goes out" columns={columns} rows={deliveries} keyOf={({ id }) => id} />
      )}
      {hasNextPage && (
        <div className="pt-3 text-center">
          <Button isBusy={isFetchingNextPage} onClick={() => void fetchNextPage()}>
            Show older ones
          </Button>
        </div>
      )}
      {open && <DeliverySheet siteId={siteId} delivery={open} of={of} onClose={() => setOpen(null)} />}
    </>
  );
}
