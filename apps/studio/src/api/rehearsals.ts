import { queryOptions } from '@tanstack/react-query';
import type { Cast, KeptRehearsal, Rehearsed, SaveRehearsal } from '@velarium/contract';
import { request } from './client.ts';

const rehearsals = (siteId: string) => `/sites/${siteId}/rehearsals`;

/** `of` is `live`, `drafts`, or the campaign whose draft stands among those that run. */
export const castQuery = (siteId: string, of: string, revision?: number) =>
  queryOptions({
    // Another revision is another cast.
    queryKey: ['sites', siteId, 'cast', of, revision],
    queryFn: () => request<Cast>('GET', `/sites/${siteId}/cast?of=${encodeURIComponent(of)}`),
  });
export const rehearsalsQuery = (siteId: string) =>
  queryOptions({
    queryKey: ['sites', siteId, 'rehearsals'],
    queryFn: () => request<KeptRehearsal[]>('GET', rehearsals(siteId)),
  });
/** `revision` is that of the draft it is asked of: another one is played anew. */
export const playedQuery = (siteId: string, of: string, revision: number) =>
  queryOptions({
    queryKey: ['sites', siteId, 'rehearsals', 'played', of, revision],
    queryFn: () => request<Rehearsed[]>('GET', `${rehearsals(siteId)}/played?of=${encodeURIComponent(of)}`),
    staleTime: 0,
  });
export const saveRehearsal = (siteId: string, body: SaveRehearsal, id?: string) =>
  request<KeptRehearsal>(id ? 'PUT' : 'POST', id ? `${rehearsals(siteId)}/${id}` : rehearsals(siteId), body);
export const removeRehearsal = (siteId: string, id: string) =>
  request<void>('DELETE', `${rehearsals(siteId)}/${id}`);
