import { zodResolver } from '@hookform/resolvers/zod';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { type SignIn, signInSchema } from '@velarium/contract';
import { useForm } from 'react-hook-form';
import { useLocation, useNavigate } from 'react-router';
import { problemWords } from '../api/client.ts';
import { sessionQuery, signIn } from '../api/queries.ts';
import { Button } from '../ui/button.tsx';
import { Field } from '../ui/field.tsx';

export function SignInPage() {
  const navigate = useNavigate();
  const from = (useLocation().state as { from?: string } | null)?.from ?? '/';
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
    <main className="grid h-full grid-cols-[1fr_1.1fr]">
      <div className="relative hidden overflow-hidden border-r border-line md:block" aria-hidden="true">
        <VisitDrawing />
      </div>
      <form
        noValidate
        onSubmit={form.handleSubmit((values) => enter.mutate(values))}
        className="col-span-2 grid w-full max-w-sm content-center gap-4 justify-self-center px-6 md:col-span-1"
      >
        <h1 className="font-serif text-4xl italic">Velarium</h1>
        <p className="mb-2 text-soft">The right words on your site, at the right moment.</p>
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
    </main>
  );
}

const LINES = Array.from({ length: 9 }, (_, i) => ({
  y: 120 + i * 70,
  mark: 110 + ((i * 137) % 360),
  opacity: 0.25 + i * 0.08,
}));
const TICKS = Array.from({ length: 25 }, (_, t) => ({ x: 60 + t * 20, length: t % 5 === 0 ? 9 : 4 }));

/** What the instrument is about: a visit as a line, and the moment on it. */
function VisitDrawing() {
  return (
    <svg viewBox="0 0 600 800" preserveAspectRatio="xMidYMid slice" className="size-full" aria-hidden="true">
      {LINES.map(({ y, mark, opacity }) => (
        <g key={y} stroke="var(--color-line-strong)">
          <path d={`M60 ${y}H540`} strokeWidth="1" />
          {TICKS.map(({ x, length }) => (
            <path key={x} d={`M${x} ${y}v${length}`} strokeWidth="0.7" />
          ))}
          <path d={`M${mark} ${y - 26}v26`} stroke="var(--color-sail)" strokeWidth="1.5" />
          <path
            d={`M${mark} ${y - 26}h44v14c-8 6-14 6-22 0-8 6-14 6-22 0z`}
            fill="var(--color-sail)"
            stroke="none"
            opacity={opacity}
          />
        </g>
      ))}
    </svg>
  );
}
