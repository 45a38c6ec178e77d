import { type QueryClient, queryOptions } from '@tanstack/react-query';
import type {
  AccessToken,
  AddPages,
  ArrivedCampaign,
  AudienceQuestion,
  AudienceShare,
  Begin,
  Campaign,
  CampaignDocument,
  CampaignFile,
  CampaignSummary,
  ChangeCampaign,
  ChangePassword,
  CopyCampaign,
  CountrySource,
  CreateCampaign,
  ElementQuestion,
  ElementSeen,
  Invitation,
  Invite,
  KeepEvents,
  MadeToken,
  MakePreviewLink,
  MakeToken,
  ManifestsRun,
  Member,
  NewPassword,
  OpenInvitation,
  PageGroup,
  PageReading,
  ParameterSeen,
  Presence,
  PreviewTicket,
  Publish,
  Role,
  SaveSite,
  SeenPage,
  SeenValues,
  Session,
  SignIn,
  Site,
  SitePage,
  SiteSettings,
  StayHistograms,
  StayQuestion,
  Why,
  WorkspaceSettings,
} from '@velarium/contract';
import type { Met } from '@velarium/core';
import { stillThere } from '../ui/told-error.ts';
import { poll, rememberCsrfToken, request } from './client.ts';

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
export const setWorkspace = (settings: WorkspaceSettings) => request<void>('PUT', '/workspace', settings);
export const signOut = () => request<void>('DELETE', '/session');

export const membersQuery = queryOptions({
  queryKey: ['members'],
  queryFn: () => request<Member[]>('GET', '/members'),
});
export const invitationsQuery = queryOptions({
  queryKey: ['invitations'],
  queryFn: () => request<Invitation[]>('GET', '/invitations'),
});
export const invite = (body: Invite) => request<void>('POST', '/invitations', body);
export const withdrawInvitation = (id: string) => request<void>('DELETE', `/invitations/${id}`);
export const openInvitationQuery = (token: string) =>
  queryOptions({
    queryKey: ['joining', token],
    queryFn: () => request<OpenInvitation>('GET', `/joining/${encodeURIComponent(token)}`),
    retry: false,
  });
export const begin = (body: Begin) => request<void>('POST', '/beginning', body);
export const join = (token: string, password: string) =>
  request<void>('POST', `/joining/${encodeURIComponent(token)}`, { password });
export const askForPassword = (email: string) => request<void>('POST', '/forgotten', { email });
export const setPassword = (body: NewPassword) => request<void>('POST', '/password', body);
export const changePassword = (body: ChangePassword) => request<void>('POST', '/account/password', body);
export const tokensQuery = queryOptions({
  queryKey: ['tokens'],
  queryFn: () => request<AccessToken[]>('GET', '/tokens'),
});
export const makeToken = (body: MakeToken) => request<MadeToken>('POST', '/tokens', body);
export const revokeToken = (id: string) => request<void>('DELETE', `/tokens/${id}`);
export const signOutEverywhere = () => request<void>('DELETE', '/sessions');
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
export const staysQuery = (siteId: string, question: StayQuestion) =>
  queryOptions({
    queryKey: ['sites', siteId, 'stays', question],
    queryFn: () => request<StayHistograms>('POST', `/sites/${siteId}/stays`, question),
    staleTime: 300_000,
  });
export const seenValuesQuery = (siteId: string) =>
  queryOptions({
    queryKey: ['sites', siteId, 'seen'],
    queryFn: () => request<SeenValues>('GET', `/sites/${siteId}/seen`),
    staleTime: 300_000,
  });
export const audienceShareQuery = (siteId: string, question: AudienceQuestion) =>
  queryOptions({
    queryKey: ['sites', siteId, 'audience', question],
    queryFn: () => request<AudienceShare>('POST', `/sites/${siteId}/audience`, question),
    staleTime: 60_000,
  });
/** Page views of the last two weeks' days, the latest last, today left out. */
export const daysQuery = (siteId: string) =>
  queryOptions({
    queryKey: ['sites', siteId, 'days'],
    queryFn: () => request<number[]>('GET', `/sites/${siteId}/days`),
    staleTime: 300_000,
  });
/** Pages of the site that were seen in a browser. */
export const sightsQuery = (siteId: string) =>
  queryOptions({
    queryKey: ['sites', siteId, 'sights'],
    queryFn: () => request<SeenPage[]>('GET', `/sites/${siteId}/sights`),
    staleTime: 15_000,
    refetchOnWindowFocus: true,
  });
/** Where a page is shown as it was seen; another address once it has been seen again. */
export const sightAddress = (siteId: string, { path, at }: Pick<SeenPage, 'path' | 'at'>): string =>
  `/api/sites/${siteId}/sight?${new URLSearchParams({ path, at })}`;
