import {
  type Collect,
  collectSchema,
  type PageSight,
  type PreviewRequest,
  pageSightSchema,
  previewRequestSchema,
  type Submit,
  submitSchema,
  type TellWhy,
  tellWhySchema,
  WHY_CODE,
} from '@velarium/contract';
import { LIMITS, SITE_KEY } from '@velarium/contract/values';
import { sourceOf } from '@velarium/core';
import type { FastifyPluginAsync, FastifyReply, FastifyRequest } from 'fastify';
import { isbot } from 'isbot';
import { z } from 'zod';
import type { CountrySource } from '../infra/countries.ts';
import { NO_SNIFFING } from '../infra/no-sniffing.ts';
import { busy, notFound, ProblemError } from '../infra/problem.ts';
import { referrerKind } from '../infra/referrer-kind.ts';
import { type Client, IntakeFull, type IntakeService, storable } from '../intake/index.ts';
import type { PreviewTokens, PublishingService } from '../publishing/index.ts';
import type { ResultService } from '../results/index.ts';
import type { SiteService } from '../sites/index.ts';
import type { EdgeSite, SiteDirectory } from './directory.ts';
import type { ServedFile } from './served-file.ts';
import type { TagFiles } from './tag-files.ts';

/** What only a database can answer. */
export interface EdgeServices {
  readonly publishing: PublishingService;
  readonly intake: IntakeService;
  readonly results: ResultService;
  readonly sites: Pick<SiteService, 'keepSight'>;
}

export interface EdgeOptions {
  readonly directory: SiteDirectory;
  /** @throws {ProblemError} 503 until the database has been reached for the first time. */
  readonly services: () => EdgeServices;
  readonly tagFiles: TagFiles;
  readonly previews: PreviewTokens;
  readonly country: CountrySource;
}

const FOREVER = 'public, max-age=31536000, immutable';
/**
 * Always asked for again by browsers, answered 304 from memory: a publish is seen at the next load. A proxy that many ask may
 * answer for a second by itself, so that a crowd on one page comes to us once.
 */
const REVALIDATE = 'public, max-age=0, s-maxage=1, must-revalidate';

const JAVASCRIPT = 'text/javascript; charset=utf-8';
const JSON_TYPE = 'application/json; charset=utf-8';

/** The validators of the public doors: JSON Schema out of the contract, compiled once by Fastify's Ajv. */
const jsonSchema = (schema: z.ZodType) => {
  const { $schema: _unused, ...rest } = z.toJSONSchema(schema, { target: 'draft-7' });
  return rest;
};

const previewEnded = () =>
  new ProblemError(403, 'preview-ended', 'This preview has ended', 'Open a new one from the studio.');

