import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { CampaignSummary } from '@velarium/contract';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { campaignsQuery, copyCampaign, sitesQuery } from '../api/queries.ts';
import { Button } from '../ui/button.tsx';
import { Dialog } from '../ui/dialog.tsx';
import { Select } from '../ui/select.tsx';
import { tell, tellProblem } from '../ui/toast.tsx';
import { LostList } from './lost-list.tsx';

export interface CopyDialogProps {
  readonly campaign: CampaignSummary;
  readonly onClose: () => void;
}

/** Copies a campaign to another site, after saying what cannot come along. */
export function CopyDialog({ campaign, onClose }: CopyDialogProps) {
  const queryClient = useQueryClient();
  const navigate = useNavigate();
  const { data: sites = [] } = useQuery(sitesQuery);
  const others = sites.filter(({ id }) => id !== campaign.siteId);
  const [wanted, setWanted] = useState<string | null>(null);
  const siteId = wanted ?? others[0]?.id ?? '';
  const trial = useQuery({
    queryKey: ['copy', campaign.id, siteId],
    queryFn: () => copyCampaign(campaign.id, { siteId, isTrial: true }),
    enabled: siteId !== '',
    gcTime: 0,
  });
  const copy = useMutation({
    mutationFn: () => copyCampaign(campaign.id, { siteId, isTrial: false }),
    onSuccess: ({ campaign: made }) => {
      void queryClient.invalidateQueries({ queryKey: campaignsQuery(siteId).queryKey });
      onClose();
      tell(`“${campaign.name}” is a draft of the other site now.`);
      if (made) navigate(`/sites/${siteId}/campaigns/${made.id}`);
    },
    onError: tellProblem,
  });
  return (
    <Dialog isOpen onClose={onClose} title={`Copy “${campaign.name}”`} className="w-[min(92vw,30rem)]">
      {others.length === 0 ? (
        <p>This workspace has no other site. An owner can add one from the list of sites.</p>
      ) : (
        <div className="grid gap-4">
          <Select
            label="To the site"
            value={siteId}
            options={others.map(({ id, name }) => ({ value: id, label: name }))}
            onChange={setWanted}
          />
          {trial.isPending ? (
            <p role="status" className="text-soft">
              Looking what can come along …
            </p>
          ) : (
            <LostList lost={trial.data?.lost ?? []} />
          )}
          <div className="flex justify-end gap-2">
            <Button onClick={onClose}>Cancel</Button>
            <Button
              tone="main"
              disabled={trial.isPending}
              isBusy={copy.isPending}
              onClick={() => copy.mutate()}
            >
              Copy it as a draft
            </Button>
          </div>
        </div>
      )}
    </Dialog>
  );
}
