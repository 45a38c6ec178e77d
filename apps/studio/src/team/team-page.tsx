import { zodResolver } from '@hookform/resolvers/zod';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { type Invitation, type Invite, inviteSchema, type Member, type Role } from '@velarium/contract';
import { ROLES } from '@velarium/contract/values';
import { deliveryStateWords } from '@velarium/core';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { problemWords } from '../api/client.ts';
import {
  changeRole,
  invitationsQuery,
  invite,
  membersQuery,
  removeMember,
  sessionQuery,
  setWorkspace,
  withdrawInvitation,
} from '../api/queries.ts';
import { useSession } from '../app/use-session.ts';
import { Button } from '../ui/button.tsx';
import { Dialog } from '../ui/dialog.tsx';
import { Field } from '../ui/field.tsx';
import { Select } from '../ui/select.tsx';
import { ErrorState, Skeleton } from '../ui/states.tsx';
import { Switch } from '../ui/switch.tsx';
import { type Column, Table } from '../ui/table.tsx';
import { tell, tellProblem } from '../ui/toast.tsx';
import { when } from '../ui/when.ts';
import { Tokens } from './tokens.tsx';

const ROLE_WORDS: Readonly<Record<Role, string>> = {
  owner: 'Owner: everything, and the team',
  editor: 'Editor: makes and publishes',
  viewer: 'Viewer: reads',
};
const ROLE_OPTIONS = ROLES.map((value) => ({ value, label: ROLE_WORDS[value] }));

export function TeamPage() {
  const session = useSession();
  const queryClient = useQueryClient();
  const { data: members, error, refetch } = useQuery(membersQuery);
  const [isAdding, setAdding] = useState(false);
  const [leaving, setLeaving] = useState<Member | null>(null);
  const reload = () => queryClient.invalidateQueries({ queryKey: membersQuery.queryKey });
  const change = useMutation({
    mutationFn: ({ member, role }: { member: Member; role: Role }) => changeRole(member.accountId, role),
    onSuccess: (_nothing, { member, role }) => {
      void reload();
      tell(
        `${member.name} is now ${role}.`,
        () => change.mutate({ member: { ...member, role }, role: member.role }),
        `role of ${member.accountId}`,
      );
    },
    onError: tellProblem,
  });
  const remove = useMutation({
    mutationFn: (member: Member) => removeMember(member.accountId),
    onSuccess: (_nothing, member) => {
      setLeaving(null);
      void reload();
      tell(`${member.name} is no longer in the workspace.`);
    },
    onError: tellProblem,
  });
  const isOwner = session?.role === 'owner';
  const columns: readonly Column<Member>[] = [
    { head: 'Name', cell: (member) => member.name },
    { head: 'Mail address', cell: (member) => member.email },
    {
      head: 'Role',
      cell: (member) =>
        isOwner ? (
          <Select
            label={`Role of ${member.name}`}
            isLabelHidden
            className="w-64"
            value={member.role}
            options={ROLE_OPTIONS}
            onChange={(role) => change.mutate({ member, role })}
          />
        ) : (
          ROLE_WORDS[member.role]
        ),
    },
    ...(isOwner
      ? [
          {
            head: 'Remove',
            cell: (member: Member) => (
              <Button tone="quiet" aria-label={`Remove ${member.name}`} onClick={() => setLeaving(member)}>
                Remove
              </Button>
            ),
          },
        ]
      : []),
  ];
  return (
    <div className="mx-auto max-w-4xl px-6 pb-16">
      <div className="flex items-end pt-7 pb-4">
        <h1 className="mr-auto font-serif text-3xl">Team</h1>
        {isOwner && (
          <Button tone="main" onClick={() => setAdding(true)}>
            Invite somebody
          </Button>
        )}
      </div>
      {error && !members ? (
        <ErrorState error={error} onRetry={() => void refetch()} />
      ) : !members ? (
        <Skeleton rows={3} label="Loading the team" />
      ) : (
        <Table caption="Team" columns={columns} rows={members} keyOf={(member) => member.accountId} />
      )}
      {isOwner && members && <SecondPerson members={members} />}
      {isOwner && <Invitations />}
      {isOwner && <Tokens />}
      <Dialog
        isOpen={isAdding}
        onClose={() => setAdding(false)}
        title="Invite somebody"
        description="They get a mail with a link, and choose a password nobody else has seen."
      >
        <InviteForm
          onDone={() => {
            setAdding(false);
            void queryClient.invalidateQueries({ queryKey: invitationsQuery.queryKey });
          }}
        />
      </Dialog>
      <Dialog
        isOpen={leaving !== null}
        onClose={() => setLeaving(null)}
        title={`Remove ${leaving?.name ?? ''}`}
        description="They can no longer sign in to this workspace. What they made stays."
      >
        <div className="flex justify-end gap-2">
          <Button onClick={() => setLeaving(null)}>Keep them</Button>
          <Button tone="halt" isBusy={remove.isPending} onClick={() => leaving && remove.mutate(leaving)}>
            Remove
          </Button>
        </div>
      </Dialog>
    </div>
  );
}

