import { useMutation, useQueries, useQueryClient } from '@tanstack/react-query';
import type { Campaign, CampaignSummary } from '@velarium/contract';
import { MOST_NOTE } from '@velarium/contract/values';
import { quantity, ruleSentence, sentenceText } from '@velarium/core';
import { useState } from 'react';
import { campaignQuery, campaignsQuery } from '../api/queries.ts';
import { askTogether, launchTogether } from '../api/versions.ts';
import { useSession } from '../app/use-session.ts';
import { Button } from '../ui/button.tsx';
import { Dialog } from '../ui/dialog.tsx';
import { Field } from '../ui/field.tsx';
import { tell, tellProblem } from '../ui/toast.tsx';
import { useLaunchChecks } from '../versions/use-launch-checks.ts';
import { useNames } from './use-names.ts';

interface LaunchTogetherProps {
  readonly siteId: string;
  readonly campaigns: readonly CampaignSummary[];
  readonly onClose: () => void;
}

const knownOf = (drafts: readonly { readonly data: Campaign | undefined }[]): Campaign[] =>
  drafts.flatMap(({ data }) => data ?? []);

/** Publishes several campaigns in one go: all of them, or none. */
export function LaunchTogether({ siteId, campaigns, onClose }: LaunchTogetherProps) {
  const names = useNames(siteId);
  const asksSecond = useSession()?.workspace.asksSecond === true;
  const queryClient = useQueryClient();
  const [note, setNote] = useState('');
  const drafts = useQueries({
    queries: campaigns.map(({ id }) => ({ ...campaignQuery(id), staleTime: 0 })),
    combine: knownOf,
  });
  const { findings, isPending, isLooking } = useLaunchChecks(siteId, drafts);
  const isKnown = !isPending && drafts.length === campaigns.length;
  const isStopped = findings.some((list) => list.some(({ severity }) => severity === 'stop'));
  const launch = useMutation({
    mutationFn: () =>
      (asksSecond ? askTogether : launchTogether)(siteId, {
        campaigns: drafts.map(({ id, revision }) => ({ id, revision })),
        note,
      }),
    onError: tellProblem,
    onSuccess: () => {
      tell(
        asksSecond
          ? `${quantity(campaigns.length, 'campaign')} wait for a second person to agree to all of them.`
          : `${quantity(campaigns.length, 'campaign')} published together.`,
      );
      onClose();
    },
    onSettled: () => {
      void queryClient.invalidateQueries({ queryKey: campaignsQuery(siteId).queryKey });
      void queryClient.invalidateQueries({ queryKey: ['campaigns'] });
    },
  });
  return (
    <Dialog
      isOpen
      onClose={onClose}
      title={`Launch ${quantity(campaigns.length, 'campaign')} together`}
      description={`All of them are published in one moment, or none is.${asksSecond ? ' In this workspace a second person agrees first.' : ''}`}
      className="w-[min(92vw,40rem)]"
      foot={
        <div className="grid gap-3">
          <Field
            label="What and why, for the history"
            value={note}
            maxLength={MOST_NOTE}
            onChange={(event) => setNote(event.target.value)}
          />
          <div className="flex justify-end gap-2">
            <Button onClick={onClose}>Not yet</Button>
            <Button
              tone="main"
              disabled={!isKnown || isStopped}
              isBusy={launch.isPending}
              onClick={() => launch.mutate()}
            >
              {asksSecond ? 'Ask a second person' : 'Publish all of them'}
            </Button>
          </div>
        </div>
      }
    >
      <div className="grid gap-4">
        <ul aria-label="Campaigns to launch" className="border-t border-line-strong">
          {campaigns.map((campaign) => (
            <li key={campaign.id} className="border-b border-line py-2">
              <p className="font-semibold">{campaign.name}</p>
              <p className="font-serif text-soft">{sentenceText(ruleSentence(campaign, names))}</p>
              {findings[drafts.findIndex(({ id }) => id === campaign.id)]?.map(({ severity, code, text }) => (
                <p
                  key={`${code}${text}`}
                  className={severity === 'stop' ? 'py-0.5 text-halt' : 'py-0.5 text-hold'}
                >
                  <b>{severity === 'stop' ? '■ Stops' : '◇ Look'}</b> {text}
                </p>
              ))}
            </li>
          ))}
        </ul>
        {(isPending || isLooking) && (
          <p role="status" className="text-soft">
            Looking at the site’s pages …
          </p>
        )}
      </div>
    </Dialog>
  );
}
