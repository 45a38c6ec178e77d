import { campaignGoalsSchema, goalSchema, saveGoalSchema } from '@velarium/contract';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { requireRole } from '../accounts/index.ts';
import type { GoalService } from './service.ts';

const ofSite = z.object({ siteId: z.uuid() });
const ofOne = z.object({ siteId: z.uuid(), id: z.uuid() });
const preHandler = requireRole('editor');
const ofCampaign = z.object({ campaignId: z.uuid() });
const response = { 200: z.array(goalSchema) };

interface GoalRoutes {
  readonly goals: GoalService;
  /** The tag tells of those that an event reaches, so it must be told of them. */
  readonly onChanged: (workspaceId: string, siteId: string) => Promise<void>;
}

/** What visitors may do whether or not a message was shown to them. The caller guards the scope. */
export const goalRoutes: FastifyPluginAsyncZod<GoalRoutes> = async (app, { goals, onChanged }) => {
  app.get('/sites/:siteId/goals', { schema: { params: ofSite, response } }, ({ principal, params }) =>
    goals.list(principal.workspaceId, params.siteId),
  );
  app.post(
    '/sites/:siteId/goals',
    { preHandler, schema: { params: ofSite, body: saveGoalSchema, response } },
    async ({ principal, params, body }) => {
      const saved = await goals.save(principal.workspaceId, params.siteId, body);
      await onChanged(principal.workspaceId, params.siteId);
      return saved;
    },
  );
  app.put(
    '/sites/:siteId/goals/:id',
    { preHandler, schema: { params: ofOne, body: saveGoalSchema, response } },
    ({ principal, params, body }) => goals.save(principal.workspaceId, params.siteId, body, params.id),
  );
  app.delete(
    '/sites/:siteId/goals/:id',
    { preHandler, schema: { params: ofOne, response: { 204: z.void() } } },
    async ({ principal, params }, reply) => {
      await goals.remove(principal.workspaceId, params.siteId, params.id);
      await onChanged(principal.workspaceId, params.siteId);
      return reply.status(204).send();
    },
  );
  app.get(
    '/campaigns/:campaignId/goals',
    { schema: { params: ofCampaign, response: { 200: campaignGoalsSchema } } },
    ({ principal, params }) => goals.chosenFor(principal.workspaceId, params.campaignId),
  );
  app.put(
    '/campaigns/:campaignId/goals',
    {
      preHandler,
      schema: { params: ofCampaign, body: campaignGoalsSchema, response: { 200: campaignGoalsSchema } },
    },
    ({ principal, params, body }) => goals.choose(principal.workspaceId, params.campaignId, body),
  );
};