/** What sites load and what their pages send. Everything from outside is hostile until checked. */
export const edgeRoutes: FastifyPluginAsync<EdgeOptions> = async (
  app,
  { directory, services, tagFiles, previews, country },
) => {
  // Pages send text/plain, which needs no preflight; it is JSON all the same.
  app.removeContentTypeParser(['application/json', 'text/plain']);
  app.addContentTypeParser(
    ['application/json', 'text/plain'],
    { parseAs: 'string' },
    (_request, body, done) => {
      try {
        done(null, JSON.parse(body as string));
      } catch {
        done(Object.assign(new Error('not JSON'), { statusCode: 400 }));
      }
    },
  );

  const siteOf = async (key: string): Promise<EdgeSite> => {
    const site = await directory.find(key);
    if (!site) throw notFound('site');
    return site;
  };

  const countryOf = (request: FastifyRequest): string | null => {
    const told = country.header === null ? undefined : request.headers[country.header];
    const isTold = typeof told === 'string' && /^[a-z]{2}$/i.test(told);
    return isTold ? told.toLowerCase() : country.of(request.ip);
  };
  const clientOf = (request: FastifyRequest): Client => ({
    userAgent: request.headers['user-agent'] ?? '',
    acceptLanguage: request.headers['accept-language'] ?? '',
    get country() {
      return countryOf(request);
    },
  });

  app.get<{ Params: { name: string } }>('/tag/:name.js', async (request, reply) => {
    const { name } = request.params;
    if (SITE_KEY.test(name)) {
      await siteOf(name);
      return serve(request, reply, tagFiles.tag, { type: JAVASCRIPT, cache: 'public, max-age=300' });
    }
    const file = await tagFiles.find(`${name}.js`);
    if (!file) throw notFound('file');
    // A module of another origin is only run when any page may read it; it holds nothing of anybody.
    return serve(request, reply, file, { type: JAVASCRIPT, cache: FOREVER, origin: '*' });
  });
  const serveManifest = (request: FastifyRequest, reply: FastifyReply, site: EdgeSite) =>
    serve(request, reply, site.manifest, {
      type: JSON_TYPE,
      cache: REVALIDATE,
      origin: ownOrigin(request, site),
    });
  app.get<{ Params: { key: string } }>('/tag/:key/manifest.json', (request, reply) => {
    const site = directory.peek(request.params.key);
    if (site) return serveManifest(request, reply, site);
    return siteOf(request.params.key).then((found) => serveManifest(request, reply, found));
  });
  app.get<{ Params: { key: string; hash: string } }>(
    '/tag/:key/messages/:hash.json',
    async (request, reply) => {
      const { key, hash } = request.params;
      const site = await siteOf(key);
      const file = await directory.message(site.id, hash);
      if (!file) throw notFound('message');
      return serve(request, reply, file, {
        type: JSON_TYPE,
        cache: FOREVER,
        origin: ownOrigin(request, site),
      });
    },
  );

  // Asked only by sites with a campaign that needs it; the answer is this visitor's alone, so nothing may keep it.
  app.get<{ Params: { key: string }; Querystring: Record<string, unknown> }>(
    '/tag/:key/about',
    async (request, reply) => {
      allowOrigin(request, reply, await siteOf(request.params.key));
      reply.header('cache-control', 'no-store').header('vary', 'origin');
      const said = (name: string) => String(request.query[name] ?? '').slice(0, LIMITS.fieldValue);
      const referrer = said('from');
      return {
        country: countryOf(request),
        source: sourceOf({
          referrer,
          kind: referrerKind(referrer),
          medium: said('utm_medium'),
          name: said('utm_source'),
        }),
      };
    },
  );

  // Asked only by messages that show a number; old by a minute at most.
  app.get<{ Params: { key: string; campaign: string } }>(
    '/tag/:key/counts/:campaign',
    async (request, reply) => {
      const { key, campaign } = request.params;
      const site = await siteOf(key);
      allowOrigin(request, reply, site);
      if (!z.uuid().safeParse(campaign).success) throw notFound('campaign');
      reply.header('cache-control', 'public, max-age=60').header('vary', 'origin');
      return services().results.publicCounts(site.id, campaign);
    },
  );

  app.post<{ Body: PreviewRequest }>(
    '/preview',
    { bodyLimit: LIMITS.submitBytes, schema: { body: jsonSchema(previewRequestSchema) } },
    async (request, reply) => {
      const { site: key, token, campaign } = request.body;
      const site = await siteOf(key);
      assertOrigin(request, reply, site);
      reply.header('cache-control', 'no-store');
      if (WHY_CODE.test(token)) {
        const asked = await services().publishing.why.campaignOf(site.id, token);
        if (!asked) throw previewEnded();
        // What visitors meet, as they meet it.
        const live = await services().publishing.preview(key, 'live');
        return { ...live, link: null, why: { campaign: asked } };
      }
      const claim = previews.read(token, key);
      if (!claim) throw previewEnded();
      // Whoever has a link sees what it is for, and nothing else they may ask for.
      const { of, isBare = false } = claim;
      const preview = await services().publishing.preview(key, of ?? campaign ?? 'drafts');
      return { ...preview, link: of === undefined ? null : { isBare }, why: null };
    },
  );

  app.post<{ Body: TellWhy }>(
    '/why',
    { bodyLimit: LIMITS.collectBytes, schema: { body: jsonSchema(tellWhySchema) } },
    async (request, reply) => {
      const { site: key, code, page, lines } = request.body;
      const site = await siteOf(key);
      assertOrigin(request, reply, site);
      const said = lines.map(({ campaign, ...words }) => ({
        campaign,
        name: storable(words.name),
        mark: storable(words.mark),
        why: storable(words.why),
      }));
      if (!(await services().publishing.why.tell(site.id, { code, page: storable(page), lines: said })))
        throw previewEnded();
      return reply.status(204).send();
    },
  );

  app.post<{ Body: PageSight }>(
    '/page-sight',
    { bodyLimit: LIMITS.sightBytes, schema: { body: jsonSchema(pageSightSchema) } },
    async (request, reply) => {
      const { site: key, token, path, html } = request.body;
      const site = await siteOf(key);
      assertOrigin(request, reply, site);
      const claim = previews.read(token, key);
      // What somebody without an account sees is not what the studio shows.
      if (!claim || claim.of !== undefined) throw previewEnded();
      await services().sites.keepSight(site.id, {
        address: request.headers.origin + path,
        html: storable(html),
      });
      return reply.status(204).send();
    },
  );

  app.options('/collect', preflight);
  app.options('/submit', preflight);

  app.post<{ Body: Collect }>(
    '/collect',
    { bodyLimit: LIMITS.collectBytes, schema: { body: jsonSchema(collectSchema) } },
    async (request, reply) => {
      const site = await siteOf(request.body.site);
      assertOrigin(request, reply, site);
      if (isBot(request)) {
        services().intake.noteRobot(site, request.body);
        return reply.status(204).send();
      }
      try {
        await services().intake.collect(site, request.body, clientOf(request));
      } catch (error) {
        if (error instanceof IntakeFull) throw busy();
        throw error;
      }
      return reply.status(204).send();
    },
  );
  app.post<{ Body: Submit }>(
    '/submit',
    { bodyLimit: LIMITS.submitBytes, schema: { body: jsonSchema(submitSchema) } },
    async (request, reply) => {
      const site = await siteOf(request.body.site);
      assertOrigin(request, reply, site);
      if (isBot(request)) return reply.status(204).send();
      await services().intake.submit(site, request.body, request.ip);
      return reply.status(204).send();
    },
  );
};

