import { counted, shareOf } from '@velarium/core';
import { useEffect, useRef } from 'react';
import type { CampaignFound } from '../api/results.ts';
import { Rate } from '../ui/rate.tsx';
import { when } from '../ui/when.ts';
import { useVersion } from '../versions/use-version.ts';
import { WhatChanges } from '../versions/what-changes.tsx';

interface VersionsProps {
  readonly siteId: string;
  readonly results: CampaignFound;
  readonly scaleTo: number;
  /** The version whose changes are shown. */
  readonly opened: number | null;
  readonly onOpen: (version: number | null) => void;
}

/** What each published version did, beside what it changed. */
export function VersionsOfCampaign({ siteId, results, scaleTo, opened, onOpen }: VersionsProps) {
  const { versions, counts, id } = results;
  if (versions.length < 2 && opened === null) return null;
  const isMet = versions.some(({ version }) => version === opened);
  return (
    <section aria-label="What each version did" className="grid gap-3">
      <h2 className="font-serif text-xl">What each version did</h2>
      <ul className="grid max-w-4xl">
        {versions.map((one) => (
          <li key={one.version} className="border-b border-line py-2">
            <div className="grid grid-cols-[14rem_8rem_1fr_8rem] items-center gap-6 max-sm:grid-cols-2 max-sm:gap-2">
              <span>
                <b className="font-medium">Version {one.version}</b>
                <span className="block text-xs text-soft">
                  published {when.format(new Date(one.publishedAt))}
                </span>
              </span>
              <span className="text-right">
                {counted(one.visitors, 'visitor')}
                <span className="block text-xs text-soft">{shareOf(one.visitors, counts.visitors)}</span>
              </span>
              <Rate {...one} scaleTo={scaleTo} />
              <button
                type="button"
                aria-expanded={opened === one.version}
                className="justify-self-end underline underline-offset-4"
                onClick={() => onOpen(opened === one.version ? null : one.version)}
              >
                What it changed
              </button>
            </div>
            {opened === one.version && <Changed siteId={siteId} campaignId={id} version={one.version} />}
          </li>
        ))}
      </ul>
      {opened !== null && !isMet && (
        <div className="max-w-4xl">
          <p className="text-soft">Version {opened} was met by nobody on these days.</p>
          <Changed siteId={siteId} campaignId={id} version={opened} />
        </div>
      )}
    </section>
  );
}

interface ChangedProps {
  readonly siteId: string;
  readonly campaignId: string;
  readonly version: number;
}

function Changed({ siteId, campaignId, version }: ChangedProps) {
  const ref = useRef<HTMLDivElement>(null);
  const before = useVersion(campaignId, version > 1 ? version - 1 : null);
  const after = useVersion(campaignId, version);
  useEffect(() => {
    ref.current?.scrollIntoView({ block: 'nearest' });
  }, []);
  return (
    <div ref={ref} className="py-4">
      {version === 1 ? (
        <p className="text-soft">It was the first: nothing was there before it.</p>
      ) : before && after ? (
        <WhatChanges siteId={siteId} before={before} after={after} />
      ) : (
        <p role="status" className="text-soft">
          Reading both versions …
        </p>
      )}
    </div>
  );
}
