import {
  campaignDocumentSchema,
  endExperimentSchema,
  experimentsSchema,
  trialForecastSchema,
  trialSchema,
} from '@velarium/contract';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { requireRole } from '../accounts/index.ts';
import type { PublishingService } from '../publishing/index.ts';
import type { ExperimentService } from './service.ts';

const ofCampaign = z.object({ campaignId: z.uuid() });

/** What is tried on visitors, and what came of it. The caller guards the scope. */
export const experimentRoutes: FastifyPluginAsyncZod<{
  readonly experiments: ExperimentService;
  readonly publishing: PublishingService;
}> = async (app, { experiments, publishing }) => {
  app.get(
    '/campaigns/:campaignId/experiments',
    { schema: { params: ofCampaign, response: { 200: experimentsSchema } } },
    ({ principal, params }) => experiments.list(principal.workspaceId, params.campaignId),
  );
  app.post(
    '/campaigns/:campaignId/experiments/forecast',
    {
      schema: {
        params: ofCampaign,
        body: trialSchema.extend({ arms: z.number().int().min(2).max(8) }),
        response: { 200: trialForecastSchema },
      },
    },
    ({ principal, params, body: { arms, ...trial } }) =>
      experiments.forecast(principal.workspaceId, params.campaignId, trial, arms),
  );
  app.post(
    '/campaigns/:campaignId/experiments/end',
    {
      preHandler: requireRole('editor'),
      schema: {
        params: ofCampaign,
        body: endExperimentSchema,
        response: { 200: z.strictObject({ before: campaignDocumentSchema }) },
      },
    },
    async ({ principal, params, body }) => ({
      before: await experiments.end(principal, params.campaignId, body.adopt, publishing),
    }),
  );
};