const isBot = (request: FastifyRequest): boolean => isbot(request.headers['user-agent'] ?? '');

interface Serving {
  readonly type: string;
  readonly cache: string;
  /** The origin whose pages may read it. */
  readonly origin?: string | undefined;
}

/**
 * Sends ready bytes in the best coding the client takes, or 304 when it has them. Source: RFC 9110, 13.1.2.
 * Written to the connection itself: nothing the framework would do to the answer is left to do, and doing it costs a
 * third of all requests.
 */
function serve(
  { headers: asked }: FastifyRequest,
  reply: FastifyReply,
  file: ServedFile,
  { type, cache, origin }: Serving,
): FastifyReply {
  const headers = ['cache-control', cache, 'vary', 'accept-encoding, origin', ...NO_SNIFFING];
  if (file.etag) headers.push('etag', file.etag);
  if (origin) headers.push('access-control-allow-origin', origin);
  reply.hijack();
  if (file.etag && isKnown(asked['if-none-match'], file.etag)) {
    reply.raw.writeHead(304, headers).end();
    return reply;
  }
  const coding = codingOf(asked['accept-encoding']);
  const body = coding === 'br' ? file.brotli : coding === 'gzip' ? file.gzip : file.plain;
  headers.push('content-type', type, 'content-length', String(body.byteLength));
  if (coding) headers.push('content-encoding', coding);
  reply.raw.writeHead(200, headers).end(body);
  return reply;
}

/** A coding of quality nought is one that is refused. Source: RFC 9110, 12.4.2 and 12.5.3. */
const taking = (coding: string) => new RegExp(`\\b${coding}\\b(?!\\s*;\\s*q=0(?:\\.0*)?\\s*(?:,|$))`, 'i');
const [BROTLI, GZIP] = [taking('br'), taking('gzip')];
function codingOf(accepted: string | string[] | undefined): 'br' | 'gzip' | undefined {
  if (!accepted) return undefined;
  const said = `${accepted}`;
  return BROTLI.test(said) ? 'br' : GZIP.test(said) ? 'gzip' : undefined;
}

function isKnown(ifNoneMatch: string | undefined, etag: string): boolean {
  if (ifNoneMatch === undefined) return false;
  if (ifNoneMatch === etag || ifNoneMatch === '*') return true;
  return ifNoneMatch.split(',').some((one) => one.trim().replace(/^W\//, '') === etag);
}

/** The origin a page of the site asks from; none for anybody else's. */
const ownOrigin = ({ headers: { origin } }: FastifyRequest, site: EdgeSite): string | undefined =>
  origin !== undefined && site.origins.has(origin) ? origin : undefined;

/** Lets the site's own pages, and no others, read the answer. */
function allowOrigin(request: FastifyRequest, reply: FastifyReply, site: EdgeSite): boolean {
  const origin = ownOrigin(request, site);
  if (origin !== undefined) reply.header('access-control-allow-origin', origin);
  return origin !== undefined;
}

function assertOrigin(request: FastifyRequest, reply: FastifyReply, site: EdgeSite): void {
  if (allowOrigin(request, reply, site)) return;
  throw new ProblemError(
    403,
    'foreign-origin',
    'Not from this site',
    'Add the page’s origin to the site’s origins.',
  );
}

/** A preflight does not say which site it is for, so it grants only the asking itself; the POST decides. */
async function preflight(request: FastifyRequest, reply: FastifyReply) {
  return reply
    .status(204)
    .header('access-control-allow-origin', request.headers.origin ?? 'null')
    .header('access-control-allow-methods', 'POST')
    .header('access-control-allow-headers', 'content-type')
    .header('access-control-max-age', '600')
    .header('vary', 'origin')
    .send();
}
