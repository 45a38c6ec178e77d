import { queryOptions } from '@tanstack/react-query';
import type { BroughtCalendar, SaveSeasonDays, Season } from '@velarium/contract';
import { request } from './client.ts';

const path = (siteId: string) => `/sites/${siteId}/season`;

export const seasonQuery = (siteId: string) =>
  queryOptions({
    queryKey: ['sites', siteId, 'season'],
    queryFn: () => request<Season>('GET', path(siteId)),
  });
export const addSeasonNote = (siteId: string, days: SaveSeasonDays) =>
  request<Season>('POST', `${path(siteId)}/notes`, days);
export const removeSeasonNote = (siteId: string, id: string) =>
  request<Season>('DELETE', `${path(siteId)}/notes/${id}`);
export const bringCalendar = (siteId: string, text: string) =>
  request<BroughtCalendar>('PUT', `${path(siteId)}/calendar`, { text });
export const giveOutSeason = (siteId: string, isGiven: boolean) =>
  request<Season>('PUT', `${path(siteId)}/address`, { isGiven });
