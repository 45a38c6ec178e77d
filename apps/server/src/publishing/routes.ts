import {
  campaignSchema,
  makePreviewLinkSchema,
  pageGroupSchema,
  previewTicketSchema,
  publishSchema,
  savePageGroupSchema,
  siteSchema,
  siteSettingsSchema,
  whySchema,
} from '@velarium/contract';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { requireRole } from '../accounts/index.ts';
import type { CampaignService } from '../campaigns/index.ts';
import { notFound, ProblemError } from '../infra/problem.ts';
import type { SiteService } from '../sites/index.ts';
import type { PreviewTokens } from './preview-token.ts';
import type { PublishingService } from './service.ts';

const DAY_MS = 86_400_000;

const params = z.object({ campaignId: z.uuid() });
const siteParams = z.object({ siteId: z.uuid() });
const groupParams = siteParams.extend({ groupId: z.uuid() });
const MOVES = ['rest', 'run', 'archive', 'restore', 'afresh'] as const;

/**
 * What changes the manifest of a site: one POST per move of a campaign between states, which answers the campaign as
 * it is afterwards, the site's settings and its page groups. The caller guards the scope.
 */
export const publishingRoutes: FastifyPluginAsyncZod<{
  publishing: PublishingService;
  campaigns: CampaignService;
  sites: SiteService;
  previews: PreviewTokens;
}> = async (app, { publishing, campaigns, sites, previews }) => {
  const preHandler = requireRole('editor');
  for (const move of MOVES) {
    app.post(
      `/campaigns/:campaignId/${move}`,
      { preHandler, schema: { params, response: { 200: campaignSchema } } },
      async (request) => {
        await publishing[move](request.principal, request.params.campaignId);
        return campaigns.get(request.principal.workspaceId, request.params.campaignId);
      },
    );
  }

  app.post(
    '/campaigns/:campaignId/publish',
    { preHandler, schema: { params, body: publishSchema, response: { 200: campaignSchema } } },
    async ({ principal, params: { campaignId }, body }) => {
      await publishing.publish(principal, campaignId, body.revision, body);
      return campaigns.get(principal.workspaceId, campaignId);
    },
  );

  app.put(
    '/sites/:siteId/settings',
    {
      preHandler,
      schema: { params: siteParams, body: siteSettingsSchema, response: { 200: siteSchema } },
    },
    async (request) => {
      const { workspaceId } = request.principal;
      const site = await sites.setSettings(workspaceId, request.params.siteId, request.body);
      await publishing.prepareSite(workspaceId, site.id);
      return site;
    },
  );

  app.get(
    '/sites/:siteId/groups',
    { schema: { params: siteParams, response: { 200: z.array(pageGroupSchema) } } },
    async (request) => {
      const site = await sites.get(request.principal.workspaceId, request.params.siteId);
      return sites.groups.list(site.id);
    },
  );
  app.post(
    '/sites/:siteId/groups',
    {
      preHandler,
      schema: { params: siteParams, body: savePageGroupSchema, response: { 201: pageGroupSchema } },
    },
    async (request, reply) => {
      const site = await sites.get(request.principal.workspaceId, request.params.siteId);
      return reply.status(201).send(await sites.groups.save(site.id, request.body));
    },
  );
  app.put(
    '/sites/:siteId/groups/:groupId',
    {
      preHandler,
      schema: { params: groupParams, body: savePageGroupSchema, response: { 200: pageGroupSchema } },
    },
    async (request) => {
      const { workspaceId } = request.principal;
      const { siteId, groupId } = request.params;
      await sites.get(workspaceId, siteId);
      const saved = await sites.groups.save(siteId, request.body, groupId);
      await publishing.prepareSite(workspaceId, siteId);
      return saved;
    },
  );
  app.delete(
    '/sites/:siteId/groups/:groupId',
    { preHandler, schema: { params: groupParams, response: { 204: z.null() } } },
    async (request, reply) => {
      const { siteId, groupId } = request.params;
      await sites.get(request.principal.workspaceId, siteId);
      const users = await campaigns.usersOfGroup(siteId, groupId);
      if (users.length > 0) {
        throw new ProblemError(
          409,
          'in-use',
          'This page group is in use',
          `Take it out of these campaigns first: ${users.join(', ')}.`,
        );
      }
      await sites.groups.remove(siteId, groupId);
      return reply.status(204).send(null);
    },
  );

  app.post(
    '/sites/:siteId/preview-links',
    {
      preHandler,
      schema: { params: siteParams, body: makePreviewLinkSchema, response: { 201: previewTicketSchema } },
    },
    async ({ principal, params: { siteId }, body: { days, campaign, isBare } }, reply) => {
      const site = await sites.get(principal.workspaceId, siteId);
      if (campaign !== null && (await campaigns.siteOf(principal.workspaceId, campaign)) !== siteId)
        throw notFound('campaign');
      const { token, expiresAt } = previews.issue(site.key, {
        lifeMs: days * DAY_MS,
        of: campaign ?? 'drafts',
        isBare,
      });
      return reply.status(201).send({ token, expiresAt: expiresAt.toISOString() });
    },
  );
  app.get(
    '/campaigns/:campaignId/why',
    { schema: { params, response: { 200: whySchema } } },
    async ({ principal, params: { campaignId } }) => {
      await campaigns.siteOf(principal.workspaceId, campaignId);
      return publishing.why.of(campaignId);
    },
  );
  app.post(
    '/campaigns/:campaignId/why',
    { preHandler, schema: { params, response: { 201: whySchema } } },
    async ({ principal, params: { campaignId } }, reply) => {
      const siteId = await campaigns.siteOf(principal.workspaceId, campaignId);
      await publishing.why.makeCode(siteId, campaignId, principal.name);
      return reply.status(201).send(await publishing.why.of(campaignId));
    },
  );
  app.post(
    '/sites/:siteId/previews',
    { preHandler, schema: { params: siteParams, response: { 201: previewTicketSchema } } },
    async (request, reply) => {
      const site = await sites.get(request.principal.workspaceId, request.params.siteId);
      const { token, expiresAt } = previews.issue(site.key);
      return reply.status(201).send({ token, expiresAt: expiresAt.toISOString() });
    },
  );
};
