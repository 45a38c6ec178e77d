import {
  arrivalSchema,
  campaignDocumentSchema,
  campaignFileSchema,
  campaignSchema,
  campaignSummarySchema,
  changeCampaignSchema,
  copyCampaignSchema,
  createCampaignSchema,
  earlierDraftSchema,
  presenceSchema,
  runningCampaignSchema,
  saveDraftSchema,
} from '@velarium/contract';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { requireRole } from '../accounts/index.ts';
import type { CampaignService } from './service.ts';

const siteParams = z.object({ siteId: z.uuid() });
const params = z.object({ campaignId: z.uuid() });

/** The Board's list and one campaign's draft. The caller guards the scope. */
export const campaignRoutes: FastifyPluginAsyncZod<{
  readonly campaigns: CampaignService;
}> = async (app, { campaigns }) => {
  const preHandler = requireRole('editor');
  app.get(
    '/sites/:siteId/campaigns',
    { schema: { params: siteParams, response: { 200: z.array(campaignSummarySchema) } } },
    (request) => campaigns.list(request.principal.workspaceId, request.params.siteId),
  );
  app.get(
    '/sites/:siteId/campaigns/running',
    { schema: { params: siteParams, response: { 200: z.array(runningCampaignSchema) } } },
    ({ principal, params: { siteId } }) => campaigns.runningOf(principal.workspaceId, siteId),
  );
  app.post(
    '/sites/:siteId/campaigns',
    {
      preHandler,
      schema: { params: siteParams, body: createCampaignSchema, response: { 201: campaignSchema } },
    },
    async (request, reply) => {
      const { name, template } = request.body;
      return reply
        .status(201)
        .send(await campaigns.create(request.principal, request.params.siteId, name, template));
    },
  );
  app.get('/campaigns/:campaignId', { schema: { params, response: { 200: campaignSchema } } }, (request) =>
    campaigns.get(request.principal.workspaceId, request.params.campaignId),
  );
  app.patch(
    '/campaigns/:campaignId',
    { preHandler, schema: { params, body: changeCampaignSchema, response: { 200: campaignSchema } } },
    (request) => campaigns.change(request.principal.workspaceId, request.params.campaignId, request.body),
  );
  app.put(
    '/campaigns/:campaignId/draft',
    {
      preHandler,
      bodyLimit: 1024 * 1024,
      schema: { params, body: saveDraftSchema, response: { 200: campaignSchema } },
    },
    (request) => {
      const { revision, document } = request.body;
      return campaigns.saveDraft(request.principal, request.params.campaignId, revision, document);
    },
  );
  app.get(
    '/campaigns/:campaignId/drafts',
    { schema: { params, response: { 200: z.array(earlierDraftSchema) } } },
    ({ principal, params: { campaignId } }) => campaigns.earlierDrafts(principal.workspaceId, campaignId),
  );
  app.get(
    '/campaigns/:campaignId/drafts/:revision',
    {
      schema: {
        params: params.extend({ revision: z.coerce.number().int().min(0).max(2_000_000_000) }),
        response: { 200: campaignDocumentSchema },
      },
    },
    ({ principal, params: { campaignId, revision } }) =>
      campaigns.earlierDraft(principal.workspaceId, campaignId, revision),
  );
  app.put(
    '/campaigns/:campaignId/presence',
    { schema: { params, response: { 200: presenceSchema } } },
    ({ principal, params: { campaignId } }) => campaigns.markPresent(principal, campaignId),
  );
  app.delete('/campaigns/:campaignId/presence', { schema: { params } }, async (request, reply) => {
    await campaigns.leave(request.principal, request.params.campaignId);
    return reply.status(204).send();
  });
  app.get(
    '/campaigns/:campaignId/file',
    { schema: { params, response: { 200: campaignFileSchema } } },
    ({ principal, params: { campaignId } }) => campaigns.pack(principal.workspaceId, campaignId),
  );
  app.post(
    '/sites/:siteId/campaigns/file',
    {
      preHandler,
      bodyLimit: 2 * 1024 * 1024,
      schema: { params: siteParams, body: campaignFileSchema, response: { 201: arrivalSchema } },
    },
    async (request, reply) =>
      reply.status(201).send(await campaigns.unpack(request.principal, request.params.siteId, request.body)),
  );
  app.post(
    '/campaigns/:campaignId/copy',
    {
      preHandler,
      schema: {
        params,
        body: copyCampaignSchema,
        response: { 200: arrivalSchema.partial({ campaign: true }) },
      },
    },
    ({ principal, params: { campaignId }, body }) => campaigns.copyTo(principal, campaignId, body),
  );
  app.post(
    '/campaigns/:campaignId/duplicate',
    { preHandler, schema: { params, response: { 201: campaignSchema } } },
    async ({ principal, params: { campaignId } }, reply) => {
      return reply.status(201).send(await campaigns.duplicate(principal, campaignId));
    },
  );
};
