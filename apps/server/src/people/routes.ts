import { leadSchema } from '@velarium/contract';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { z } from 'zod';
import type { PeopleService } from './service.ts';

/** What visitors sent. The caller guards the scope. */
export const peopleRoutes: FastifyPluginAsyncZod<{ people: PeopleService }> = async (app, { people }) => {
  app.get(
    '/sites/:siteId/leads',
    { schema: { params: z.object({ siteId: z.uuid() }), response: { 200: z.array(leadSchema) } } },
    (request) => people.list(request.principal.workspaceId, request.params.siteId),
  );
  app.get(
    '/sites/:siteId/attachments/:id',
    { schema: { params: z.object({ siteId: z.uuid(), id: z.uuid() }) } },
    async (request, reply) => {
      const { siteId, id } = request.params;
      const bytes = await people.attachment(request.principal.workspaceId, siteId, id);
      return reply
        .type('image/webp')
        .header('content-disposition', `attachment; filename="${id}.webp"`)
        .header('cache-control', 'private, no-store')
        .send(bytes);
    },
  );
};
