import { useQuery } from '@tanstack/react-query';
import type { CampaignDocument } from '@velarium/contract';
import { lanesOf, meetingWords } from '@velarium/core';
import { useMemo, useState } from 'react';
import { runningQuery, sitePagesQuery } from '../api/queries.ts';
import { useMeetings } from '../season/use-meetings.ts';
import { useSite } from '../site/use-site.ts';
import { when } from '../ui/when.ts';

/** How far ahead one looks. */
const AHEAD_MS = 90 * 86_400_000;
const LISTED = 6;

interface MeetingsOfLaunchProps {
  readonly siteId: string;
  readonly campaignId: string;
  readonly name: string;
  readonly document: CampaignDocument;
  /** Which draft it is. */
  readonly revision: number;
}

/** What of that which runs this launch would meet: at the same time, on the same pages, in the same place of the window. */
export function MeetingsOfLaunch({ siteId, campaignId, name, document, revision }: MeetingsOfLaunchProps) {
  const site = useSite(siteId);
  const { data: pages } = useQuery(sitePagesQuery(siteId));
  const { data: running } = useQuery(runningQuery(siteId));
  const [nowMs] = useState(Date.now);
  const zone = site?.timeZone ?? 'UTC';
  const { schedule } = document.rule.limits;
  const lanes = useMemo(
    () =>
      lanesOf(
        [
          { id: campaignId, name, schedule },
          ...(running ?? [])
            .filter(({ id }) => id !== campaignId)
            .map((one) => ({ id: one.id, name: one.name, schedule: one.document.rule.limits.schedule })),
        ],
        [nowMs, nowMs + AHEAD_MS],
        zone,
      ),
    [campaignId, name, schedule, running, nowMs, zone],
  );
  const found = useMeetings(site, running && pages, lanes, nowMs, campaignId, revision);
  const own = found?.filter(({ first, second }) => first === 0 || second === 0) ?? [];
  if (own.length === 0) return null;
  return (
    <section aria-label="Who else is there" className="grid gap-1">
      <p className="font-semibold">Who else is there</p>
      <ul className="grid gap-1">
        {own.slice(0, LISTED).map((one) => {
          const [fromMs = nowMs] = one.when[0] ?? [];
          return (
            <li key={`${one.first} ${one.second}`} className="border-b border-line pb-1">
              <span aria-hidden="true">◇ </span>
              {meetingWords(one, lanes)}
              {fromMs > nowMs && ` From ${when.format(new Date(fromMs))} on.`}
            </li>
          );
        })}
      </ul>
      {own.length > LISTED && (
        <p className="text-xs text-soft">and {own.length - LISTED} more, on fewer pages</p>
      )}
    </section>
  );
}
