import { queryOptions } from '@tanstack/react-query';
import type { Traffic } from '@velarium/contract';
import { MOST_TRAFFIC } from '@velarium/contract/values';
import { request } from './client.ts';

/** What was recorded lately says much the same for a while; it is large. */
const STALE_MS = 10 * 60_000;

export const trafficQuery = (siteId: string, days: number, most = MOST_TRAFFIC) =>
  queryOptions({
    queryKey: ['sites', siteId, 'traffic', days, most],
    queryFn: () => request<Traffic>('GET', `/sites/${siteId}/traffic?days=${days}&most=${most}`),
    staleTime: STALE_MS,
  });
