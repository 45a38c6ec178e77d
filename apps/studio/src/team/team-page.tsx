import { zodResolver } from '@hookform/resolvers/zod';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { type AddMember, addMemberSchema, type Member, type Role } from '@velarium/contract';
import { ROLES } from '@velarium/contract/values';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { problemWords } from '../api/client.ts';
import { addMember, changeRole, membersQuery, removeMember } from '../api/queries.ts';
import { useSession } from '../app/use-session.ts';
import { Button } from '../ui/button.tsx';
import { Dialog } from '../ui/dialog.tsx';
import { Field } from '../ui/field.tsx';
import { Select } from '../ui/select.tsx';
import { ErrorState, Skeleton } from '../ui/states.tsx';
import { type Column, Table } from '../ui/table.tsx';
import { tell, tellProblem } from '../ui/toast.tsx';

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
      tell(`${member.name} is now ${role}.`, () =>
        change.mutate({ member: { ...member, role }, role: member.role }),
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
            head: 'Take out',
            cell: (member: Member) => (
              <Button tone="quiet" aria-label={`Take out ${member.name}`} onClick={() => setLeaving(member)}>
                Take out
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
            Add a member
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
      <Dialog
        isOpen={isAdding}
        onClose={() => setAdding(false)}
        title="Add a member"
        description="They sign in with the address and password you give them."
      >
        <AddMemberForm
          onDone={() => {
            setAdding(false);
            void reload();
          }}
        />
      </Dialog>
      <Dialog
        isOpen={leaving !== null}
        onClose={() => setLeaving(null)}
        title={`Take out ${leaving?.name ?? ''}`}
        description="They can no longer sign in to this workspace. What they made stays."
      >
        <div className="flex justify-end gap-2">
          <Button onClick={() => setLeaving(null)}>Keep them</Button>
          <Button tone="halt" isBusy={remove.isPending} onClick={() => leaving && remove.mutate(leaving)}>
            Take out
          </Button>
        </div>
      </Dialog>
    </div>
  );
}

function AddMemberForm({ onDone }: { readonly onDone: () => void }) {
  const form = useForm<AddMember>({
    resolver: zodResolver(addMemberSchema),
    defaultValues: { name: '', email: '', password: '', role: 'editor' },
  });
  const add = useMutation({
    mutationFn: addMember,
    onSuccess: (member) => {
      tell(`${member.name} can sign in now.`);
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
      <Field
        label="First password"
        type="password"
        autoComplete="new-password"
        {...form.register('password')}
        error={errors.password?.message}
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
        Add
      </Button>
    </form>
  );
}
