import { useInfiniteQuery, useQuery } from '@tanstack/react-query';
import type { CampaignDocument } from '@velarium/contract';
import { documentSentence, type Finding, sentenceText } from '@velarium/core';
import { campaignQuery } from '../api/queries.ts';
import { historyQuery } from '../api/versions.ts';
import { useNames } from '../board/use-names.ts';
import { Drawn } from './drawn.tsx';
import { LaunchFindings } from './launch-findings.tsx';
import { MeetingsOfLaunch } from './meetings-of-launch.tsx';
import { RehearsalsOfLaunch } from './rehearsals-of-launch.tsx';
import { useVersion } from './use-version.ts';
import { WhatChanges } from './what-changes.tsx';

/** A campaign as it is to be launched. */
export interface ToLaunch {
  readonly campaignId: string;
  readonly name: string;
  readonly document: CampaignDocument;
  /** The draft it was. */
  readonly revision: number;
}

interface LaunchedOneProps {
  readonly siteId: string;
  readonly launch: ToLaunch;
  readonly findings: readonly Finding[];
  readonly isLooking: boolean;
}

/** What a launch that somebody else asks for changes, and what is to be known of it. */
export function LaunchedOne({ siteId, launch, findings, isLooking }: LaunchedOneProps) {
  const { campaignId, name, document, revision } = launch;
  const names = useNames(siteId);
  const { data: campaign } = useQuery(campaignQuery(campaignId));
  const history = useInfiniteQuery(historyQuery(campaignId)).data?.pages[0];
  const met = history?.entries.find(({ what }) => what === 'published')?.version ?? null;
  const live = useVersion(campaignId, history?.live ?? met);
  return (
    <>
      <p className="border-l-2 border-sail pl-4 font-serif text-lg leading-snug">
        {sentenceText(documentSentence(document, names))}
      </p>
      <LaunchFindings findings={findings} isLooking={isLooking} />
      {!live && <Drawn of={{ name: 'As visitors would meet it first', document }} />}
      {live && (
        <section
          aria-label={`What changes for visitors by “${name}”`}
          className="grid gap-3 border-t border-line pt-2"
        >
          <h3 className="font-semibold">What changes for visitors</h3>
          <WhatChanges siteId={siteId} before={live} after={{ name: 'This launch', document }} />
        </section>
      )}
      <MeetingsOfLaunch
        siteId={siteId}
        campaignId={campaignId}
        name={name}
        document={document}
        revision={revision}
      />
      {campaign &&
        (revision === campaign.revision ? (
          <RehearsalsOfLaunch siteId={siteId} campaignId={campaignId} revision={revision} />
        ) : (
          <p className="text-soft">
            The draft has been changed since, so the kept rehearsals are not played: they would play the
            draft.
          </p>
        ))}
    </>
  );
}
