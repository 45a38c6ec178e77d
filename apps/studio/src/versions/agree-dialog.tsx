import { useInfiniteQuery, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { Campaign, PlannedDocument } from '@velarium/contract';
import { MOST_NOTE } from '@velarium/contract/values';
import { documentSentence, sentenceText } from '@velarium/core';
import { useMemo, useState } from 'react';
import { campaignQuery, campaignsQuery } from '../api/queries.ts';
import { agreeToLaunch, declineLaunch, historyQuery, plannedQuery } from '../api/versions.ts';
import { useNames } from '../board/use-names.ts';
import { Button } from '../ui/button.tsx';
import { Dialog } from '../ui/dialog.tsx';
import { Field } from '../ui/field.tsx';
import { ErrorState, Skeleton } from '../ui/states.tsx';
import { tell, tellProblem } from '../ui/toast.tsx';
import { when } from '../ui/when.ts';
import { Drawn } from './drawn.tsx';
import { LaunchFindings } from './launch-findings.tsx';
import { MeetingsOfLaunch } from './meetings-of-launch.tsx';
import { RehearsalsOfLaunch } from './rehearsals-of-launch.tsx';
import { useLaunchChecks } from './use-launch-checks.ts';
import { useVersion } from './use-version.ts';
import { WhatChanges } from './what-changes.tsx';

interface AgreeDialogProps {
  readonly campaign: Campaign;
  readonly onClose: () => void;
}

/** What somebody else asks to launch, as its own launch shows it, to be agreed to or not. */
export function AgreeDialog({ campaign, onClose }: AgreeDialogProps) {
  const { data: plan, error, refetch } = useQuery(plannedQuery(campaign.id));
  return plan ? (
    <Sheet key={plan.id} campaign={campaign} plan={plan} onClose={onClose} />
  ) : (
    <Dialog isOpen onClose={onClose} title={`Launch “${campaign.name}”`}>
      {error ? (
        <ErrorState error={error} onRetry={() => void refetch()} />
      ) : (
        <Skeleton rows={4} label="Loading what is to be launched" />
      )}
    </Dialog>
  );
}

function Sheet({ campaign, plan, onClose }: AgreeDialogProps & { readonly plan: PlannedDocument }) {
  const { id, siteId, name } = campaign;
  const { document, at } = plan;
  const names = useNames(siteId);
  const queryClient = useQueryClient();
  const [why, setWhy] = useState('');
  const launched = useMemo(() => [{ id, name, document }], [id, name, document]);
  const {
    findings: [findings = []],
    isPending,
    isLooking,
  } = useLaunchChecks(siteId, launched);
  const history = useInfiniteQuery(historyQuery(id)).data?.pages[0];
  const met = history?.entries.find(({ what }) => what === 'published')?.version ?? null;
  const live = useVersion(id, history?.live ?? met);
  const onSettled = () => {
    void queryClient.invalidateQueries({ queryKey: historyQuery(id).queryKey });
    void queryClient.invalidateQueries({ queryKey: plannedQuery(id).queryKey });
    void queryClient.invalidateQueries({ queryKey: campaignQuery(id).queryKey });
    void queryClient.invalidateQueries({ queryKey: campaignsQuery(siteId).queryKey });
  };
  const agree = useMutation({
    mutationFn: () => agreeToLaunch(id, plan.id),
    onError: tellProblem,
    onSuccess: (saved) => {
      tell(
        saved.plannedAt
          ? `Agreed. “${name}” launches by itself ${when.format(new Date(saved.plannedAt))}.`
          : `Agreed. “${name}” is published.`,
      );
      onClose();
    },
    onSettled,
  });
  const decline = useMutation({
    mutationFn: () => declineLaunch(id, plan.id, why),
    onError: tellProblem,
    onSuccess: () => {
      tell(`Not agreed to. “${name}” stays as it is, and the history says why.`);
      onClose();
    },
    onSettled,
  });
  const isBusy = agree.isPending || decline.isPending;
  return (
    <Dialog
      isOpen
      onClose={onClose}
      title={`Launch “${name}”`}
      description={`${plan.byName} asks you to agree${at ? ` to a launch ${when.format(new Date(at))}` : ''}.`}
      className="w-[min(94vw,46rem)]"
      foot={
        <div className="grid gap-3">
          <Field
            label="If you do not agree: why, for the history"
            value={why}
            maxLength={MOST_NOTE}
            onChange={(event) => setWhy(event.target.value)}
          />
          <div className="flex justify-end gap-2">
            <Button disabled={isBusy} isBusy={decline.isPending} onClick={() => decline.mutate()}>
              Do not agree
            </Button>
            <Button
              tone="main"
              disabled={isBusy || isPending || findings.some(({ severity }) => severity === 'stop')}
              isBusy={agree.isPending}
              onClick={() => agree.mutate()}
            >
              {at ? 'Agree' : 'Agree and publish'}
            </Button>
          </div>
        </div>
      }
    >
      <div className="grid gap-5">
        <p className="border-l-2 border-sail pl-4 font-serif text-lg leading-snug">
          {sentenceText(documentSentence(document, names))}
        </p>
        {plan.note && <p>“{plan.note}”</p>}
        <LaunchFindings findings={findings} isLooking={isLooking || isPending} />
        {!live && <Drawn of={{ name: 'As visitors would meet it first', document }} />}
        {live && (
          <section aria-label="What changes for visitors" className="grid gap-3 border-t border-line pt-2">
            <h3 className="font-semibold">What changes for visitors</h3>
            <WhatChanges siteId={siteId} before={live} after={{ name: 'This launch', document }} />
          </section>
        )}
        <MeetingsOfLaunch
          siteId={siteId}
          campaignId={id}
          name={name}
          document={document}
          revision={plan.revision}
        />
        {plan.revision === campaign.revision ? (
          <RehearsalsOfLaunch siteId={siteId} campaignId={id} revision={plan.revision} />
        ) : (
          <p className="text-sm text-soft">
            The draft has been changed since, so the kept rehearsals are not played: they would play the
            draft.
          </p>
        )}
      </div>
    </Dialog>
  );
}
