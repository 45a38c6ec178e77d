import { useInfiniteQuery, useMutation, useQueryClient } from '@tanstack/react-query';
import type { Campaign, KeptForecast } from '@velarium/contract';
import { documentSentence, type Finding, instantOf, sentenceText } from '@velarium/core';
import { useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { draftForecastKey } from '../api/forecasts.ts';
import {
  campaignQuery,
  campaignsQuery,
  publishCampaign,
  readCampaign,
  sessionQuery,
} from '../api/queries.ts';
import { historyQuery, planLaunch } from '../api/versions.ts';
import { useSession } from '../app/use-session.ts';
import { isLive } from '../board/state-mark.tsx';
import { useNames } from '../board/use-names.ts';
import { useCoveredPages, useSite } from '../site/use-site.ts';
import { Button } from '../ui/button.tsx';
import { Dialog } from '../ui/dialog.tsx';
import { mayGlide } from '../ui/glide.ts';
import { tellOf, tellProblem } from '../ui/toast.tsx';
import { when } from '../ui/when.ts';
import { LaunchFindings } from '../versions/launch-findings.tsx';
import { MeetingsOfLaunch } from '../versions/meetings-of-launch.tsx';
import { RehearsalsOfLaunch } from '../versions/rehearsals-of-launch.tsx';
import { useLaunchChecks } from '../versions/use-launch-checks.ts';
import { useVersion } from '../versions/use-version.ts';
import { WhatChanges } from '../versions/what-changes.tsx';
import { LaunchWhen } from './launch-when.tsx';
import { changedWords } from './places.ts';
import { type Side, useWorkbench, useWorkbenchStore } from './store.ts';

const SIDE_OF: Readonly<Record<Finding['part'], Side>> = {
  message: 'message',
  place: 'message',
  closing: 'message',
  moment: 'moment',
  pages: 'reach',
  devices: 'reach',
  audience: 'reach',
  schedule: 'limits',
  busy: 'limits',
  caps: 'limits',
  priority: 'limits',
  memory: 'limits',
  experiment: 'limits',
  afterNo: 'limits',
  afterClose: 'limits',
  afterConversion: 'limits',
};

/** What a campaign is once it is published, which its schedule has a say in. */
function publishedWords({ name, state, nextChangeAt }: Campaign): string {
  if (state === 'ended') return `“${name}” is published, but its schedule is over: nobody meets it.`;
  if (state !== 'scheduled') return `“${name}” is running.`;
  return nextChangeAt
    ? `“${name}” is published and begins ${when.format(new Date(nextChangeAt))}.`
    : `“${name}” is published and waits for its schedule.`;
}

export interface LaunchDialogProps {
  readonly onClose: () => void;
  /** Saves what is unsaved; publishing waits for it. */
  readonly flush: () => Promise<void>;
}

/** The checks before publishing, what visitors will meet, and the publishing itself. */
export function LaunchDialog({ onClose, flush }: LaunchDialogProps) {
  const store = useWorkbenchStore();
  const navigate = useNavigate();
  const queryClient = useQueryClient();
  const current = useWorkbench((state) => state.document);
  // What the sheet shows is what is published: a change that comes meanwhile is named, and looked at first.
  const [document, setDocument] = useState(current);
  const changed = changedWords(document, current);
  const name = useWorkbench((state) => state.name);
  const isPublished = useWorkbench((state) => isLive(state.campaignState));
  const siteId = useWorkbench((state) => state.siteId);
  const draftRevision = useWorkbench((state) => state.revision);
  const asksSecond = useSession()?.workspace.asksSecond === true;
  const names = useNames(siteId);
  const { covered } = useCoveredPages(siteId, document.rule.reach.pages);
  const site = useSite(siteId);
  const zone = site?.timeZone ?? 'UTC';
  const launched = useMemo(() => [{ id: store.getState().id, name, document }], [store, name, document]);
  const {
    findings: [findings = []],
    isPending,
    isLooking,
  } = useLaunchChecks(siteId, launched);
  const history = useInfiniteQuery(historyQuery(store.getState().id)).data?.pages[0];
  // What visitors meet, or last met.
  const met = history?.entries.find(({ what }) => what === 'published')?.version ?? null;
  const live = useVersion(store.getState().id, history?.live ?? met);
  const [note, setNote] = useState('');
  const [at, setAt] = useState<string | null>(null);
  const isStopped = findings.some(({ severity }) => severity === 'stop');
  const publish = useMutation({
    mutationFn: async () => {
      await flush();
      const { id, revision, document: saved } = store.getState();
      // The sheet says by itself what has changed, and is to be read again.
      if (changedWords(document, saved).length > 0) return null;
      const forecast = queryClient.getQueryData<KeptForecast>(draftForecastKey(id, revision));
      if (at === null && !asksSecond) return publishCampaign(id, { revision, note, forecast });
      const planned = at === null ? null : new Date(instantOf(Date.parse(`${at}:00Z`), zone)).toISOString();
      await planLaunch(id, { revision, at: planned, note, forecast });
      return readCampaign(id);
    },
    onError: (error) => {
      tellProblem(error);
      // Since one has signed in, the workspace may have begun to ask for a second person.
      void queryClient.invalidateQueries({ queryKey: sessionQuery.queryKey });
      void queryClient.invalidateQueries({ queryKey: campaignQuery(store.getState().id).queryKey });
    },
    onSuccess: (campaign) => {
      if (!campaign) return;
      store.getState().takeServer(campaign);
      queryClient.setQueryData(campaignQuery(campaign.id).queryKey, campaign);
      // On the Board it stands where it belongs from the first, and nothing moves under a hand.
      const { document: _, ...summary } = campaign;
      const board = campaignsQuery(campaign.siteId).queryKey;
      queryClient.setQueryData(board, (all) => all?.map((one) => (one.id === campaign.id ? summary : one)));
      void queryClient.invalidateQueries({ queryKey: board });
      const [first] = covered;
      const address = site?.origins[0] && first && site.origins[0] + first.path;
      void queryClient.invalidateQueries({ queryKey: historyQuery(campaign.id).queryKey });
      tellOf(
        campaign.awaits
          ? `“${campaign.name}” waits for a second person to agree. Whoever may is told, here and by mail.`
          : at !== null && campaign.plannedAt
            ? `“${campaign.name}” launches by itself ${when.format(new Date(campaign.plannedAt))}.`
            : publishedWords(campaign),
        at === null && !campaign.awaits && campaign.state === 'running' && address
          ? { label: 'See it on the site', onClick: () => window.open(address, '_blank', 'noopener') }
          : undefined,
      );
      onClose();
      navigate(`/sites/${campaign.siteId}/board`, { viewTransition: mayGlide() });
    },
  });
  return (
    <Dialog
      isOpen
      onClose={onClose}
      title={`Launch “${name}”`}
      className="w-[min(94vw,46rem)]"
      foot={
        <div className="grid gap-3">
          <LaunchWhen zone={zone} at={at} onAt={setAt} note={note} onNote={setNote} />
          <p className="text-soft">
            {asksSecond
              ? 'In this workspace a second person agrees first. They are shown what this sheet shows, of the draft as it is now.'
              : isPublished
                ? 'It is running already. Visitors get this version at their next load of a page; who has seen it often enough stays spared.'
                : 'Visitors can meet it from their next load of a page. It can be put to rest at any time.'}
          </p>
          <div className="flex justify-end gap-2">
            <Button onClick={onClose}>Not yet</Button>
            <Button
              tone="main"
              disabled={isStopped || changed.length > 0 || isPending}
              isBusy={publish.isPending}
              onClick={() => publish.mutate()}
            >
              {asksSecond
                ? 'Ask a second person'
                : at !== null
                  ? 'Plan the launch'
                  : isPublished
                    ? 'Publish this version'
                    : 'Publish'}
            </Button>
          </div>
        </div>
      }
    >
      <div className="grid gap-5">
        <p className="border-l-2 border-sail pl-4 font-serif text-lg leading-snug">
          {sentenceText(documentSentence(document, names))}
        </p>
        {changed.length > 0 && (
          <div role="alert" className="grid gap-2 border border-hold p-3">
            <p className="font-semibold">Changed since you opened it</p>
            <p>{changed.join(', ')}</p>
            <div>
              <Button onClick={() => setDocument(current)}>Show it as it is now</Button>
            </div>
          </div>
        )}
        <LaunchFindings
          findings={findings}
          isLooking={isLooking || isPending}
          onMend={(part) => {
            store.getState().openSide(SIDE_OF[part]);
            onClose();
          }}
        />
        {live && (
          <details open className="border-t border-line pt-2">
            <summary className="font-semibold">What changes for visitors</summary>
            <div className="pt-3">
              <WhatChanges siteId={siteId} before={live} after={{ name: 'This launch', document }} />
            </div>
          </details>
        )}
        <MeetingsOfLaunch
          siteId={siteId}
          campaignId={store.getState().id}
          name={name}
          document={document}
          revision={draftRevision}
        />
        <RehearsalsOfLaunch siteId={siteId} campaignId={store.getState().id} revision={draftRevision} />
      </div>
    </Dialog>
  );
}
