import { useMutation, useQuery } from '@tanstack/react-query';
import {
  type Connection,
  type SaveConnection,
  type ShownSecret,
  saveConnectionSchema,
  type TriedConnection,
} from '@velarium/contract';
import { TOLD_EVENTS } from '@velarium/contract/values';
import { figure, toldEventWords } from '@velarium/core';
import { useState } from 'react';
import { problemWords } from '../api/client.ts';
import { connectionsQuery, createConnection, saveConnection, tryConnection } from '../api/deliveries.ts';
import { campaignsQuery } from '../api/queries.ts';
import { Button } from '../ui/button.tsx';
import { Dialog } from '../ui/dialog.tsx';
import { Field } from '../ui/field.tsx';
import { Fold } from '../ui/fold.tsx';
import { Segments } from '../ui/segments.tsx';
import { Switch } from '../ui/switch.tsx';
import { stillThere } from '../ui/told-error.ts';
import { useOverTheirs } from '../ui/use-over-theirs.ts';
import { Written } from './delivery-sheet.tsx';
import { RequestFields } from './request-fields.tsx';

const BEGINNING: Extract<SaveConnection, { kind: 'events' }> = {
  kind: 'events',
  name: '',
  address: '',
  events: ['answer.stored', 'person.confirmed', 'person.left', 'person.erased'],
  campaigns: null,
};

/** What a connection becomes when the other kind is chosen: what both have stays. */
function asKind(settings: SaveConnection, kind: SaveConnection['kind']): SaveConnection {
  const { name, address, events, campaigns } = settings;
  const common = { name, address, events, campaigns };
  return kind === 'events'
    ? { kind, ...common }
    : { kind, ...common, method: 'POST', body: 'json', headers: [], names: [{ from: 'mail', to: 'email' }] };
}

interface ConnectionDialogProps {
  readonly siteId: string;
  /** `null` for a new one. */
  readonly connection: Connection | null;
  readonly onClose: () => void;
  readonly onDone: (made: Pick<ShownSecret, 'secret'>) => void;
}

