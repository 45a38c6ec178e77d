import { queryOptions } from '@tanstack/react-query';
import type { Goal, SaveGoal } from '@velarium/contract';
import { request } from './client.ts';

const goals = (siteId: string) => `/sites/${siteId}/goals`;
export const goalsQuery = (siteId: string) =>
  queryOptions({
    queryKey: ['sites', siteId, 'goals'],
    queryFn: () => request<Goal[]>('GET', goals(siteId)),
  });
export const saveGoal = (siteId: string, body: SaveGoal, id?: string) =>
  request<Goal[]>(id ? 'PUT' : 'POST', id ? `${goals(siteId)}/${id}` : goals(siteId), body);
export const removeGoal = (siteId: string, id: string) => request<void>('DELETE', `${goals(siteId)}/${id}`);
