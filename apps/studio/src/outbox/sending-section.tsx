import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { MAIL_SECURITIES, type SaveSending, type Sending, saveSendingSchema } from '@velarium/contract';
import { useState } from 'react';
import { removeSending, saveSending, sendingQuery, trySending } from '../api/deliveries.ts';
import { useSession } from '../app/use-session.ts';
import { Button } from '../ui/button.tsx';
import { Field } from '../ui/field.tsx';
import { NumberField } from '../ui/number-field.tsx';
import { Segments } from '../ui/segments.tsx';
import { ErrorState, Skeleton } from '../ui/states.tsx';
import { tell, tellProblem } from '../ui/toast.tsx';

const SECURITY_WORDS = { tls: 'TLS', starttls: 'STARTTLS', none: 'None' } as const;
const BEGINNING: SaveSending = {
  host: '',
  port: 465,
  security: 'tls',
  user: '',
  password: '',
  fromName: '',
  fromAddress: '',
};

/** Where the workspace's mail goes out. */
export function SendingSection() {
  const { data, error, refetch } = useQuery(sendingQuery);
  if (error && !data) return <ErrorState error={error} onRetry={() => void refetch()} />;
  if (!data) return <Skeleton rows={3} label="Loading how mail is sent" />;
  return <SendingForm key={JSON.stringify(data)} sending={data} />;
}

function SendingForm({ sending }: { readonly sending: Sending }) {
  const queryClient = useQueryClient();
  const isOwner = useSession()?.role === 'owner';
  const [settings, setSettings] = useState<SaveSending>(sending.settings ?? BEGINNING);
  const [isChecked, setChecked] = useState(false);
  const set = (change: Partial<SaveSending>) => setSettings((old) => ({ ...old, ...change }));
  const read = saveSendingSchema.safeParse(settings);
  const faultOf = (path: keyof SaveSending) =>
    isChecked && !read.success
      ? read.error.issues.find((issue) => issue.path[0] === path)?.message
      : undefined;
  const take = (next: Sending, words: string) => {
    queryClient.setQueryData(sendingQuery.queryKey, next);
    tell(words);
  };
  const save = useMutation({
    mutationFn: () => saveSending(settings),
    onSuccess: (next) => take(next, 'Saved. Mail goes out by this server from now on.'),
    onError: tellProblem,
  });
  const remove = useMutation({
    mutationFn: removeSending,
    onSuccess: (next) => take(next, 'Taken away. Mail goes out by the installation’s own server.'),
    onError: tellProblem,
  });
  const trial = useMutation({ mutationFn: () => trySending(settings), onError: tellProblem });
  const whenRight = (run: () => void) => () => {
    setChecked(true);
    if (read.success) run();
  };
  return (
    <form
      className="grid max-w-2xl gap-4"
      onSubmit={(event) => {
        event.preventDefault();
        whenRight(() => save.mutate())();
      }}
    >
      <p className="text-soft">
        {sending.settings
          ? 'Mail of this workspace goes out by this server.'
          : sending.isReady
            ? 'Mail goes out by the installation’s own server until you name one of yours.'
            : 'No mail goes out until a server is named here. What is due waits.'}{' '}
        It holds for every site of the workspace.
      </p>
      <fieldset disabled={!isOwner} className="grid gap-4">
        <div className="grid grid-cols-[1fr_7rem] gap-3">
          <Field
            label="Server"
            placeholder="mail.example.org"
            spellCheck={false}
            value={settings.host}
            error={faultOf('host')}
            onChange={(event) => set({ host: event.target.value })}
          />
          <NumberField
            label="Port"
            value={settings.port}
            min={1}
            max={65_535}
            onChange={(port) => set({ port })}
          />
        </div>
        <Segments
          label="Safe connection"
          value={settings.security}
          options={MAIL_SECURITIES.map((value) => ({ value, label: SECURITY_WORDS[value] }))}
          onChange={(security) => set({ security })}
        />
        <div className="grid grid-cols-2 gap-3">
          <Field
            label="Name to sign in with"
            autoComplete="off"
            hint="Empty where the server asks for none."
            value={settings.user}
            error={faultOf('user')}
            onChange={(event) => set({ user: event.target.value })}
          />
          <Field
            label="Password"
            type="password"
            autoComplete="new-password"
            placeholder={sending.hasPassword ? 'kept as it is' : ''}
            hint="Kept sealed, and never shown again."
            value={settings.password ?? ''}
            error={faultOf('password')}
            onChange={(event) => set({ password: event.target.value || (sending.hasPassword ? null : '') })}
          />
          <Field
            label="From: name"
            placeholder="Quillon Fell Observatory"
            value={settings.fromName}
            error={faultOf('fromName')}
            onChange={(event) => set({ fromName: event.target.value })}
          />
          <Field
            label="From: address"
            placeholder="letters@example.org"
            spellCheck={false}
            value={settings.fromAddress}
            error={faultOf('fromAddress')}
            onChange={(event) => set({ fromAddress: event.target.value })}
          />
        </div>
      </fieldset>
      {trial.data && (
        <p
          role="status"
          className={
            trial.data.isGood
              ? 'rounded bg-clear-wash px-3 py-2 text-clear'
              : 'rounded bg-halt-wash px-3 py-2 text-halt'
          }
        >
          {trial.data.words}
        </p>
      )}
      {isOwner ? (
        <div className="flex gap-2">
          <Button tone="main" type="submit" isBusy={save.isPending}>
            Save
          </Button>
          <Button isBusy={trial.isPending} onClick={whenRight(() => trial.mutate())}>
            Ask the server
          </Button>
          {sending.settings && (
            <Button tone="quiet" isBusy={remove.isPending} onClick={() => remove.mutate()}>
              Remove
            </Button>
          )}
        </div>
      ) : (
        <p className="text-soft">Owners change this.</p>
      )}
    </form>
  );
}