function InviteForm({ onDone }: { readonly onDone: () => void }) {
  const form = useForm<Invite>({
    resolver: zodResolver(inviteSchema),
    defaultValues: { name: '', email: '', role: 'editor' },
  });
  const add = useMutation({
    mutationFn: invite,
    onSuccess: (_nothing, { name }) => {
      tell(`A mail to ${name} is on its way.`);
      onDone();
    },
  });
  const { errors } = form.formState;
  return (
    <form noValidate onSubmit={form.handleSubmit((values) => add.mutate(values))} className="grid gap-4">
      <Field label="Name" autoComplete="off" {...form.register('name')} error={errors.name?.message} />
      <Field
        label="Mail address"
        type="email"
        autoComplete="off"
        {...form.register('email')}
        error={errors.email?.message}
      />
      <Select
        label="Role"
        value={form.watch('role')}
        options={ROLE_OPTIONS}
        onChange={(role) => form.setValue('role', role)}
      />
      {add.error && (
        <p role="alert" className="rounded bg-halt-wash px-3 py-2 text-halt">
          {problemWords(add.error).detail}
        </p>
      )}
      <Button type="submit" tone="main" isBusy={add.isPending} className="justify-self-end">
        Invite
      </Button>
    </form>
  );
}

/** Who was asked to join and has not yet, and whether the mail reached them. */
function Invitations() {
  const queryClient = useQueryClient();
  const { data: invitations = [] } = useQuery({ ...invitationsQuery, refetchInterval: 5000 });
  const reload = () => queryClient.invalidateQueries({ queryKey: invitationsQuery.queryKey });
  const again = useMutation({
    mutationFn: invite,
    onSuccess: (_nothing, { name }) => {
      void reload();
      tell(`Another mail to ${name} is on its way.`);
    },
    onError: tellProblem,
  });
  const withdraw = useMutation({
    mutationFn: ({ id }: Invitation) => withdrawInvitation(id),
    onSuccess: (_nothing, { name }) => {
      void reload();
      tell(`${name} can no longer join by that mail.`);
    },
    onError: tellProblem,
  });
  if (invitations.length === 0) return null;
  return (
    <section aria-labelledby="invited" className="pt-8">
      <h2 id="invited" className="pb-2 font-serif text-xl">
        Invited
      </h2>
      <ul className="border-t border-line-strong">
        {invitations.map((invitation) => {
          const { id, name, email, role, endsAt, mail } = invitation;
          return (
            <li key={id} className="flex items-center gap-4 border-b border-line py-2.5">
              <div className="min-w-0 flex-1">
                {name} <span className="text-soft">{email}</span>
                <span className="block text-xs text-soft">
                  as {role}; the link holds until {when.format(new Date(endsAt))}; the mail:{' '}
                  {mail ? deliveryStateWords(mail.state) : 'not written down'}
                  {mail && mail.state !== 'sent' && mail.words ? ` (${mail.words})` : ''}
                </span>
              </div>
              <Button isBusy={again.isPending} onClick={() => again.mutate({ name, email, role })}>
                Send again
              </Button>
              <Button tone="quiet" isBusy={withdraw.isPending} onClick={() => withdraw.mutate(invitation)}>
                Withdraw
              </Button>
            </li>
          );
        })}
      </ul>
    </section>
  );
}

/** Whether somebody else must agree before anything is launched. */
function SecondPerson({ members }: { readonly members: readonly Member[] }) {
  const session = useSession();
  const queryClient = useQueryClient();
  const change = useMutation({
    mutationFn: (asksSecond: boolean) => setWorkspace({ asksSecond }),
    onError: tellProblem,
    onSuccess: (_nothing, asksSecond) => {
      tell(
        asksSecond
          ? 'From now on a second person agrees to every launch.'
          : 'From now on whoever may launch does so alone.',
        () => change.mutate(!asksSecond),
      );
    },
    onSettled: () => queryClient.invalidateQueries({ queryKey: sessionQuery.queryKey }),
  });
  const able = members.filter(({ role }) => role !== 'viewer').length;
  return (
    <section aria-label="Launches" className="max-w-2xl pt-8">
      <h2 className="pb-2 font-serif text-xl">Launches</h2>
      <Switch
        label="A second person agrees before anything is launched"
        isOn={session?.workspace.asksSecond === true}
        onChange={(isOn) => change.mutate(isOn)}
        hint={
          able < 2
            ? 'There is nobody else who could: invite another editor or owner first, or nothing can be launched.'
            : `Whoever asks is not the one who agrees; ${able} people of this workspace may. Putting to rest needs nobody.`
        }
      />
    </section>
  );
}
