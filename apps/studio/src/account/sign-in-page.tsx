import { zodResolver } from '@hookform/resolvers/zod';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { type SignIn, signInSchema } from '@velarium/contract';
import { useForm } from 'react-hook-form';
import { Link, useLocation, useNavigate } from 'react-router';
import { problemWords } from '../api/client.ts';
import { sessionQuery, signIn } from '../api/queries.ts';
import { Button } from '../ui/button.tsx';
import { Field } from '../ui/field.tsx';
import { Door } from './door.tsx';

export function SignInPage() {
  const navigate = useNavigate();
  const { from = '/', notice } = (useLocation().state ?? {}) as { from?: string; notice?: string };
  const queryClient = useQueryClient();
  const form = useForm<SignIn>({
    resolver: zodResolver(signInSchema),
    defaultValues: { email: '', password: '' },
  });
  const enter = useMutation({
    mutationFn: signIn,
    onSuccess: (session) => {
      queryClient.setQueryData(sessionQuery.queryKey, session);
      navigate(from, { replace: true });
    },
  });
  const problem = enter.error && problemWords(enter.error);
  return (
    <Door words="The right words on your site, at the right moment.">
      {notice && (
        <p role="status" className="rounded bg-clear-wash px-3 py-2 text-clear">
          {notice}
        </p>
      )}
      <form noValidate onSubmit={form.handleSubmit((values) => enter.mutate(values))} className="grid gap-4">
        <Field
          label="Mail address"
          type="email"
          autoComplete="username"
          autoFocus
          {...form.register('email')}
          error={form.formState.errors.email?.message}
        />
        <Field
          label="Password"
          type="password"
          autoComplete="current-password"
          {...form.register('password')}
          error={form.formState.errors.password?.message}
        />
        {problem && (
          <p role="alert" className="rounded bg-halt-wash px-3 py-2 text-halt">
            {problem.title}. {problem.detail}
          </p>
        )}
        <Button type="submit" tone="main" isBusy={enter.isPending} className="h-9">
          Sign in
        </Button>
      </form>
      <Link to="/forgotten" className="justify-self-start underline underline-offset-4">
        Forgotten your password?
      </Link>
    </Door>
  );
}
