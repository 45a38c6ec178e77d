import { queryOptions } from '@tanstack/react-query';
import type {
  AddMember,
  Campaign,
  CampaignDocument,
  CampaignSummary,
  CreateCampaign,
  Lead,
  Member,
  Role,
  Session,
  SignIn,
  Site,
  SitePage,
} from '@velarium/contract';
import { rememberCsrfToken, request } from './client.ts';

const withToken = (session: Session): Session => {
  rememberCsrfToken(session.csrfToken);
  return session;
};

export const sessionQuery = queryOptions({
  queryKey: ['session'],
  queryFn: async () => withToken(await request<Session>('GET', '/session')),
  staleTime: Number.POSITIVE_INFINITY,
  retry: false,
});
export const signIn = async (body: SignIn) => withToken(await request<Session>('POST', '/session', body));
export const signOut = () => request<void>('DELETE', '/session');

export const membersQuery = queryOptions({
  queryKey: ['members'],
  queryFn: () => request<Member[]>('GET', '/members'),
});
export const addMember = (body: AddMember) => request<Member>('POST', '/members', body);
export const changeRole = (accountId: string, role: Role) =>
  request<void>('PATCH', `/members/${accountId}`, { role });
export const removeMember = (accountId: string) => request<void>('DELETE', `/members/${accountId}`);

export const sitesQuery = queryOptions({
  queryKey: ['sites'],
  queryFn: () => request<Site[]>('GET', '/sites'),
});
export const sitePagesQuery = (siteId: string) =>
  queryOptions({
    queryKey: ['sites', siteId, 'pages'],
    queryFn: () => request<SitePage[]>('GET', `/sites/${siteId}/pages`),
    staleTime: 60_000,
  });
export const snippetQuery = (siteId: string) =>
  queryOptions({
    queryKey: ['sites', siteId, 'snippet'],
    queryFn: () => request<{ snippet: string }>('GET', `/sites/${siteId}/snippet`),
  });
export const leadsQuery = (siteId: string) =>
  queryOptions({
    queryKey: ['sites', siteId, 'leads'],
    queryFn: () => request<Lead[]>('GET', `/sites/${siteId}/leads`),
  });

export const campaignsQuery = (siteId: string) =>
  queryOptions({
    queryKey: ['sites', siteId, 'campaigns'],
    queryFn: () => request<CampaignSummary[]>('GET', `/sites/${siteId}/campaigns`),
    // Numbers move while one looks at them.
    refetchInterval: 5000,
  });
export const campaignQuery = (campaignId: string) =>
  queryOptions({
    queryKey: ['campaigns', campaignId],
    queryFn: () => request<Campaign>('GET', `/campaigns/${campaignId}`),
  });
export const createCampaign = (siteId: string, body: CreateCampaign) =>
  request<Campaign>('POST', `/sites/${siteId}/campaigns`, body);
export const renameCampaign = (campaignId: string, name: string) =>
  request<Campaign>('PATCH', `/campaigns/${campaignId}`, { name });
export const saveDraft = (campaignId: string, revision: number, document: CampaignDocument) =>
  request<Campaign>('PUT', `/campaigns/${campaignId}/draft`, { revision, document });

export type Move = 'publish' | 'rest' | 'run' | 'archive' | 'restore' | 'duplicate';
export const moveCampaign = (campaignId: string, move: Move) =>
  request<Campaign>('POST', `/campaigns/${campaignId}/${move}`);
