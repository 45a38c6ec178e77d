import { infiniteQueryOptions, queryOptions } from '@tanstack/react-query';
import type {
  Campaign,
  CampaignDocument,
  CampaignHistory,
  CampaignVersion,
  EarlierDraft,
  LaunchTogether,
  MessageFile,
  PlanLaunch,
  PlannedDocument,
  PlannedLaunch,
} from '@velarium/contract';
import { request } from './client.ts';

const campaign = (id: string) => `/campaigns/${id}`;

export const historyQuery = (campaignId: string) =>
  infiniteQueryOptions({
    queryKey: ['campaigns', campaignId, 'history'],
    queryFn: ({ pageParam }) =>
      request<CampaignHistory>(
        'GET',
        `${campaign(campaignId)}/history${pageParam && `?${new URLSearchParams({ cursor: pageParam })}`}`,
      ),
    initialPageParam: '',
    getNextPageParam: ({ next }) => next,
    staleTime: 0,
  });
/** What is frozen never changes but for the files a Look has drawn anew. */
export const versionQuery = (campaignId: string, version: number | null) =>
  queryOptions({
    queryKey: ['campaigns', campaignId, 'versions', version],
    queryFn: () => request<CampaignVersion>('GET', `${campaign(campaignId)}/versions/${version}`),
    enabled: version !== null,
  });
export const frozenFileQuery = (campaignId: string, hash: string | undefined) =>
  queryOptions({
    queryKey: ['campaigns', campaignId, 'messages', hash],
    queryFn: () => request<MessageFile>('GET', `${campaign(campaignId)}/messages/${hash}`),
    enabled: hash !== undefined,
    staleTime: Number.POSITIVE_INFINITY,
  });
/** When the draft was saved, the older first. */
export const earlierDraftsQuery = (campaignId: string) =>
  queryOptions({
    queryKey: ['campaigns', campaignId, 'drafts'],
    queryFn: () => request<EarlierDraft[]>('GET', `${campaign(campaignId)}/drafts`),
    staleTime: 0,
  });
/** An earlier draft never changes. */
export const earlierDraftQuery = (campaignId: string, revision: number) =>
  queryOptions({
    queryKey: ['campaigns', campaignId, 'drafts', revision],
    queryFn: () => request<CampaignDocument>('GET', `${campaign(campaignId)}/drafts/${revision}`),
    staleTime: Number.POSITIVE_INFINITY,
  });
export const bringBack = (campaignId: string, version: number, note: string) =>
  request<Campaign>('POST', `${campaign(campaignId)}/versions/${version}/publish`, { note });
export const planLaunch = (campaignId: string, plan: PlanLaunch) =>
  request<PlannedLaunch>('PUT', `${campaign(campaignId)}/plan`, plan);
/** Somebody else may agree to it, change it or call it off at any moment. */
export const plannedQuery = (campaignId: string) =>
  queryOptions({
    queryKey: ['campaigns', campaignId, 'plan'],
    queryFn: () => request<PlannedDocument>('GET', `${campaign(campaignId)}/plan`),
    staleTime: 0,
  });
export const agreeToLaunch = (campaignId: string, { id, others }: PlannedDocument) =>
  request<Campaign>('POST', `${campaign(campaignId)}/plan/agree`, {
    id,
    others: others.map((one) => one.id),
  });
export const declineLaunch = (campaignId: string, id: string, note: string) =>
  request<void>('POST', `${campaign(campaignId)}/plan/decline`, { id, note });
export const callOffLaunch = (campaignId: string) => request<void>('DELETE', `${campaign(campaignId)}/plan`);
/** Asks a second person to agree to all of them. */
export const askTogether = (siteId: string, launch: LaunchTogether) =>
  request<void>('POST', `/sites/${siteId}/launches/asked`, launch);
export const launchTogether = (siteId: string, launch: LaunchTogether) =>
  request<void>('POST', `/sites/${siteId}/launches`, launch);
