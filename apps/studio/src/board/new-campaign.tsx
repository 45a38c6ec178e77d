import { zodResolver } from '@hookform/resolvers/zod';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { type CreateCampaign, createCampaignSchema } from '@velarium/contract';
import { TEMPLATES } from '@velarium/core';
import { useForm } from 'react-hook-form';
import { useNavigate } from 'react-router';
import { problemWords } from '../api/client.ts';
import { campaignsQuery, createCampaign } from '../api/queries.ts';
import { TemplateGallery } from '../library/template-gallery.tsx';
import { Button } from '../ui/button.tsx';
import { Dialog } from '../ui/dialog.tsx';
import { Field } from '../ui/field.tsx';

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
      className="w-[min(94vw,62rem)]"
    >
      <NewCampaignForm siteId={siteId} />
    </Dialog>
  );
}

const FIRST = TEMPLATES[0]?.id ?? '';

function NewCampaignForm({ siteId }: { readonly siteId: string }) {
  const navigate = useNavigate();
  const queryClient = useQueryClient();
  const form = useForm<CreateCampaign>({
    resolver: zodResolver(createCampaignSchema),
    defaultValues: { name: '', template: FIRST },
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
      <TemplateGallery siteId={siteId} first={FIRST} onChoose={({ id }) => form.setValue('template', id)}>
        <Field
          label="Name"
          placeholder="What your team will call it"
          autoFocus
          autoComplete="off"
          {...form.register('name')}
          error={form.formState.errors.name?.message}
          className="min-w-0 flex-[1_1_14rem]"
        />
      </TemplateGallery>
      {problem && (
        <p role="alert" className="rounded bg-halt-wash px-3 py-2 text-halt">
          {problem.title}. {problem.detail}
        </p>
      )}
      <div className="sticky -bottom-6 -mx-6 -mb-6 flex justify-end border-t border-line bg-paper px-6 py-3">
        <Button type="submit" tone="main" isBusy={create.isPending} disabled={form.watch('template') === ''}>
          Make the campaign
        </Button>
      </div>
    </form>
  );
}
