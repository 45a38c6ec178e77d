import { useQuery } from '@tanstack/react-query';
import type { Device, Manifest, Site } from '@velarium/contract';
import { MET_ON_DAYS } from '@velarium/contract/values';
import { type CellsSay, type Coverage, type HowOften, howOften, USUAL_ASSUMPTIONS } from '@velarium/core';
import { useMemo } from 'react';
import { trafficQuery } from '../api/forecasts.ts';
import { metByPageQuery } from '../api/results.ts';
import { useReplay } from '../forecast/use-replay.ts';

const CAST = 'coverage';

export interface Often {
  /** Missing until it is known, and where nobody asks. */
  readonly often: HowOften | undefined;
  /** What is going on, or why nothing is known. */
  readonly status: string | undefined;
  /** Ends a replay that takes too long. */
  readonly stop: (() => void) | undefined;
}

/** How often each campaign of the map was met on each page with this device, or would be: the site's own visits replayed against them. */
export function useOften(
  say: CellsSay,
  site: Site,
  manifest: Manifest,
  coverage: Coverage | undefined,
  device: Device,
): Often {
  const met = useQuery({ ...metByPageQuery(site.id), enabled: say === 'met' });
  const traffic = useQuery({ ...trafficQuery(site.id, MET_ON_DAYS), enabled: say === 'foreseen' });
  const casts = useMemo(() => (say === 'foreseen' ? [{ key: CAST, manifest }] : undefined), [say, manifest]);
  const visits = traffic.data;
  const isEmpty = visits?.list.length === 0;
  const replay = useReplay(
    casts,
    isEmpty ? undefined : visits,
    USUAL_ASSUMPTIONS,
    site.origins[0] ?? 'https://site.example',
  );
  const told = say === 'met' ? met.data : say === 'foreseen' ? replay.byPage.get(CAST) : undefined;
  const often = useMemo(
    () => (coverage && told ? howOften(coverage, told, site.settings, device) : undefined),
    [coverage, told, site.settings, device],
  );
  if (say === 'who' || often) return { often, status: undefined, stop: undefined };
  const nothing = { often: undefined, stop: undefined };
  if (say === 'met' ? met.isError : traffic.isError || replay.hasFailed)
    return { ...nothing, status: 'It could not be read how often. Load the page again.' };
  if (say === 'met') return { ...nothing, status: 'Reading how often each was met …' };
  if (isEmpty)
    return { ...nothing, status: 'Nothing has been recorded on this site yet, so nothing can be foreseen.' };
  if (replay.isStopped)
    return {
      ...nothing,
      status: 'Stopped before the last visitor. Choose another and come back to begin anew.',
    };
  const share = visits ? (replay.forecasts.get(CAST)?.played ?? 0) / visits.list.length : 0;
  return {
    often: undefined,
    status: `Replaying the site’s own visits: ${Math.floor(share * 100)} %`,
    stop: visits && replay.stop,
  };
}
