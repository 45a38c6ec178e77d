import {
  castQuestionSchema,
  castSchema,
  castWithRuleSchema,
  keptRehearsalSchema,
  rehearsalOutcomeSchema,
  rehearsedSchema,
  saveRehearsalSchema,
} from '@velarium/contract';
import { exitOf } from '@velarium/core';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { requireRole } from '../accounts/index.ts';
import type { RehearsalService } from './service.ts';

const ofSite = z.object({ siteId: z.uuid() });
const ofOne = z.object({ siteId: z.uuid(), id: z.uuid() });
const preHandler = requireRole('editor');

/** Visits that are played. The caller guards the scope. */
export const rehearsalRoutes: FastifyPluginAsyncZod<{ readonly rehearsals: RehearsalService }> = async (
  app,
  { rehearsals },
) => {
  app.get(
    '/sites/:siteId/cast',
    { schema: { params: ofSite, querystring: castQuestionSchema, response: { 200: castSchema } } },
    ({ principal, params, query }) => rehearsals.cast(principal.workspaceId, params.siteId, query.of),
  );
  // Asked with a body, for a rule is longer than an address; it changes nothing.
  app.post(
    '/sites/:siteId/cast',
    { schema: { params: ofSite, body: castWithRuleSchema, response: { 200: castSchema } } },
    ({ principal, params, body }) => rehearsals.castWith(principal.workspaceId, params.siteId, body),
  );
  app.get(
    '/sites/:siteId/rehearsals',
    { schema: { params: ofSite, response: { 200: z.array(keptRehearsalSchema) } } },
    ({ principal, params }) => rehearsals.list(principal.workspaceId, params.siteId),
  );
  app.post(
    '/sites/:siteId/rehearsals',
    {
      preHandler,
      schema: { params: ofSite, body: saveRehearsalSchema, response: { 201: keptRehearsalSchema } },
    },
    async ({ principal, params, body }, reply) =>
      reply.status(201).send(await rehearsals.save(principal.workspaceId, params.siteId, body)),
  );
  app.put(
    '/sites/:siteId/rehearsals/:id',
    {
      preHandler,
      schema: { params: ofOne, body: saveRehearsalSchema, response: { 200: keptRehearsalSchema } },
    },
    ({ principal, params, body }) => rehearsals.save(principal.workspaceId, params.siteId, body, params.id),
  );
  app.delete(
    '/sites/:siteId/rehearsals/:id',
    { preHandler, schema: { params: ofOne, response: { 204: z.void() } } },
    async ({ principal, params }, reply) => {
      await rehearsals.remove(principal.workspaceId, params.siteId, params.id);
      return reply.status(204).send();
    },
  );
  app.get(
    '/sites/:siteId/rehearsals/outcome',
    {
      config: { forKeys: 'rehearsals' },
      schema: { params: ofSite, querystring: castQuestionSchema, response: { 200: rehearsalOutcomeSchema } },
    },
    async ({ principal, params, query }) =>
      exitOf(await rehearsals.rehearse(principal.workspaceId, params.siteId, query.of)),
  );
  app.get(
    '/sites/:siteId/rehearsals/played',
    {
      schema: {
        params: ofSite,
        querystring: castQuestionSchema,
        response: { 200: z.array(rehearsedSchema) },
      },
    },
    ({ principal, params, query }) => rehearsals.rehearse(principal.workspaceId, params.siteId, query.of),
  );
};
