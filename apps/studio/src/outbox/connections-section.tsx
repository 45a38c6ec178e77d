import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { Connection, ShownSecret } from '@velarium/contract';
import { barsOf, counted, toldEventWords } from '@velarium/core';
import { useState } from 'react';
import {
  connectionsQuery,
  dropOldSecret,
  removeConnection,
  renewSecret,
  sendEarlier,
  setConnectionState,
} from '../api/deliveries.ts';
import { Button, IconButton } from '../ui/button.tsx';
import { Dialog } from '../ui/dialog.tsx';
import { Menu } from '../ui/menu.tsx';
import { ShownOnce } from '../ui/shown-once.tsx';
import { EmptyState, ErrorState, Skeleton } from '../ui/states.tsx';
import { tell, tellProblem } from '../ui/toast.tsx';
import { when } from '../ui/when.ts';
import { ConnectionDialog } from './connection-dialog.tsx';

type Editing = { readonly connection: Connection | null };

/** Other services that are told by themselves of what happens on the site. */
export function ConnectionsSection({ siteId }: { readonly siteId: string }) {
  const queryClient = useQueryClient();
  const { data, error, refetch } = useQuery({ ...connectionsQuery(siteId), refetchInterval: 5000 });
  const [editing, setEditing] = useState<Editing | null>(null);
  const [shown, setShown] = useState<string | null>(null);
  const [leaving, setLeaving] = useState<Connection | null>(null);
  const reload = () => queryClient.invalidateQueries({ queryKey: connectionsQuery(siteId).queryKey });
  const act = useMutation({
    mutationFn: ({ run }: { run: () => Promise<unknown>; done: string }) => run(),
    onSuccess: (_result, { done }) => {
      void reload();
      tell(done);
    },
    onError: tellProblem,
  });
  const earlier = useMutation({
    mutationFn: (id: string) => sendEarlier(siteId, id),
    onSuccess: ({ count }) => {
      void reload();
      tell(
        count === 0
          ? 'It has heard of every answer already.'
          : `${counted(count, 'answer')} that it had not heard of ${count === 1 ? 'is' : 'are'} on the way.`,
      );
    },
    onError: tellProblem,
  });
  const renew = useMutation({
    mutationFn: (id: string) => renewSecret(siteId, id),
    onSuccess: ({ secret }) => {
      void reload();
      setShown(secret);
    },
    onError: tellProblem,
  });
  const onMade = ({ secret }: Pick<ShownSecret, 'secret'>) => {
    setEditing(null);
    void reload();
    setShown(secret);
    if (!secret) tell('Saved.');
  };
  if (error && !data) return <ErrorState error={error} onRetry={() => void refetch()} />;
  if (!data) return <Skeleton rows={3} label="Loading connections" />;
  const add = (
    <Button tone="main" onClick={() => setEditing({ connection: null })}>
      Connect a service
    </Button>
  );
  return (
    <>
      {data.length === 0 ? (
        <EmptyState title="No other service is told" drawing="wires" action={add}>
          A connection tells your customer records, or any other address, when somebody answers, confirms or
          leaves.
        </EmptyState>
      ) : (
        <>
          <div className="flex justify-end pb-3">{add}</div>
          <ul aria-label="Connections" className="border-t border-line-strong">
            {data.map((connection) => {
              const { id, settings, state, words, lastGoodAt, waiting, secrets } = connection;
              return (
                <li
                  key={id}
                  className="grid grid-cols-[minmax(0,1fr)_15rem_auto] items-center gap-5 border-b border-line py-3"
                >
                  <div className="min-w-0">
                    <p>
                      <button
                        type="button"
                        className="font-medium underline-offset-4 hover:underline"
                        onClick={() => setEditing({ connection })}
                      >
                        {settings.name}
                      </button>{' '}
                      <span className="text-soft">
                        {settings.kind === 'events' ? 'signed events' : 'a request shaped by hand'}
                      </span>
                      {state === 'resting' && <span className="ml-2 text-halt">‖ rests</span>}
                    </p>
                    <p className="truncate text-soft">{settings.address}</p>
                    <p className="text-xs text-soft">
                      When {settings.events.map(toldEventWords).join(', ')}
                      {settings.campaigns
                        ? `; of ${counted(settings.campaigns.length, 'campaign')} only`
                        : ''}
                      .
                    </p>
                    {words && <p className="text-halt">{words}</p>}
                  </div>
                  <div>
                    <HealthStrip hours={connection.hours} />
                    <p className="text-xs text-soft">
                      {lastGoodAt ? `Last taken ${when.format(new Date(lastGoodAt))}` : 'Nothing taken yet'}
                      {waiting > 0 ? `, ${counted(waiting, 'waits', 'wait')}` : ''}
                    </p>
                  </div>
                  <div className="flex gap-1">
                    <Button
                      onClick={() =>
                        act.mutate(
                          state === 'on'
                            ? {
                                run: () => setConnectionState(siteId, id, 'resting'),
                                done: `“${settings.name}” rests. What is for it is held.`,
                              }
                            : {
                                run: () => setConnectionState(siteId, id, 'on'),
                                done: `“${settings.name}” is on. What was held goes out now.`,
                              },
                        )
                      }
                    >
                      {state === 'on' ? 'Rest' : 'Put on'}
                    </Button>
                    <Menu
                      items={[
                        { label: 'Change …', onSelect: () => setEditing({ connection }) },
                        { label: 'Send it the answers there are', onSelect: () => earlier.mutate(id) },
                        ...(settings.kind === 'events'
                          ? [
                              { label: 'New signing secret', onSelect: () => renew.mutate(id) },
                              ...(secrets > 1
                                ? [
                                    {
                                      label: 'End the old secret',
                                      onSelect: () =>
                                        act.mutate({
                                          run: () => dropOldSecret(siteId, id),
                                          done: 'Only the new secret signs now.',
                                        }),
                                    },
                                  ]
                                : []),
                            ]
                          : []),
                        {
                          label: 'Remove',
                          isHalting: true,
                          onSelect: () => setLeaving(connection),
                        },
                      ]}
                    >
                      <IconButton label={`Actions for ${settings.name}`}>⋯</IconButton>
                    </Menu>
                  </div>
                </li>
              );
            })}
          </ul>
        </>
      )}
      {editing && (
        <ConnectionDialog
          siteId={siteId}
          connection={editing.connection}
          onClose={() => setEditing(null)}
          onDone={onMade}
        />
      )}
      <Dialog
        isOpen={leaving !== null}
        onClose={() => setLeaving(null)}
        title={`Remove “${leaving?.settings.name ?? ''}”`}
        description={
          leaving && leaving.waiting > 0
            ? `${counted(leaving.waiting, 'delivery waits', 'deliveries wait')} for it and will never be sent. To keep them, let it rest instead.`
            : 'It is told of nothing more. Its secret cannot be had back.'
        }
      >
        <div className="flex justify-end gap-2">
          <Button onClick={() => setLeaving(null)}>Keep it</Button>
          <Button
            tone="halt"
            isBusy={act.isPending}
            onClick={() => {
              if (!leaving) return;
              act.mutate({
                run: () => removeConnection(siteId, leaving.id),
                done: `“${leaving.settings.name}” is gone.`,
              });
              setLeaving(null);
            }}
          >
            Remove
          </Button>
        </div>
      </Dialog>
      {shown && (
        <ShownOnce
          title="The signing secret"
          description="Give it to the other side, which tells by it that an event is from here (Standard Webhooks). It is shown this once."
          secret={shown}
          onClose={() => setShown(null)}
        />
      )}
    </>
  );
}

/** The last day, an hour a bar: what was taken stands up, what was not hangs down. */
function HealthStrip({ hours }: Pick<Connection, 'hours'>) {
  const taken = barsOf(hours.map(({ good }) => good));
  const missed = barsOf(hours.map(({ bad }) => bad));
  const most = Math.max(taken.most, missed.most);
  return (
    <svg
      viewBox="0 0 240 32"
      className="h-8 w-full"
      role="img"
      aria-label={`The last 24 hours: ${counted(taken.sum, 'try', 'tries')} taken, ${counted(missed.sum, 'try', 'tries')} not`}
    >
      <path d="M0 16H240" stroke="var(--color-line-strong)" />
      {hours.map((hour, at) => {
        const [up, down] = [(hour.good / most) * 15, (hour.bad / most) * 15];
        return (
          // biome-ignore lint/suspicious/noArrayIndexKey: an hour is known by its place
          <g key={at}>
            <rect x={at * 10 + 1} width={8} y={16 - up} height={up} fill="var(--color-clear)" />
            <rect x={at * 10 + 1} width={8} y={16} height={down} fill="var(--color-halt)" />
          </g>
        );
      })}
    </svg>
  );
}
