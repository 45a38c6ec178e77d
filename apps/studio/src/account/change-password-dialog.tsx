import { useMutation } from '@tanstack/react-query';
import { changePasswordSchema } from '@velarium/contract';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { problemWords } from '../api/client.ts';
import { changePassword } from '../api/queries.ts';
import { Button } from '../ui/button.tsx';
import { Dialog } from '../ui/dialog.tsx';
import { Field } from '../ui/field.tsx';

/** Changes one's own password; every sign-in ends with it. */
export function ChangePasswordDialog({ onClose }: { readonly onClose: () => void }) {
  const navigate = useNavigate();
  const [value, setValue] = useState({ current: '', password: '' });
  const [isChecked, setChecked] = useState(false);
  const read = changePasswordSchema.safeParse(value);
  const faultOf = (path: string) =>
    isChecked && !read.success
      ? read.error.issues.find((issue) => issue.path[0] === path)?.message
      : undefined;
  const change = useMutation({
    mutationFn: () => changePassword(value),
    onSuccess: () => navigate('/sign-in', { state: { notice: 'Your new password holds. Sign in with it.' } }),
  });
  return (
    <Dialog
      isOpen
      onClose={onClose}
      title="Change your password"
      description="You are signed out everywhere, here too, and sign in with the new one."
    >
      <form
        noValidate
        className="grid gap-4"
        onSubmit={(event) => {
          event.preventDefault();
          setChecked(true);
          if (read.success) change.mutate();
        }}
      >
        <Field
          label="The password you have"
          type="password"
          autoComplete="current-password"
          value={value.current}
          error={faultOf('current')}
          onChange={(event) => setValue({ ...value, current: event.target.value })}
        />
        <Field
          label="The new one"
          type="password"
          autoComplete="new-password"
          hint="At least 10 characters."
          value={value.password}
          error={faultOf('password')}
          onChange={(event) => setValue({ ...value, password: event.target.value })}
        />
        {change.error && (
          <p role="alert" className="rounded bg-halt-wash px-3 py-2 text-halt">
            {problemWords(change.error).detail}
          </p>
        )}
        <Button type="submit" tone="main" isBusy={change.isPending} className="justify-self-end">
          Change it
        </Button>
      </form>
    </Dialog>
  );
}
