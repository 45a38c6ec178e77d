import { trafficQuestionSchema, trafficSchema } from '@velarium/contract';
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
};
