import { zodResolver } from '@hookform/resolvers/zod';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { type CreateCampaign, createCampaignSchema } from '@velarium/contract';
import { FORMAT_WORDS, TEMPLATES } from '@velarium/core';
import { useForm } from 'react-hook-form';
import { useNavigate } from 'react-router';
import { problemWords } from '../api/client.ts';
import { campaignsQuery, createCampaign } from '../api/queries.ts';
import { Button } from '../ui/button.tsx';
import { Dialog } from '../ui/dialog.tsx';
import { Field } from '../ui/field.tsx';
import { StageFrame } from '../workbench/stage/stage-frame.tsx';

export interface NewCampaignProps {
  readonly siteId: string;
  readonly onClose: () => void;
}

/** Names a campaign and picks the template it begins from, then leads to its Workbench. */
export function NewCampaign({ siteId, onClose }: NewCampaignProps) {
  return (
    <Dialog
      isOpen
      onClose={onClose}
      title="New campaign"
      description="Name it, choose what it begins from. Everything can be changed afterwards."
      className="w-[min(94vw,58rem)]"
    >
      <NewCampaignForm siteId={siteId} />
    </Dialog>
  );
}

function NewCampaignForm({ siteId }: { readonly siteId: string }) {
  const navigate = useNavigate();
  const queryClient = useQueryClient();
  const form = useForm<CreateCampaign>({
    resolver: zodResolver(createCampaignSchema),
    defaultValues: { name: '', template: TEMPLATES[0]?.id ?? '' },
  });
  const create = useMutation({
    mutationFn: (values: CreateCampaign) => createCampaign(siteId, values),
    onSuccess: (campaign) => {
      void queryClient.invalidateQueries({ queryKey: campaignsQuery(siteId).queryKey });
      navigate(`/sites/${siteId}/campaigns/${campaign.id}`);
    },
  });
  const problem = create.error && problemWords(create.error);
  return (
    <form noValidate onSubmit={form.handleSubmit((values) => create.mutate(values))} className="grid gap-5">
      <Field
        label="Name"
        placeholder="What your team will call it"
        autoFocus
        autoComplete="off"
        {...form.register('name')}
        error={form.formState.errors.name?.message}
        className="max-w-md"
      />
      <fieldset>
        <legend className="mb-1.5 text-sm font-medium">Template</legend>
        <div className="grid grid-cols-3 gap-4">
          {TEMPLATES.map(({ id, name, aim, message }) => (
            <label
              key={id}
              className="grid cursor-pointer content-start gap-2 rounded-md border border-line p-2.5 hover:border-ink has-checked:border-ink has-checked:bg-sheet has-focus-visible:outline-2 has-focus-visible:outline-ink"
            >
              <StageFrame message={message} device="desktop" width={264} height={165} isThumbnail />
              <span className="flex items-baseline gap-2">
                <input type="radio" value={id} {...form.register('template')} className="accent-sail" />
                <span className="font-semibold">{name}</span>
                <span className="text-xs text-soft">{FORMAT_WORDS[message.format]}</span>
              </span>
              <span className="text-sm text-soft">{aim}</span>
            </label>
          ))}
        </div>
      </fieldset>
      {problem && (
        <p role="alert" className="rounded bg-halt-wash px-3 py-2 text-halt">
          {problem.title}. {problem.detail}
        </p>
      )}
      <Button type="submit" tone="main" isBusy={create.isPending} className="justify-self-end">
        Make the campaign
      </Button>
    </form>
  );
}
