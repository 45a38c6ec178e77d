import {
  campaignPartsQuestionSchema,
  campaignPartsSchema,
  campaignResultsSchema,
  dayCountsSchema,
  metByPageSchema,
  metOnQuestionSchema,
  metOnSchema,
  periodQuestionSchema,
  siteResultsSchema,
  weekMailSchema,
} from '@velarium/contract';
import { conversionRate } from '@velarium/core';
import { stringify } from 'csv-stringify/sync';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { harmless } from '../infra/harmless.ts';
import type { Reports } from './service.ts';
import type { WeekMails } from './week-mails.ts';

const ofSite = z.object({ siteId: z.uuid() });
const ofCampaign = z.object({ campaignId: z.uuid() });

/** What campaigns did. Everybody of the workspace may read it: it says how many, never who. The caller guards the scope. */
export const resultRoutes: FastifyPluginAsyncZod<{ reports: Reports; weekMails: WeekMails }> = async (
  app,
  { reports, weekMails },
) => {
  app.get(
    '/sites/:siteId/week-mail',
    { schema: { params: ofSite, response: { 200: weekMailSchema } } },
    async ({ principal, params }) => ({
      isOn: await weekMails.isOn(principal.workspaceId, params.siteId, principal.accountId),
    }),
  );
  // For oneself: whoever may read Results may have them mailed.
  app.put(
    '/sites/:siteId/week-mail',
    { schema: { params: ofSite, body: weekMailSchema, response: { 200: weekMailSchema } } },
    async ({ principal, params, body }) => ({
      isOn: await weekMails.set(principal.workspaceId, params.siteId, principal.accountId, body.isOn),
    }),
  );
  app.get(
    '/sites/:siteId/met-on',
    { schema: { params: ofSite, querystring: metOnQuestionSchema, response: { 200: metOnSchema } } },
    ({ principal, params, query }) => reports.metOn(principal.workspaceId, params.siteId, query.path),
  );
  app.get(
    '/sites/:siteId/met-by-page',
    { schema: { params: ofSite, response: { 200: metByPageSchema } } },
    ({ principal, params }) => reports.metByPage(principal.workspaceId, params.siteId),
  );
  app.get(
    '/sites/:siteId/results',
    { schema: { params: ofSite, querystring: periodQuestionSchema, response: { 200: siteResultsSchema } } },
    ({ principal, params, query }) => reports.ofSite(principal.workspaceId, params.siteId, query),
  );
  app.get(
    '/sites/:siteId/results.csv',
    { schema: { params: ofSite, querystring: periodQuestionSchema } },
    async ({ principal, params, query }, reply) => {
      const { period, campaigns } = await reports.ofSite(principal.workspaceId, params.siteId, query);
      const rows = campaigns.map(({ name, counts }) => {
        const { value, low, high } = conversionRate(counts);
        return [
          harmless(name),
          counts.showings,
          counts.visitors,
          counts.viewers,
          counts.clickers,
          counts.conversions,
          counts.converters,
          value ?? '',
          low,
          high,
          counts.closes,
          counts.closedSoon,
          counts.withheld,
        ];
      });
      return reply
        .type('text/csv; charset=utf-8; header=present')
        .header('content-disposition', `attachment; filename="results ${period.from} to ${period.until}.csv"`)
        .send(
          `\uFEFF${stringify(
            [
              [
                'campaign',
                'showings',
                'visitors',
                'viewable visitors',
                'visitors who clicked',
                'conversions',
                'visitors who converted',
                'rate',
                'rate at least',
                'rate at most',
                'closes',
                'closes within 2 seconds',
                'visitors it was withheld from',
              ],
              ...rows,
            ],
            { record_delimiter: '\r\n' },
          )}`,
        );
    },
  );
  app.get(
    '/campaigns/:campaignId/results',
    {
      schema: {
        params: ofCampaign,
        querystring: periodQuestionSchema,
        response: { 200: campaignResultsSchema },
      },
    },
    ({ principal, params, query }) => reports.ofCampaign(principal.workspaceId, params.campaignId, query),
  );
  app.get(
    '/campaigns/:campaignId/results/parts',
    {
      schema: {
        params: ofCampaign,
        querystring: campaignPartsQuestionSchema,
        response: { 200: campaignPartsSchema },
      },
    },
    ({ principal, params, query }) =>
      reports.partsOfCampaign(principal.workspaceId, params.campaignId, query),
  );
  app.get(
    '/campaigns/:campaignId/results/days',
    {
      schema: {
        params: ofCampaign,
        querystring: periodQuestionSchema.extend({
          kind: z.enum(['shown', 'converted']).default('converted'),
        }),
        response: { 200: dayCountsSchema },
      },
    },
    ({ principal, params, query: { kind, ...question } }) =>
      reports.dayCounts(principal.workspaceId, params.campaignId, kind, question),
  );
};
