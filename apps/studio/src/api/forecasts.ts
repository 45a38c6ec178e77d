import { queryOptions } from '@tanstack/react-query';
import type { Traffic } from '@velarium/contract';
import { request } from './client.ts';

/** What was recorded lately says much the same for a while; it is large. */
const STALE_MS = 10 * 60_000;

export const trafficQuery = (siteId: string, days: number) =>
  queryOptions({
    queryKey: ['sites', siteId, 'traffic', days],
    queryFn: () => request<Traffic>('GET', `/sites/${siteId}/traffic?days=${days}`),
    staleTime: STALE_MS,
  });
