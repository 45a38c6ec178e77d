import {
  agreeSchema,
  bringBackSchema,
  campaignHistorySchema,
  campaignSchema,
  campaignVersionSchema,
  declineSchema,
  historyCursorSchema,
  launchTogetherSchema,
  messageHashSchema,
  planLaunchSchema,
  plannedDocumentSchema,
  plannedLaunchSchema,
} from '@velarium/contract';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { requireRole } from '../accounts/index.ts';
import type { CampaignService } from '../campaigns/index.ts';
import type { PublishingService } from '../publishing/index.ts';
import type { VersionService } from './service.ts';

const ofCampaign = z.object({ campaignId: z.uuid() });
const ofVersion = ofCampaign.extend({ version: z.coerce.number().int().min(1).max(1_000_000) });
const ofSite = z.object({ siteId: z.uuid() });
const preHandler = requireRole('editor');

/** A campaign's history, its versions, and launches for later or of several. The caller guards the scope. */
export const versionRoutes: FastifyPluginAsyncZod<{
  readonly versions: VersionService;
  readonly campaigns: CampaignService;
  readonly publishing: PublishingService;
}> = async (app, { versions, campaigns, publishing }) => {
  app.get(
    '/campaigns/:campaignId/history',
    {
      schema: {
        params: ofCampaign,
        querystring: historyCursorSchema,
        response: { 200: campaignHistorySchema },
      },
    },
    ({ principal, params, query }) => versions.history(principal, params.campaignId, query.cursor),
  );
  app.get(
    '/campaigns/:campaignId/versions/:version',
    { schema: { params: ofVersion, response: { 200: campaignVersionSchema } } },
    ({ principal, params }) => versions.find(principal.workspaceId, params.campaignId, params.version),
  );
  app.get(
    '/campaigns/:campaignId/messages/:hash',
    { schema: { params: ofCampaign.extend({ hash: messageHashSchema }) } },
    async ({ principal, params }, reply) => {
      const file = await versions.file(principal.workspaceId, params.campaignId, params.hash);
      // As it was written: what is frozen may be of a form that is written no more.
      return reply.type('application/json').send(file);
    },
  );
  app.post(
    '/campaigns/:campaignId/versions/:version/publish',
    { preHandler, schema: { params: ofVersion, body: bringBackSchema, response: { 200: campaignSchema } } },
    async ({ principal, params, body }) => {
      await versions.bringBack(principal, params.campaignId, params.version, body.note);
      return campaigns.get(principal.workspaceId, params.campaignId);
    },
  );
  app.put(
    '/campaigns/:campaignId/plan',
    {
      preHandler,
      schema: { params: ofCampaign, body: planLaunchSchema, response: { 200: plannedLaunchSchema } },
    },
    ({ principal, params, body }) => versions.plan(principal, params.campaignId, body),
  );
  app.get(
    '/campaigns/:campaignId/plan',
    { schema: { params: ofCampaign, response: { 200: plannedDocumentSchema } } },
    ({ principal, params }) => versions.planned(principal, params.campaignId),
  );
  app.post(
    '/campaigns/:campaignId/plan/agree',
    { preHandler, schema: { params: ofCampaign, body: agreeSchema, response: { 200: campaignSchema } } },
    async ({ principal, params, body }) => {
      await versions.agree(principal, params.campaignId, body.id, body.others);
      return campaigns.get(principal.workspaceId, params.campaignId);
    },
  );
  app.post(
    '/campaigns/:campaignId/plan/decline',
    { preHandler, schema: { params: ofCampaign, body: declineSchema, response: { 204: z.void() } } },
    async ({ principal, params, body }, reply) => {
      await versions.decline(principal, params.campaignId, body.id, body.note);
      return reply.status(204).send();
    },
  );
  app.delete(
    '/campaigns/:campaignId/plan',
    { preHandler, schema: { params: ofCampaign, response: { 204: z.void() } } },
    async ({ principal, params }, reply) => {
      await versions.callOff(principal.workspaceId, params.campaignId);
      return reply.status(204).send();
    },
  );
  app.post(
    '/sites/:siteId/launches/asked',
    {
      preHandler,
      schema: { params: ofSite, body: launchTogetherSchema, response: { 204: z.void() } },
    },
    async ({ principal, params, body }, reply) => {
      await versions.askTogether(principal, params.siteId, body.campaigns, body.note);
      return reply.status(204).send();
    },
  );
  app.post(
    '/sites/:siteId/launches',
    {
      preHandler,
      schema: {
        params: ofSite,
        body: launchTogetherSchema,
        response: { 204: z.void() },
      },
    },
    async ({ principal, params, body }, reply) => {
      await publishing.publishTogether(principal, params.siteId, body.campaigns, body.note);
      return reply.status(204).send();
    },
  );
};
