import { queryOptions } from '@tanstack/react-query';
import type { Foreseen, Traffic } from '@velarium/contract';
import { MOST_TRAFFIC } from '@velarium/contract/values';
import { request } from './client.ts';

/** Launches with what was foreseen of them, held against what came. */
export const foreseenQuery = (siteId: string) =>
  queryOptions({
    queryKey: ['sites', siteId, 'foreseen'],
    queryFn: () => request<Foreseen[]>('GET', `/sites/${siteId}/foreseen`),
  });
/** Where the forecast of a draft is found once the Workbench has it: it goes with the launch. */
export const draftForecastKey = (campaignId: string, revision: number) =>
  ['campaigns', campaignId, 'forecast', revision] as const;

/** What was recorded lately says much the same for a while; it is large. */
const STALE_MS = 10 * 60_000;

export const trafficQuery = (siteId: string, days: number, most = MOST_TRAFFIC) =>
  queryOptions({
    queryKey: ['sites', siteId, 'traffic', days, most],
    queryFn: () => request<Traffic>('GET', `/sites/${siteId}/traffic?days=${days}&most=${most}`),
    staleTime: STALE_MS,
  });