/** Which manifests the site's pages run. */
export const manifestsRunQuery = (siteId: string) =>
  queryOptions({
    queryKey: ['sites', siteId, 'manifests-run'],
    queryFn: () => request<ManifestsRun>('GET', `/sites/${siteId}/manifests-run`),
    staleTime: 60_000,
  });
/** Where countries are known from, and that of an address where one is given. */
export const countriesQuery = (address: string) =>
  queryOptions({
    queryKey: ['countries', address],
    queryFn: () =>
      request<CountrySource>('GET', `/countries${address && `?address=${encodeURIComponent(address)}`}`),
    staleTime: 300_000,
  });
export const addPages = (siteId: string, body: AddPages) =>
  request<SitePage[]>('POST', `/sites/${siteId}/pages`, body);
export const removePage = (siteId: string, path: string) =>
  request<void>('DELETE', `/sites/${siteId}/pages?path=${encodeURIComponent(path)}`);
const isReading = (reading: PageReading | null | undefined): boolean =>
  reading?.state === 'waiting' || reading?.state === 'running';
/** How the reading of the site's pages goes on. */
export const pageReadingQuery = (siteId: string) =>
  queryOptions({
    queryKey: ['sites', siteId, 'reading'],
    queryFn: () => request<PageReading | null>('GET', `/sites/${siteId}/pages/reading`),
    refetchInterval: ({ state }) => (isReading(state.data) ? 600 : false),
  });
/** On how many of some pages there are these elements. Asked once for the same question. */
export const elementsQuery = (siteId: string, question: ElementQuestion) =>
  queryOptions({
    queryKey: ['sites', siteId, 'elements', question],
    queryFn: () => request<ElementSeen[]>('POST', `/sites/${siteId}/elements`, question),
    staleTime: 60_000,
    enabled: question.selectors.length > 0 && question.paths.length > 0,
    retry: false,
  });
/** Parameters that visited addresses had. */
export const parametersQuery = (siteId: string) =>
  queryOptions({
    queryKey: ['sites', siteId, 'parameters'],
    queryFn: () => request<ParameterSeen[]>('GET', `/sites/${siteId}/parameters`),
    staleTime: 60_000,
  });
/** Where a snippet loads the tag from. */
export const edgeOf = (snippet: string): string => /src="(https?:\/\/[^/]+)/.exec(snippet)?.[1] ?? '';

/** What the site’s home page lets scripts do; asked once in a while, for another server is asked for it. */
export const policyQuery = (siteId: string) =>
  queryOptions({
    queryKey: ['sites', siteId, 'policy'],
    queryFn: () => request<{ policies: string[] | null }>('GET', `/sites/${siteId}/policy`),
    staleTime: 300_000,
  });
/** Asks for the site's pages to be read into the catalogue, or for that to stop. */
export const beginPageReading = (siteId: string, sitemap: string | null) =>
  request<PageReading | null>('POST', `/sites/${siteId}/pages/reading`, { sitemap });
export const stopPageReading = (siteId: string) =>
  request<PageReading | null>('DELETE', `/sites/${siteId}/pages/reading`);
export const createSite = (body: SaveSite) => request<Site>('POST', '/sites', body);
export const saveSite = (siteId: string, body: SaveSite) => request<Site>('PUT', `/sites/${siteId}`, body);
/** How long the site's single events are kept. */
export const keptEventsQuery = (siteId: string) =>
  queryOptions({
    queryKey: ['sites', siteId, 'kept-events'],
    queryFn: () => request<KeepEvents>('GET', `/sites/${siteId}/kept-events`),
  });
export const keepEvents = (siteId: string, body: KeepEvents) =>
  request<void>('PUT', `/sites/${siteId}/kept-events`, body);
/** A site as it is now, whatever has been read of it before. */
export async function siteNow(queryClient: QueryClient, siteId: string): Promise<Site> {
  return stillThere(await queryClient.fetchQuery({ ...sitesQuery, staleTime: 0 }), siteId, 'site');
}
export function putSite(queryClient: QueryClient, saved: Site): void {
  queryClient.setQueryData(sitesQuery.queryKey, (sites) =>
    sites?.map((one) => (one.id === saved.id ? saved : one)),
  );
}
export const saveSettings = (siteId: string, settings: SiteSettings) =>
  request<Site>('PUT', `/sites/${siteId}/settings`, settings);
/** Makes a group, or changes the one with this id. */
export const saveGroup = (siteId: string, body: Omit<PageGroup, 'id'>, id?: string) =>
  request<PageGroup>(id ? 'PUT' : 'POST', `/sites/${siteId}/groups${id ? `/${id}` : ''}`, body);
