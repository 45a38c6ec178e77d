import { sitePageSchema, siteSchema } from '@velarium/contract';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { z } from 'zod';
import type { SiteService } from './service.ts';

const params = z.object({ siteId: z.uuid() });

/** The workspace's sites and their known pages. The caller guards the scope. */
export const siteRoutes: FastifyPluginAsyncZod<{ sites: SiteService; edgeOrigin: string }> = async (
  app,
  { sites, edgeOrigin },
) => {
  app.get('/sites', { schema: { response: { 200: z.array(siteSchema) } } }, (request) =>
    sites.list(request.principal.workspaceId),
  );
  app.get('/sites/:siteId', { schema: { params, response: { 200: siteSchema } } }, (request) =>
    sites.get(request.principal.workspaceId, request.params.siteId),
  );
  app.get(
    '/sites/:siteId/pages',
    { schema: { params, response: { 200: z.array(sitePageSchema) } } },
    (request) => sites.pages(request.principal.workspaceId, request.params.siteId),
  );
  app.get(
    '/sites/:siteId/snippet',
    { schema: { params, response: { 200: z.strictObject({ snippet: z.string() }) } } },
    async (request) => {
      const { key } = await sites.get(request.principal.workspaceId, request.params.siteId);
      return { snippet: `<script async src="${edgeOrigin}/tag/${key}.js"></script>` };
    },
  );
};
