import { queryOptions } from '@tanstack/react-query';
import type { CampaignGoals, Goal, SaveGoal } from '@velarium/contract';
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
export const campaignGoalsQuery = (campaignId: string) =>
  queryOptions({
    queryKey: ['campaigns', campaignId, 'goals'],
    queryFn: () => request<CampaignGoals>('GET', `/campaigns/${campaignId}/goals`),
  });
export const chooseGoals = (campaignId: string, goals: CampaignGoals['goals']) =>
  request<CampaignGoals>('PUT', `/campaigns/${campaignId}/goals`, { goals });
