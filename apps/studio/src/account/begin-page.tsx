import { zodResolver } from '@hookform/resolvers/zod';
import { useMutation } from '@tanstack/react-query';
import { type Begin, beginSchema } from '@velarium/contract';
import { useForm } from 'react-hook-form';
import { useNavigate, useSearchParams } from 'react-router';
import { begin } from '../api/queries.ts';
import { Button } from '../ui/button.tsx';
import { Field } from '../ui/field.tsx';
import { Door } from './door.tsx';
import { Fault } from './fault.tsx';

/** Makes the first workspace of an installation, with its owner; the link is printed where it runs. */
export function BeginPage() {
  const [params] = useSearchParams();
  const navigate = useNavigate();
  const form = useForm<Begin>({
    resolver: zodResolver(beginSchema),
    defaultValues: { code: params.get('code') ?? '', workspace: '', name: '', email: '', password: '' },
  });
  const make = useMutation({
    mutationFn: begin,
    onSuccess: () =>
      navigate('/sign-in', {
        state: { notice: 'The workspace is made. Sign in, and add your first site.' },
      }),
  });
  const { errors } = form.formState;
  return (
    <Door words="A new Velarium. Who is it for?">
      <form noValidate onSubmit={form.handleSubmit((values) => make.mutate(values))} className="grid gap-4">
        <Field
          label="Name of the workspace"
          autoFocus
          hint="The team or company whose sites it holds."
          {...form.register('workspace')}
          error={errors.workspace?.message}
        />
        <Field
          label="Your name"
          autoComplete="name"
          {...form.register('name')}
          error={errors.name?.message}
        />
        <Field
          label="Mail address"
          type="email"
          autoComplete="username"
          {...form.register('email')}
          error={errors.email?.message}
        />
        <Field
          label="Password"
          type="password"
          autoComplete="new-password"
          hint="At least 10 characters."
          {...form.register('password')}
          error={errors.password?.message}
        />
        <Fault error={make.error} />
        <Button type="submit" tone="main" isBusy={make.isPending} className="h-9">
          Make the workspace
        </Button>
      </form>
    </Door>
  );
}
