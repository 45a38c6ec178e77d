import { useMutation, useQueryClient } from '@tanstack/react-query';
import { type ArrivedCampaign, campaignFileSchema } from '@velarium/contract';
import { type ReactNode, useState } from 'react';
import { useNavigate } from 'react-router';
import { campaignsQuery, importCampaign } from '../api/queries.ts';
import { Button } from '../ui/button.tsx';
import { Dialog } from '../ui/dialog.tsx';
import { tell, tellProblem } from '../ui/toast.tsx';
import { useJsonFile } from '../ui/use-json-file.tsx';
import { LostList } from './lost-list.tsx';

/** Takes a campaign in from a file; `node` must be somewhere on the page. */
export function useImport(siteId: string): { readonly choose: () => void; readonly node: ReactNode } {
  const queryClient = useQueryClient();
  const navigate = useNavigate();
  const [arrived, setArrived] = useState<ArrivedCampaign | null>(null);
  const open = ({ campaign }: ArrivedCampaign) => navigate(`/sites/${siteId}/campaigns/${campaign.id}`);
  const take = useMutation({
    mutationFn: (file: unknown) => importCampaign(siteId, file),
    onSuccess: (made) => {
      void queryClient.invalidateQueries({ queryKey: campaignsQuery(siteId).queryKey });
      if (made.lost.length > 0) setArrived(made);
      else {
        tell(`“${made.campaign.name}” was taken in as a draft, whole.`);
        open(made);
      }
    },
    onError: tellProblem,
  });
  const read = (json: unknown) => {
    const parsed = campaignFileSchema.safeParse(json);
    if (parsed.success) take.mutate(parsed.data);
    else {
      const [issue] = parsed.error.issues;
      tell(
        `This is no campaign file of version 1: ${issue?.path.join('.') || 'it'} ${issue?.message ?? ''}.`,
      );
    }
  };
  const file = useJsonFile({
    label: 'Campaign file',
    noJson: 'This file is no JSON. Choose one that a campaign was written to.',
    onRead: read,
  });
  return {
    choose: file.choose,
    node: (
      <>
        {file.node}
        {arrived && (
          <Dialog
            isOpen
            onClose={() => setArrived(null)}
            title={`“${arrived.campaign.name}” was taken in as a draft`}
            className="w-[min(92vw,30rem)]"
          >
            <LostList lost={arrived.lost} />
            <div className="mt-4 flex justify-end">
              <Button tone="main" onClick={() => open(arrived)}>
                Open it
              </Button>
            </div>
          </Dialog>
        )}
      </>
    ),
  };
}
