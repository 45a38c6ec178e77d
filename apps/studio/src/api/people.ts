import { infiniteQueryOptions, queryOptions } from '@tanstack/react-query';
import type {
  AnswerCounts,
  AnswerFilter,
  AnswerPage,
  DoNotWriteResult,
  ErasureReceipt,
  JudgeHeld,
  KeepAnswers,
  PeopleNote,
  Person,
} from '@velarium/contract';
import { request } from './client.ts';

export type AskedAnswers = Partial<AnswerFilter>;

/** What is set of a filter, as an address has it. */
const asked = (filter: object): string => {
  const set = Object.entries(filter).filter(([, value]) => value !== undefined && value !== '');
  return set.length === 0 ? '' : `?${new URLSearchParams(set as [string, string][])}`;
};

const answersKey = (siteId: string) => ['sites', siteId, 'answers'] as const;
export const answersQuery = (siteId: string, filter: AskedAnswers) =>
  infiniteQueryOptions({
    queryKey: [...answersKey(siteId), 'pages', filter],
    queryFn: ({ pageParam }) =>
      request<AnswerPage>('GET', `/sites/${siteId}/answers${asked({ ...filter, cursor: pageParam })}`),
    initialPageParam: '',
    getNextPageParam: ({ next }) => next ?? undefined,
  });
export const answerCountsQuery = (siteId: string, filter: AskedAnswers) =>
  queryOptions({
    queryKey: [...answersKey(siteId), 'counts', filter],
    queryFn: () => request<AnswerCounts>('GET', `/sites/${siteId}/answers/counts${asked(filter)}`),
  });
export const answersFile = (siteId: string, format: 'csv' | 'jsonl', filter: AskedAnswers) =>
  `/api/sites/${siteId}/answers.${format}${asked(filter)}`;
export const personQuery = (siteId: string, id: string) =>
  queryOptions({
    queryKey: [...answersKey(siteId), 'person', id],
    queryFn: () => request<Person>('GET', `/sites/${siteId}/people/${id}`),
  });
export const personFile = (siteId: string, id: string) => `/api/sites/${siteId}/people/${id}/everything.json`;
export const attachmentFile = (siteId: string, id: string) => `/api/sites/${siteId}/attachments/${id}`;

export const correctAnswer = (siteId: string, id: string, values: string[]) =>
  request<void>('PATCH', `/sites/${siteId}/answers/${id}`, { values });
export const judgeHeld = (siteId: string, body: JudgeHeld) =>
  request<{ count: number }>('POST', `/sites/${siteId}/answers/held`, body);
export const erasePerson = (siteId: string, id: string) =>
  request<ErasureReceipt>('DELETE', `/sites/${siteId}/people/${id}`);
export const importDoNotWrite = (siteId: string, text: string) =>
  request<DoNotWriteResult>('POST', `/sites/${siteId}/do-not-write`, { text });

export const peopleNotesQuery = (siteId: string) =>
  queryOptions({
    queryKey: [...answersKey(siteId), 'notes'],
    queryFn: () => request<PeopleNote[]>('GET', `/sites/${siteId}/people-notes`),
  });
export const keptAnswersQuery = (siteId: string) =>
  queryOptions({
    queryKey: [...answersKey(siteId), 'kept'],
    queryFn: () => request<KeepAnswers>('GET', `/sites/${siteId}/kept-answers`),
  });
export const keepAnswers = (siteId: string, body: KeepAnswers) =>
  request<void>('PUT', `/sites/${siteId}/kept-answers`, body);
