import { queryOptions } from '@tanstack/react-query';
import type {
  Breakdown,
  CampaignDocument,
  CampaignParts,
  CampaignResults,
  Experiments,
  MetByPage,
  MetOn,
  PeriodQuestion,
  SiteResults,
  Trial,
  TrialForecast,
} from '@velarium/contract';
import type { DayCount } from '@velarium/core';
import { poll, request } from './client.ts';

export type AskedPeriod = Partial<PeriodQuestion>;

/** What is set of a question, as an address has it. */
const periodParameters = (asked: AskedPeriod, more: Record<string, string> = {}): string => {
  const set = Object.entries({ ...asked, ...more }).filter(([, value]) => value);
  return new URLSearchParams(set as [string, string][]).toString();
};

export const siteResultsQuery = (siteId: string, asked: AskedPeriod) =>
  queryOptions({
    queryKey: ['sites', siteId, 'results', asked],
    queryFn: () => poll<SiteResults>(`/sites/${siteId}/results?${periodParameters(asked)}`),
  });
export const siteResultsFile = (siteId: string, asked: AskedPeriod) =>
  `/api/sites/${siteId}/results.csv?${periodParameters(asked)}`;
/** Whether I have this site's week mailed to me. */
export const weekMailQuery = (siteId: string) =>
  queryOptions({
    queryKey: ['sites', siteId, 'week-mail'],
    queryFn: () => request<{ isOn: boolean }>('GET', `/sites/${siteId}/week-mail`),
  });
export const setWeekMail = (siteId: string, isOn: boolean) =>
  request<{ isOn: boolean }>('PUT', `/sites/${siteId}/week-mail`, { isOn });
/** How often each campaign was really met on a page, lately. */
export const metOnQuery = (siteId: string, path: string) =>
  queryOptions({
    queryKey: ['sites', siteId, 'met-on', path],
    queryFn: () => request<MetOn[]>('GET', `/sites/${siteId}/met-on?${new URLSearchParams({ path })}`),
    staleTime: 60_000,
  });
/** How often each campaign was really met, page by page, lately. */
export const metByPageQuery = (siteId: string) =>
  queryOptions({
    queryKey: ['sites', siteId, 'met-by-page'],
    queryFn: () => request<MetByPage[]>('GET', `/sites/${siteId}/met-by-page`),
    staleTime: 60_000,
  });
/** What one campaign did, and of whom its visitors were: two questions, of the same days. */
export type CampaignFound = CampaignResults & CampaignParts;
export const campaignResultsQuery = (campaignId: string, asked: AskedPeriod, by: Breakdown) =>
  queryOptions({
    queryKey: ['campaigns', campaignId, 'results', asked, by],
    queryFn: async (): Promise<CampaignFound> => {
      const of = `/campaigns/${campaignId}/results`;
      const [results, parts] = await Promise.all([
        poll<CampaignResults>(`${of}?${periodParameters(asked)}`),
        poll<CampaignParts>(`${of}/parts?${periodParameters(asked, { by })}`),
      ]);
      return { ...results, ...parts };
    },
  });
export const dayCountsQuery = (campaignId: string, asked: AskedPeriod) =>
  queryOptions({
    queryKey: ['campaigns', campaignId, 'results', 'days', asked],
    queryFn: () =>
      request<DayCount[]>('GET', `/campaigns/${campaignId}/results/days?${periodParameters(asked)}`),
  });

export const experimentsQuery = (campaignId: string) =>
  queryOptions({
    queryKey: ['campaigns', campaignId, 'experiments'],
    queryFn: () => poll<Experiments>(`/campaigns/${campaignId}/experiments`),
  });
export const trialForecastQuery = (campaignId: string, trial: Trial, arms: number) =>
  queryOptions({
    queryKey: ['campaigns', campaignId, 'experiments', 'forecast', trial, arms],
    queryFn: () =>
      request<TrialForecast>('POST', `/campaigns/${campaignId}/experiments/forecast`, { ...trial, arms }),
  });
export const endExperiment = (campaignId: string, adopt: string | null) =>
  request<{ before: CampaignDocument }>('POST', `/campaigns/${campaignId}/experiments/end`, { adopt });
