import { queryOptions } from '@tanstack/react-query';
import type {
  BringLetters,
  FilmFacts,
  Letters,
  Look,
  LookRead,
  OwnTemplate,
  Picture,
  SaveBlock,
  SavedBlock,
  SaveLook,
  SaveTemplate,
} from '@velarium/contract';
import { request, sendFile } from './client.ts';

/** What a site's messages are made of: Looks, pictures, saved blocks, templates of its own. */
const FRESH_MS = 30_000;

export const looksQuery = (siteId: string) =>
  queryOptions({
    queryKey: ['sites', siteId, 'looks'],
    queryFn: () => request<Look[]>('GET', `/sites/${siteId}/looks`),
    staleTime: FRESH_MS,
  });
export const createLook = (siteId: string, body: SaveLook) =>
  request<Look>('POST', `/sites/${siteId}/looks`, body);
export const saveLook = (siteId: string, id: string, body: SaveLook) =>
  request<Look>('PUT', `/sites/${siteId}/looks/${id}`, body);
export const makeDefaultLook = (siteId: string, id: string) =>
  request<Look[]>('POST', `/sites/${siteId}/looks/${id}/default`);
export const removeLook = (siteId: string, id: string) =>
  request<void>('DELETE', `/sites/${siteId}/looks/${id}`);

/** What a page of the site says of how it looks; nothing is saved. */
export const readLook = (siteId: string, path: string) =>
  request<LookRead>('POST', `/sites/${siteId}/looks/reading`, { path });

export const lettersQuery = (siteId: string) =>
  queryOptions({
    queryKey: ['sites', siteId, 'letters'],
    queryFn: () => request<Letters[]>('GET', `/sites/${siteId}/letters`),
    staleTime: FRESH_MS,
  });
export const bringLetters = (siteId: string, file: File, about: BringLetters) =>
  sendFile<Letters>(`/sites/${siteId}/letters?${new URLSearchParams(about)}`, file);
export const removeLetters = (siteId: string, id: string) =>
  request<void>('DELETE', `/sites/${siteId}/letters/${id}`);
/** Where the whole file lies. */
export const lettersAddress = (siteId: string, id: string): string =>
  `/api/sites/${siteId}/letters/${id}/file`;

export const picturesQuery = (siteId: string) =>
  queryOptions({
    queryKey: ['sites', siteId, 'pictures'],
    queryFn: () => request<Picture[]>('GET', `/sites/${siteId}/pictures`),
    staleTime: FRESH_MS,
  });
export const addPicture = (siteId: string, file: File) =>
  sendFile<Picture>(`/sites/${siteId}/pictures`, file);
export const changePicture = (siteId: string, id: string, body: { name: string; alt: string }) =>
  request<Picture>('PATCH', `/sites/${siteId}/pictures/${id}`, body);
export const removePicture = (siteId: string, id: string) =>
  request<void>('DELETE', `/sites/${siteId}/pictures/${id}`);

/** What the film's host tells of it; its still is in the site's library then. */
export const askFilm = (siteId: string, address: string) =>
  request<FilmFacts>('POST', `/sites/${siteId}/films`, { address });

export const savedBlocksQuery = (siteId: string) =>
  queryOptions({
    queryKey: ['sites', siteId, 'blocks'],
    queryFn: () => request<SavedBlock[]>('GET', `/sites/${siteId}/blocks`),
    staleTime: FRESH_MS,
  });
export const keepBlock = (siteId: string, body: SaveBlock) =>
  request<SavedBlock>('POST', `/sites/${siteId}/blocks`, body);
export const changeSavedBlock = (siteId: string, id: string, body: SaveBlock) =>
  request<SavedBlock>('PUT', `/sites/${siteId}/blocks/${id}`, body);

export const ownTemplatesQuery = (siteId: string) =>
  queryOptions({
    queryKey: ['sites', siteId, 'templates'],
    queryFn: () => request<OwnTemplate[]>('GET', `/sites/${siteId}/templates`),
    staleTime: FRESH_MS,
  });
export const keepTemplate = (siteId: string, body: SaveTemplate) =>
  request<OwnTemplate>('POST', `/sites/${siteId}/templates`, body);
export const removeTemplate = (siteId: string, id: string) =>
  request<void>('DELETE', `/sites/${siteId}/templates/${id}`);
