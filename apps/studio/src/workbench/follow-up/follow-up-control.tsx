import { useQuery } from '@tanstack/react-query';
import type { FollowUp, FormBlock } from '@velarium/contract';
import { counted } from '@velarium/core';
import { lazy, Suspense, useState } from 'react';
import { followUpQuery } from '../../api/deliveries.ts';
import { Button } from '../../ui/button.tsx';
import { useWorkbench } from '../store.ts';

const FollowUpDialog = lazy(async () => ({
  default: (await import('./follow-up-dialog.tsx')).FollowUpDialog,
}));

/** What follows an answer, in a few words. */
function followUpWords({ confirmation, welcome, notice }: FollowUp): string {
  const parts = [
    ...(confirmation ? ['asks to confirm'] : []),
    ...(welcome.length > 0 ? [counted(welcome.length, 'welcome mail')] : []),
    ...(notice ? [notice.rhythm === 'daily' ? 'tells the team once a day' : 'tells the team at once'] : []),
  ];
  return parts.length === 0 ? 'Nothing goes out; the answer is under People.' : `${parts.join(', ')}.`;
}

/** What goes out by itself once this form has been answered. */
export function FollowUpControl({ form }: { readonly form: Pick<FormBlock, 'id' | 'fields'> }) {
  const campaignId = useWorkbench((state) => state.id);
  const canEdit = useWorkbench((state) => state.canEdit);
  const { data, isLoadingError } = useQuery({ ...followUpQuery(campaignId, form.id), enabled: canEdit });
  const [isOpen, setOpen] = useState(false);
  if (!canEdit) return null;
  return (
    <section aria-label="After an answer" className="grid gap-2 rounded border border-line bg-sheet p-3">
      <div className="flex items-center gap-2">
        <h4 className="flex-1 font-medium">After an answer</h4>
        <Button disabled={!data} onClick={() => setOpen(true)}>
          What goes out …
        </Button>
      </div>
      <p className="text-xs text-soft">
        {data ? followUpWords(data) : isLoadingError ? 'What goes out could not be read.' : 'Loading …'}
      </p>
      {isOpen && data && (
        <Suspense>
          <FollowUpDialog
            campaignId={campaignId}
            form={form}
            followUp={data}
            onClose={() => setOpen(false)}
          />
        </Suspense>
      )}
    </section>
  );
}
