import { foreseenSchema, trafficQuestionSchema, trafficSchema } from '@velarium/contract';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { z } from 'zod';
import type { ForecastService } from './service.ts';

/** Recorded traffic, to be replayed. The caller guards the scope. */
export const forecastRoutes: FastifyPluginAsyncZod<{ readonly forecasts: ForecastService }> = async (
  app,
  { forecasts },
) => {
  app.get(
    '/sites/:siteId/traffic',
    {
      schema: {
        params: z.object({ siteId: z.uuid() }),
        querystring: trafficQuestionSchema,
        response: { 200: trafficSchema },
      },
    },
    ({ principal, params, query }) => forecasts.traffic(principal.workspaceId, params.siteId, query),
  );
  app.get(
    '/sites/:siteId/foreseen',
    { schema: { params: z.object({ siteId: z.uuid() }), response: { 200: z.array(foreseenSchema) } } },
    ({ principal, params }) => forecasts.foreseen(principal.workspaceId, params.siteId),
  );
};