/** A connection's settings, tried before they are saved. */
export function ConnectionDialog({ siteId, connection, onClose, onDone }: ConnectionDialogProps) {
  const [settings, setSettings] = useState<SaveConnection>(connection?.settings ?? BEGINNING);
  const overTheirs = useOverTheirs(settings);
  const [isChecked, setChecked] = useState(false);
  const { data: campaigns = [] } = useQuery(campaignsQuery(siteId));
  const set = (change: Partial<SaveConnection>) =>
    setSettings((old) => ({ ...old, ...change }) as SaveConnection);
  const read = saveConnectionSchema.safeParse(settings);
  const faultOf = (path: string) =>
    isChecked && !read.success
      ? read.error.issues.find((issue) => issue.path.join('.').startsWith(path))?.message
      : undefined;
  const save = useMutation({
    mutationFn: async (): Promise<Pick<ShownSecret, 'secret'>> => {
      if (!connection) return createConnection(siteId, settings);
      const { id } = connection;
      const next = await overTheirs(
        settings,
        connectionsQuery(siteId),
        (all) => stillThere(all, id, 'connection').settings,
      );
      await saveConnection(siteId, id, next);
      return { secret: null };
    },
    onSuccess: onDone,
  });
  const trial = useMutation({ mutationFn: () => tryConnection(siteId, settings, connection?.id ?? null) });
  const error = trial.error ?? save.error;
  const failure = error && problemWords(error);
  /** What the other press came to is said no more. */
  const pressed = (one: { mutate(): void }, other: { reset(): void }) => () => {
    setChecked(true);
    if (!read.success) return;
    other.reset();
    one.mutate();
  };
  const toggle = (event: (typeof TOLD_EVENTS)[number]) =>
    set({
      events: settings.events.includes(event)
        ? settings.events.filter((one) => one !== event)
        : [...settings.events, event],
    });
  return (
    <Dialog
      isOpen
      onClose={onClose}
      title={connection ? `Change “${connection.settings.name}”` : 'Connect a service'}
      className="w-[min(94vw,44rem)]"
    >
      <div className="grid gap-4">
        {!connection && (
          <Segments
            label="What it takes"
            value={settings.kind}
            options={[
              { value: 'events', label: 'Signed events' },
              { value: 'request', label: 'A request shaped by hand' },
            ]}
            onChange={(kind) => setSettings(asKind(settings, kind))}
          />
        )}
        <p className="text-soft">
          {settings.kind === 'events'
            ? 'It gets CloudEvents 1.0, signed as Standard Webhooks say.'
            : 'It gets an ordinary request in which each answer has the name it wants.'}
        </p>
        <div className="grid grid-cols-[12rem_1fr] gap-3">
          <Field
            label="Name"
            value={settings.name}
            maxLength={80}
            error={faultOf('name')}
            onChange={(event) => set({ name: event.target.value })}
          />
          <Field
            label="Address"
            placeholder="https://records.example/hook"
            spellCheck={false}
            value={settings.address}
            maxLength={2048}
            error={faultOf('address')}
            onChange={(event) => set({ address: event.target.value.trim() })}
          />
        </div>
        <fieldset className="grid grid-cols-2 gap-1.5">
          <legend className="mb-1 font-medium">It is told when</legend>
          {TOLD_EVENTS.map((event) => (
            <label key={event} className="flex items-center gap-2">
              <input
                type="checkbox"
                className="accent-sail"
                checked={settings.events.includes(event)}
                onChange={() => toggle(event)}
              />
              {toldEventWords(event)}
            </label>
          ))}
          {faultOf('events') && (
            <p className="col-span-2 text-xs font-medium text-halt">{faultOf('events')}</p>
          )}
        </fieldset>
        <Fold title="Which campaigns" note={settings.campaigns === null ? 'all' : 'some'}>
          <Switch
            label="Of chosen campaigns only"
            isOn={settings.campaigns !== null}
            onChange={(is) => set({ campaigns: is ? [] : null })}
          />
          {settings.campaigns?.length === 0 && (
            <p className="text-halt">None is chosen, so nothing is told.</p>
          )}
          {settings.campaigns !== null &&
            campaigns.map(({ id, name }) => (
              <label key={id} className="flex items-center gap-2">
                <input
                  type="checkbox"
                  className="accent-sail"
                  checked={settings.campaigns?.includes(id) ?? false}
                  onChange={() =>
                    set({
                      campaigns: settings.campaigns?.includes(id)
                        ? settings.campaigns.filter((one) => one !== id)
                        : [...(settings.campaigns ?? []), id],
                    })
                  }
                />
                {name}
              </label>
            ))}
        </Fold>
        {settings.kind === 'request' && <RequestFields settings={settings} set={set} faultOf={faultOf} />}
        {trial.data && <Tried tried={trial.data} />}
        {failure && (
          <p role="alert" className="rounded bg-halt-wash px-3 py-2 text-halt">
            {failure.title}. {failure.detail}
          </p>
        )}
        <div className="flex justify-end gap-2">
          <Button isBusy={trial.isPending} onClick={pressed(trial, save)}>
            Try it on the latest answer
          </Button>
          <Button tone="main" isBusy={save.isPending} onClick={pressed(save, trial)}>
            {connection ? 'Save' : 'Connect'}
          </Button>
        </div>
      </div>
    </Dialog>
  );
}

function Tried({ tried: { words, milliseconds, answer, sent } }: { readonly tried: TriedConnection }) {
  return (
    <section
      aria-label="What came back"
      aria-live="polite"
      className="grid gap-2 rounded border border-line-strong p-3"
    >
      <p className="font-medium">
        {words} <span className="font-normal text-soft">{figure(milliseconds)} ms</span>
      </p>
      {answer && <Written label="What came back" text={answer} />}
      <Fold title="What was sent">
        <Written label="What was sent" text={sent} />
      </Fold>
    </section>
  );
}
