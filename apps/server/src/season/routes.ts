import {
  bringCalendarSchema,
  broughtCalendarSchema,
  saveSeasonDaysSchema,
  seasonSchema,
} from '@velarium/contract';
import type { FastifyPluginAsync } from 'fastify';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { requireRole } from '../accounts/index.ts';
import { notFound } from '../infra/problem.ts';
import type { SeasonService } from './service.ts';

const ofSite = z.object({ siteId: z.uuid() });
const preHandler = requireRole('editor');
const response = { 200: seasonSchema };
const CALENDAR_BYTES = 8 * 1024 * 1024;

/** The notes of a site's season. The caller guards the scope. */
export const seasonRoutes: FastifyPluginAsyncZod<{ readonly season: SeasonService }> = async (
  app,
  { season },
) => {
  app.get('/sites/:siteId/season', { schema: { params: ofSite, response } }, ({ principal, params }) =>
    season.read(principal.workspaceId, params.siteId),
  );
  app.post(
    '/sites/:siteId/season/notes',
    { preHandler, schema: { params: ofSite, body: saveSeasonDaysSchema, response } },
    ({ principal, params, body }) => season.add(principal.workspaceId, params.siteId, body),
  );
  app.delete(
    '/sites/:siteId/season/notes/:id',
    { preHandler, schema: { params: ofSite.extend({ id: z.uuid() }), response } },
    ({ principal, params }) => season.remove(principal.workspaceId, params.siteId, params.id),
  );
  app.put(
    '/sites/:siteId/season/calendar',
    {
      preHandler,
      bodyLimit: CALENDAR_BYTES,
      schema: { params: ofSite, body: bringCalendarSchema, response: { 200: broughtCalendarSchema } },
    },
    ({ principal, params, body }) => season.bring(principal.workspaceId, params.siteId, body.text),
  );
  app.put(
    '/sites/:siteId/season/address',
    { preHandler, schema: { params: ofSite, body: z.strictObject({ isGiven: z.boolean() }), response } },
    ({ principal, params, body }) => season.giveOut(principal.workspaceId, params.siteId, body.isGiven),
  );
};

/** The calendar that whoever knows its address reads, with nothing else to show. */
export const calendarRoute: FastifyPluginAsync<{ readonly season: SeasonService }> = async (
  app,
  { season },
) => {
  app.get<{ Params: { token: string } }>('/calendar/:token', async (request, reply) => {
    const [, token] = /^([\w-]{32})\.ics$/.exec(request.params.token) ?? [];
    if (!token) throw notFound('calendar');
    return reply
      .header('cache-control', 'private, no-store')
      .header('x-robots-tag', 'noindex')
      .type('text/calendar; charset=utf-8')
      .send(await season.calendar(token));
  });
};
