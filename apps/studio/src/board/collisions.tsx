import { useQuery } from '@tanstack/react-query';
import { comingAfter, lanesOf } from '@velarium/core';
import { useEffect, useMemo, useState } from 'react';
import { runningQuery, sitePagesQuery } from '../api/queries.ts';
import { useMeetings } from '../season/use-meetings.ts';
import { useSite } from '../site/use-site.ts';

const AHEAD_MS = 7 * 86_400_000;

interface CollisionsProps {
  readonly siteId: string;
  /** By campaign, what of the others it meets. */
  readonly onFound: (found: ReadonlyMap<string, string>) => void;
}

/** Works out, where nobody waits for it, which running campaigns want one place within the week. */
export function Collisions({ siteId, onFound }: CollisionsProps) {
  const site = useSite(siteId);
  const { data: pages } = useQuery(sitePagesQuery(siteId));
  // As visitors meet them: a draft may say something else.
  const { data: running } = useQuery({ ...runningQuery(siteId), staleTime: 0 });
  const [nowMs] = useState(Date.now);
  const lanes = useMemo(
    () =>
      lanesOf(
        (running ?? []).map(({ id, name, document }) => ({
          id,
          name,
          schedule: document.rule.limits.schedule,
        })),
        [nowMs, nowMs + AHEAD_MS],
        site?.timeZone ?? 'UTC',
      ),
    [running, nowMs, site?.timeZone],
  );
  const found = useMeetings(site, running && pages, lanes, nowMs, 'live');
  useEffect(() => {
    if (found) onFound(comingAfter(found, lanes));
  }, [found, lanes, onFound]);
  return null;
}
