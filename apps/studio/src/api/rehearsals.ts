import { queryOptions } from '@tanstack/react-query';
import type { Cast, KeptRehearsal, Rehearsed, Rule, SaveRehearsal } from '@velarium/contract';
import { request } from './client.ts';

const rehearsals = (siteId: string) => `/sites/${siteId}/rehearsals`;

/** `of` is `live`, `drafts`, or the campaign whose draft stands among those that run. */
export const castQuery = (siteId: string, of: string, revision?: number) =>
  queryOptions({
    // Another revision is another cast.
    queryKey: ['sites', siteId, 'cast', of, revision],
    queryFn: () => request<Cast>('GET', `/sites/${siteId}/cast?of=${encodeURIComponent(of)}`),
  });
/** The draft of a campaign under another rule, among those that run. Nothing is kept of it. */
export const castWithRuleQuery = (siteId: string, of: string, rule: Rule | undefined) =>
  queryOptions({
    queryKey: ['sites', siteId, 'cast', of, 'with', rule],
    queryFn: () => request<Cast>('POST', `/sites/${siteId}/cast`, { of, rule }),
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
