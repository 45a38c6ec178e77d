import { useMutation, useQuery } from '@tanstack/react-query';
import { mailAddressSchema, passwordSchema } from '@velarium/contract';
import { useState } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { askForPassword, join, openInvitationQuery, setPassword } from '../api/queries.ts';
import { Button } from '../ui/button.tsx';
import { Field } from '../ui/field.tsx';
import { Skeleton } from '../ui/states.tsx';
import { Door } from './door.tsx';
import { Fault } from './fault.tsx';

const back = (
  <Link to="/sign-in" className="justify-self-start underline underline-offset-4">
    To the sign-in
  </Link>
);

/** Asks for a link by which to set a new password. */
export function ForgottenPage() {
  const [email, setEmail] = useState('');
  const [isChecked, setChecked] = useState(false);
  const read = mailAddressSchema.safeParse(email);
  const ask = useMutation({ mutationFn: () => askForPassword(email) });
  return (
    <Door words={ask.isSuccess ? 'Look into your mailbox.' : 'A link to set a new password comes by mail.'}>
      {ask.isSuccess ? (
        <p role="status">
          If somebody here has the address {email}, a mail is on its way. The link in it holds for two hours.
        </p>
      ) : (
        <form
          noValidate
          className="grid gap-4"
          onSubmit={(event) => {
            event.preventDefault();
            setChecked(true);
            if (read.success) ask.mutate();
          }}
        >
          <Field
            label="Mail address"
            type="email"
            autoComplete="username"
            autoFocus
            value={email}
            onChange={(event) => setEmail(event.target.value)}
            error={isChecked && !read.success ? read.error.issues[0]?.message : undefined}
          />
          <Fault error={ask.error} />
          <Button type="submit" tone="main" isBusy={ask.isPending} className="h-9">
            Send the link
          </Button>
        </form>
      )}
      {back}
    </Door>
  );
}

/** Sets a new password by a link from a mail. */
export function NewPasswordPage() {
  const [params] = useSearchParams();
  const navigate = useNavigate();
  const set = useMutation({
    mutationFn: (password: string) => setPassword({ token: params.get('token') ?? '', password }),
    onSuccess: () => {
      navigate('/sign-in', { state: { notice: 'Your new password holds. Sign in with it.' } });
    },
  });
  return (
    <Door words="Choose a new password.">
      <PasswordForm
        label="New password"
        action="Set it"
        isNew
        run={set.mutate}
        isBusy={set.isPending}
        error={set.error}
      />
      {back}
    </Door>
  );
}

/** Joins a workspace by an invitation. */
export function JoinPage() {
  const [params] = useSearchParams();
  const navigate = useNavigate();
  const token = params.get('token') ?? '';
  const { data, error } = useQuery(openInvitationQuery(token));
  const enter = useMutation({
    mutationFn: (password: string) => join(token, password),
    onSuccess: () => {
      navigate('/sign-in', { state: { notice: 'You have joined. Sign in to begin.' } });
    },
  });
  return (
    <Door words={data ? `You are invited to ${data.workspace}.` : 'An invitation.'}>
      {error ? (
        <Fault error={error} />
      ) : !data ? (
        <Skeleton rows={1} label="Loading the invitation" />
      ) : (
        <>
          <p>
            {data.name}, you sign in with {data.email}
            {data.hasAccount
              ? ' and the password you have already.'
              : ' and a password nobody else has seen.'}
          </p>
          <PasswordForm
            label={data.hasAccount ? 'Your password' : 'Choose a password'}
            action="Join"
            isNew={!data.hasAccount}
            run={enter.mutate}
            isBusy={enter.isPending}
            error={enter.error}
          />
        </>
      )}
      {back}
    </Door>
  );
}

interface PasswordFormProps {
  readonly label: string;
  readonly action: string;
  readonly isNew: boolean;
  readonly run: (password: string) => void;
  readonly isBusy: boolean;
  readonly error: unknown;
}

function PasswordForm({ label, action, isNew, run, isBusy, error }: PasswordFormProps) {
  const [password, setText] = useState('');
  const [isChecked, setChecked] = useState(false);
  const read = passwordSchema.safeParse(password);
  return (
    <form
      noValidate
      className="grid gap-4"
      onSubmit={(event) => {
        event.preventDefault();
        setChecked(true);
        if (read.success) run(password);
      }}
    >
      <Field
        label={label}
        type="password"
        autoFocus
        autoComplete={isNew ? 'new-password' : 'current-password'}
        value={password}
        onChange={(event) => setText(event.target.value)}
        hint={isNew ? 'At least 10 characters.' : undefined}
        error={isChecked && !read.success ? read.error.issues[0]?.message : undefined}
      />
      <Fault error={error} />
      <Button type="submit" tone="main" isBusy={isBusy} className="h-9">
        {action}
      </Button>
    </form>
  );
}