export const removeGroup = (siteId: string, id: string) =>
  request<void>('DELETE', `/sites/${siteId}/groups/${id}`);
export const snippetQuery = (siteId: string) =>
  queryOptions({
    queryKey: ['sites', siteId, 'snippet'],
    queryFn: () => request<{ snippet: string }>('GET', `/sites/${siteId}/snippet`),
  });
/** Tells the server that the campaign is open here, and learns who else has it open. */
export const presenceQuery = (campaignId: string) =>
  queryOptions({
    queryKey: ['presence', campaignId],
    queryFn: () => request<Presence>('PUT', `/campaigns/${campaignId}/presence`),
    refetchInterval: 5000,
    refetchOnWindowFocus: true,
    gcTime: 0,
    retry: false,
  });
export const leaveCampaign = (campaignId: string) =>
  request<void>('DELETE', `/campaigns/${campaignId}/presence`);

export const countAfresh = (campaignId: string) =>
  request<Campaign>('POST', `/campaigns/${campaignId}/afresh`);

export const groupsQuery = (siteId: string) =>
  queryOptions({
    queryKey: ['sites', siteId, 'groups'],
    queryFn: () => request<PageGroup[]>('GET', `/sites/${siteId}/groups`),
    staleTime: 60_000,
  });
/** Codes for visitors who ask why a message does not show, and what they have sent. */
export const whyQuery = (campaignId: string) =>
  queryOptions({
    queryKey: ['campaigns', campaignId, 'why'],
    queryFn: () => request<Why>('GET', `/campaigns/${campaignId}/why`),
    refetchInterval: 5000,
  });
export const makeWhyCode = (campaignId: string) => request<Why>('POST', `/campaigns/${campaignId}/why`);
/** A link to the site’s pages with drafts on them, for somebody without an account. */
export const makePreviewLink = (siteId: string, link: MakePreviewLink) =>
  request<PreviewTicket>('POST', `/sites/${siteId}/preview-links`, link);
export const openPreview = (siteId: string) => request<PreviewTicket>('POST', `/sites/${siteId}/previews`);
export const campaignsQuery = (siteId: string) =>
  queryOptions({
    queryKey: ['sites', siteId, 'campaigns'],
    queryFn: () => poll<CampaignSummary[]>(`/sites/${siteId}/campaigns`),
    // Numbers move while one looks at them.
    refetchInterval: 5000,
  });
/** The running campaigns as visitors meet them. Asked anew whenever a launch is looked at. */
export const runningQuery = (siteId: string) =>
  queryOptions({
    queryKey: ['sites', siteId, 'campaigns', 'running'],
    queryFn: () => request<Met[]>('GET', `/sites/${siteId}/campaigns/running`),
    staleTime: 0,
  });
export const readCampaign = (campaignId: string) => request<Campaign>('GET', `/campaigns/${campaignId}`);
export const campaignQuery = (campaignId: string) =>
  queryOptions({ queryKey: ['campaigns', campaignId], queryFn: () => readCampaign(campaignId) });
export const createCampaign = (siteId: string, body: CreateCampaign) =>
  request<Campaign>('POST', `/sites/${siteId}/campaigns`, body);
export const changeCampaign = (campaignId: string, change: ChangeCampaign) =>
  request<Campaign>('PATCH', `/campaigns/${campaignId}`, change);
export const readCampaignFile = (campaignId: string) =>
  request<CampaignFile>('GET', `/campaigns/${campaignId}/file`);
export const importCampaign = (siteId: string, file: unknown) =>
  request<ArrivedCampaign>('POST', `/sites/${siteId}/campaigns/file`, file);
/** To another site; a trial makes nothing and only says what could not come along. */
export const copyCampaign = (campaignId: string, body: CopyCampaign) =>
  request<Partial<ArrivedCampaign> & Pick<ArrivedCampaign, 'lost'>>(
    'POST',
    `/campaigns/${campaignId}/copy`,
    body,
  );
export const saveDraft = (campaignId: string, revision: number, document: CampaignDocument) =>
  request<Campaign>('PUT', `/campaigns/${campaignId}/draft`, { revision, document });

/** Publishes the draft that was looked at, or nothing. */
export const publishCampaign = (campaignId: string, publish: Publish) =>
  request<Campaign>('POST', `/campaigns/${campaignId}/publish`, publish);

export type Move = 'rest' | 'run' | 'archive' | 'restore' | 'duplicate';
export const moveCampaign = (campaignId: string, move: Move) =>
  request<Campaign>('POST', `/campaigns/${campaignId}/${move}`);
