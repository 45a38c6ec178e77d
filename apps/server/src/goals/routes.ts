import { goalSchema, saveGoalSchema } from '@velarium/contract';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { requireRole } from '../accounts/index.ts';
import type { GoalService } from './service.ts';

const ofSite = z.object({ siteId: z.uuid() });
const ofOne = z.object({ siteId: z.uuid(), id: z.uuid() });
const preHandler = requireRole('editor');
const response = { 200: z.array(goalSchema) };

/** What visitors may do whether or not a message was shown to them. The caller guards the scope. */
export const goalRoutes: FastifyPluginAsyncZod<{ readonly goals: GoalService }> = async (app, { goals }) => {
  app.get('/sites/:siteId/goals', { schema: { params: ofSite, response } }, ({ principal, params }) =>
    goals.list(principal.workspaceId, params.siteId),
  );
  app.post(
    '/sites/:siteId/goals',
    { preHandler, schema: { params: ofSite, body: saveGoalSchema, response } },
    ({ principal, params, body }) => goals.save(principal.workspaceId, params.siteId, body),
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
      return reply.status(204).send();
    },
  );
};
