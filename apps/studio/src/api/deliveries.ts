import { infiniteQueryOptions, queryOptions } from '@tanstack/react-query';
import type {
  Connection,
  DeliveryFilter,
  DeliveryPage,
  DeliveryTries,
  FollowUp,
  MailPreview,
  MailTrial,
  MoveDeliveries,
  SaveConnection,
  SaveSending,
  Sending,
  ShownSecret,
  TriedConnection,
  TriedSending,
} from '@velarium/contract';
import { request } from './client.ts';

export type AskedDeliveries = Partial<DeliveryFilter>;

const deliveriesKey = (siteId: string) => ['sites', siteId, 'deliveries'] as const;
export const deliveriesQuery = (siteId: string, filter: AskedDeliveries) =>
  infiniteQueryOptions({
    queryKey: [...deliveriesKey(siteId), filter],
    queryFn: ({ pageParam }) => {
      const set = Object.entries({ ...filter, cursor: pageParam }).filter(([, value]) => value);
      return request<DeliveryPage>(
        'GET',
        `/sites/${siteId}/deliveries?${new URLSearchParams(set as [string, string][])}`,
      );
    },
    initialPageParam: '',
    getNextPageParam: ({ next }) => next ?? undefined,
  });
export const deliveryTriesQuery = (siteId: string, id: string, of: DeliveryFilter['of']) =>
  queryOptions({
    queryKey: [...deliveriesKey(siteId), 'tries', id],
    queryFn: () => request<DeliveryTries>('GET', `/sites/${siteId}/deliveries/${id}?of=${of}`),
  });
export const moveDeliveries = (siteId: string, body: Partial<MoveDeliveries>) =>
  request<{ count: number }>('POST', `/sites/${siteId}/deliveries/moves`, body);

export const connectionsQuery = (siteId: string) =>
  queryOptions({
    queryKey: ['sites', siteId, 'connections'],
    queryFn: () => request<Connection[]>('GET', `/sites/${siteId}/connections`),
  });
const connections = (siteId: string) => `/sites/${siteId}/connections`;
export const createConnection = (siteId: string, body: SaveConnection) =>
  request<ShownSecret>('POST', connections(siteId), body);
export const saveConnection = (siteId: string, id: string, body: SaveConnection) =>
  request<Connection>('PUT', `${connections(siteId)}/${id}`, body);
export const removeConnection = (siteId: string, id: string) =>
  request<void>('DELETE', `${connections(siteId)}/${id}`);
export const setConnectionState = (siteId: string, id: string, state: Connection['state']) =>
  request<Connection>('POST', `${connections(siteId)}/${id}/state`, { state });
export const sendEarlier = (siteId: string, id: string) =>
  request<{ count: number }>('POST', `${connections(siteId)}/${id}/earlier`);
export const renewSecret = (siteId: string, id: string) =>
  request<ShownSecret>('POST', `${connections(siteId)}/${id}/secrets`);
export const dropOldSecret = (siteId: string, id: string) =>
  request<Connection>('DELETE', `${connections(siteId)}/${id}/secrets/old`);
export const tryConnection = (siteId: string, settings: SaveConnection, connection: string | null) =>
  request<TriedConnection>('POST', `${connections(siteId)}/trials`, { settings, connection });

export const sendingQuery = queryOptions({
  queryKey: ['sending'],
  queryFn: () => request<Sending>('GET', '/sending'),
});
export const saveSending = (body: SaveSending) => request<Sending>('PUT', '/sending', body);
export const removeSending = () => request<Sending>('DELETE', '/sending');
export const trySending = (body: SaveSending) => request<TriedSending>('POST', '/sending/trials', body);

export const followUpQuery = (campaignId: string, form: string) =>
  queryOptions({
    queryKey: ['campaigns', campaignId, 'follow-ups', form],
    queryFn: () => request<FollowUp>('GET', `/campaigns/${campaignId}/follow-ups/${form}`),
  });
export const saveFollowUp = (campaignId: string, form: string, body: FollowUp) =>
  request<void>('PUT', `/campaigns/${campaignId}/follow-ups/${form}`, body);
export const mailPreviewQuery = (siteId: string, trial: MailTrial) =>
  queryOptions({
    queryKey: ['sites', siteId, 'mail-previews', trial],
    queryFn: () => request<MailPreview>('POST', `/sites/${siteId}/mail-previews`, trial),
    retry: false,
  });
export const tryMail = (siteId: string, trial: MailTrial) =>
  request<void>('POST', `/sites/${siteId}/mail-trials`, trial);
