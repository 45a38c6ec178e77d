import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { Campaign, PlannedDocument } from '@velarium/contract';
import { MOST_NOTE } from '@velarium/contract/values';
import { quantity } from '@velarium/core';
import { useMemo, useState } from 'react';
import { campaignsQuery } from '../api/queries.ts';
import { agreeToLaunch, declineLaunch, plannedQuery } from '../api/versions.ts';
import { Button } from '../ui/button.tsx';
import { Dialog } from '../ui/dialog.tsx';
import { Field } from '../ui/field.tsx';
import { ErrorState, Skeleton } from '../ui/states.tsx';
import { tell, tellProblem } from '../ui/toast.tsx';
import { when } from '../ui/when.ts';
import { LaunchedOne, type ToLaunch } from './launched-one.tsx';
import { useLaunchChecks } from './use-launch-checks.ts';

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
  const { document, revision, at, others } = plan;
  const queryClient = useQueryClient();
  const [why, setWhy] = useState('');
  const launches = useMemo(
    (): readonly ToLaunch[] => [{ campaignId: id, name, document, revision }, ...others],
    [id, name, document, revision, others],
  );
  const launched = useMemo(
    () => launches.map((one) => ({ id: one.campaignId, name: one.name, document: one.document })),
    [launches],
  );
  const { findings, isPending, isLooking } = useLaunchChecks(siteId, launched);
  const isStopped = findings.some((list) => list.some(({ severity }) => severity === 'stop'));
  const all = others.length > 0 ? `“${name}” and ${quantity(others.length, 'other campaign')}` : `“${name}”`;
  const onSettled = () => {
    void queryClient.invalidateQueries({ queryKey: ['campaigns'] });
    void queryClient.invalidateQueries({ queryKey: campaignsQuery(siteId).queryKey });
  };
  const agree = useMutation({
    mutationFn: () => agreeToLaunch(id, plan),
    onError: tellProblem,
    onSuccess: (saved) => {
      tell(
        saved.plannedAt
          ? `Agreed. “${name}” launches by itself ${when.format(new Date(saved.plannedAt))}.`
          : `Agreed. ${all} ${others.length > 0 ? 'are' : 'is'} published.`,
      );
      onClose();
    },
    onSettled,
  });
  const decline = useMutation({
    mutationFn: () => declineLaunch(id, plan.id, why),
    onError: tellProblem,
    onSuccess: () => {
      tell(
        others.length > 0
          ? `Not agreed to. ${all} stay as they are, and the history says why.`
          : `Not agreed to. ${all} stays as it is, and the history says why.`,
      );
      onClose();
    },
    onSettled,
  });
  const isBusy = agree.isPending || decline.isPending;
  return (
    <Dialog
      isOpen
      onClose={onClose}
      title={
        others.length > 0 ? `Launch ${quantity(launches.length, 'campaign')} together` : `Launch “${name}”`
      }
      description={`${plan.byName} asks you to agree${at ? ` to a launch ${when.format(new Date(at))}` : ''}.${others.length > 0 ? ' All of them are published in one moment, or none is.' : ''}`}
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
              disabled={isBusy || isPending || isStopped}
              isBusy={agree.isPending}
              onClick={() => agree.mutate()}
            >
              {at ? 'Agree' : others.length > 0 ? 'Agree and publish all' : 'Agree and publish'}
            </Button>
          </div>
        </div>
      }
    >
      <div className="grid gap-5">
        {plan.note && <p>“{plan.note}”</p>}
        {launches.map((launch, n) => (
          <article key={launch.campaignId} aria-label={launch.name} className="grid gap-5">
            {others.length > 0 && (
              <h2 className="border-t border-line-strong pt-3 text-lg font-semibold">{launch.name}</h2>
            )}
            <LaunchedOne
              siteId={siteId}
              launch={launch}
              findings={findings[n] ?? []}
              isLooking={isLooking || isPending}
            />
          </article>
        ))}
      </div>
    </Dialog>
  );
}
