import {
  addPagesSchema,
  audienceQuestionSchema,
  audienceShareSchema,
  beginReadingSchema,
  countrySourceSchema,
  elementQuestionSchema,
  elementsSeenSchema,
  keepEventsSchema,
  manifestsRunSchema,
  pageReadingSchema,
  parametersSeenSchema,
  saveSiteSchema,
  seenPageSchema,
  seenValuesSchema,
  sitePageSchema,
  siteSchema,
  stayHistogramsSchema,
  stayQuestionSchema,
} from '@velarium/contract';
import { LIMITS } from '@velarium/contract/values';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { requireRole } from '../accounts/index.ts';
import type { CountrySource } from '../infra/countries.ts';
import { cataloguePath } from './catalogue.ts';
import { SIGHT_POLICY, sightDocument } from './page-sights.ts';
import type { SiteService } from './service.ts';

const params = z.object({ siteId: z.uuid() });

/** Pages of the customer's are asked on a person's word: often enough for a person. */
const ELEMENTS_ASKED = { max: 30, timeWindow: '1 minute' };

/** The workspace's sites and their known pages. The caller guards the scope. */
export const siteRoutes: FastifyPluginAsyncZod<{
  sites: SiteService;
  edgeOrigin: string;
  country: CountrySource;
  /** Makes the site's manifest anew. */
  onChanged: (workspaceId: string, siteId: string) => Promise<void>;
  /** Called with a new site, for what every site begins with. */
  onCreated: (siteId: string) => Promise<void>;
}> = async (app, { sites, edgeOrigin, country, onChanged, onCreated }) => {
  app.get('/sites', { schema: { response: { 200: z.array(siteSchema) } } }, (request) =>
    sites.list(request.principal.workspaceId),
  );
  app.get('/sites/:siteId', { schema: { params, response: { 200: siteSchema } } }, (request) =>
    sites.get(request.principal.workspaceId, request.params.siteId),
  );
  const owner = requireRole('owner');
  const editor = requireRole('editor');
  app.post(
    '/sites',
    { preHandler: owner, schema: { body: saveSiteSchema, response: { 201: siteSchema } } },
    async (request, reply) => {
      const { workspaceId } = request.principal;
      const site = await sites.create(workspaceId, request.body);
      await onCreated(site.id);
      await onChanged(workspaceId, site.id);
      return reply.status(201).send(site);
    },
  );
  app.put(
    '/sites/:siteId',
    { preHandler: owner, schema: { params, body: saveSiteSchema, response: { 200: siteSchema } } },
    async (request) => {
      const { workspaceId } = request.principal;
      const site = await sites.change(workspaceId, request.params.siteId, request.body);
      await onChanged(workspaceId, site.id);
      return site;
    },
  );
  app.get(
    '/sites/:siteId/kept-events',
    { schema: { params, response: { 200: keepEventsSchema } } },
    async ({ principal, params }) => ({
      days: await sites.keptEventsDays(principal.workspaceId, params.siteId),
    }),
  );
  app.put(
    '/sites/:siteId/kept-events',
    { preHandler: owner, schema: { params, body: keepEventsSchema, response: { 204: z.void() } } },
    async ({ principal, params, body }, reply) => {
      await sites.keepEvents(principal.workspaceId, params.siteId, body.days);
      return reply.status(204).send();
    },
  );
  app.post(
    '/sites/:siteId/pages',
    {
      preHandler: editor,
      bodyLimit: 8 * 1024 * 1024,
      schema: { params, body: addPagesSchema, response: { 200: z.array(sitePageSchema) } },
    },
    async (request) => {
      const { workspaceId } = request.principal;
      const { siteId } = request.params;
      const { source, pages } = request.body;
      const { settings } = await sites.get(workspaceId, siteId);
      const pathOf = cataloguePath(settings);
      const added = pages.map((page) => {
        const path = pathOf(page.path);
        return [path, { ...page, path, title: page.title || path, source }] as const;
      });
      // Two addresses of one page are one, the last word on it counts.
      await sites.addPages(siteId, [...new Map(added).values()]);
      return sites.pages(workspaceId, siteId);
    },
  );
  app.delete(
    '/sites/:siteId/pages',
    { preHandler: editor, schema: { params, querystring: z.object({ path: z.string() }) } },
    async (request, reply) => {
      await sites.removePage(request.principal.workspaceId, request.params.siteId, request.query.path);
      return reply.status(204).send();
    },
  );
  const reading = { schema: { params, response: { 200: pageReadingSchema.nullable() } } };
  app.get('/sites/:siteId/pages/reading', reading, (request) =>
    sites.reading(request.principal.workspaceId, request.params.siteId),
  );
  app.post(
    '/sites/:siteId/pages/reading',
    { preHandler: editor, schema: { ...reading.schema, body: beginReadingSchema } },
    (request) =>
      sites.beginReading(request.principal.workspaceId, request.params.siteId, request.body.sitemap),
  );
  app.delete('/sites/:siteId/pages/reading', { preHandler: editor, ...reading }, (request) =>
    sites.stopReading(request.principal.workspaceId, request.params.siteId),
  );
  app.get(
    '/sites/:siteId/pages',
    { schema: { params, response: { 200: z.array(sitePageSchema) } } },
    (request) => sites.pages(request.principal.workspaceId, request.params.siteId),
  );
  app.post(
    '/sites/:siteId/elements',
    {
      config: { rateLimit: ELEMENTS_ASKED },
      schema: { params, body: elementQuestionSchema, response: { 200: elementsSeenSchema } },
    },
    (request) => sites.elements(request.principal.workspaceId, request.params.siteId, request.body),
  );
  app.get(
    '/sites/:siteId/parameters',
    { schema: { params, response: { 200: parametersSeenSchema } } },
    (request) => sites.parametersSeen(request.principal.workspaceId, request.params.siteId),
  );
  app.get(
    '/sites/:siteId/policy',
    {
      config: { rateLimit: ELEMENTS_ASKED },
      schema: { params, response: { 200: z.strictObject({ policies: z.array(z.string()).nullable() }) } },
    },
    async (request) => ({
      policies: await sites.policies(request.principal.workspaceId, request.params.siteId),
    }),
  );
  // A question too long for an address: it may name every page of a site.
  app.post(
    '/sites/:siteId/stays',
    {
      bodyLimit: 4 * 1024 * 1024,
      schema: { params, body: stayQuestionSchema, response: { 200: stayHistogramsSchema } },
    },
    (request) => sites.stays(request.principal.workspaceId, request.params.siteId, request.body),
  );
  app.post(
    '/sites/:siteId/audience',
    { schema: { params, body: audienceQuestionSchema, response: { 200: audienceShareSchema } } },
    (request) => sites.audienceShare(request.principal.workspaceId, request.params.siteId, request.body),
  );
  app.get(
    '/sites/:siteId/days',
    { schema: { params, response: { 200: z.array(z.number().int()) } } },
    (request) => sites.viewsByDay(request.principal.workspaceId, request.params.siteId),
  );
  app.get(
    '/sites/:siteId/sights',
    { schema: { params, response: { 200: z.array(seenPageSchema) } } },
    (request) => sites.sights(request.principal.workspaceId, request.params.siteId),
  );
  app.get(
    '/sites/:siteId/sight',
    { schema: { params, querystring: z.object({ path: z.string().max(LIMITS.pageAddress) }) } },
    async ({ principal, params: { siteId }, query }, reply) => {
      const sight = await sites.sight(principal.workspaceId, siteId, query.path);
      return reply
        .header('content-security-policy', SIGHT_POLICY)
        .header('cache-control', 'private, no-store')
        .type('text/html; charset=utf-8')
        .send(sightDocument(sight));
    },
  );
  app.get(
    '/sites/:siteId/manifests-run',
    { schema: { params, response: { 200: manifestsRunSchema } } },
    (request) => sites.manifestsRun(request.principal.workspaceId, request.params.siteId),
  );
  app.get(
    '/countries',
    {
      schema: {
        querystring: z.object({ address: z.string().max(60).optional() }),
        response: { 200: countrySourceSchema },
      },
    },
    async ({ query: { address } }) => ({
      networks: country.networks,
      header: country.header,
      country: address === undefined ? null : country.of(address),
    }),
  );
  app.get('/sites/:siteId/seen', { schema: { params, response: { 200: seenValuesSchema } } }, (request) =>
    sites.seenValues(request.principal.workspaceId, request.params.siteId),
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
