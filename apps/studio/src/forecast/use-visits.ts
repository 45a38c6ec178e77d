import { useQuery } from '@tanstack/react-query';
import type { Site, Traffic } from '@velarium/contract';
import { type InventedSite, inventTraffic, USUAL_SITE, VISITS_FROM, type VisitsFrom } from '@velarium/core';
import { useMemo, useState } from 'react';
import { useSearchParams } from 'react-router';
import { trafficQuery } from '../api/forecasts.ts';
import { sitePagesQuery } from '../api/queries.ts';
import { useLog } from './use-log.ts';

/** Which visits are replayed, and those visits once they are known. */
export function useVisits(site: Site) {
  const [search, setSearch] = useSearchParams();
  const from = VISITS_FROM.find((one) => one === search.get('visits')) ?? 'recorded';
  const [days, setDays] = useState(28);
  const [invented, setInvented] = useState<InventedSite>(USUAL_SITE);
  const recorded = useQuery({ ...trafficQuery(site.id, days), enabled: from === 'recorded' });
  const pages = useQuery({ ...sitePagesQuery(site.id), enabled: from === 'invented' });
  const log = useLog(site);
  const known = pages.data;
  const made = useMemo(
    () =>
      known &&
      inventTraffic({
        site: invented,
        // Its first page first, then those that are listed.
        paths: [...new Set(['/', ...known.map(({ path }) => path)])],
        days,
        untilMs: Date.now(),
        timeZone: site.timeZone,
      }),
    [known, invented, days, site.timeZone],
  );
  const traffic: Traffic | null | undefined = {
    recorded: recorded.data,
    log: log.log?.traffic,
    invented: made,
  }[from];
  const asked = from === 'recorded' ? recorded : pages;
  return {
    from,
    choose: (next: VisitsFrom) =>
      setSearch(
        (old) => {
          const changed = new URLSearchParams(old);
          if (next === 'recorded') changed.delete('visits');
          else changed.set('visits', next);
          return changed;
        },
        { replace: true },
      ),
    days,
    setDays,
    invented,
    setInvented,
    log,
    traffic: traffic ?? undefined,
    /** Nothing is asked of the server for a log. */
    asked: from === 'log' ? [] : [asked],
  };
}
export type Visits = ReturnType<typeof useVisits>;
