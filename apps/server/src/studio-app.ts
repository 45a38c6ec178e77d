import compress from '@fastify/compress';
import etag from '@fastify/etag';
import helmet from '@fastify/helmet';
import fastifyStatic from '@fastify/static';
import swagger from '@fastify/swagger';
import swaggerUi from '@fastify/swagger-ui';
import Fastify, { type FastifyInstance, type FastifyPluginAsync } from 'fastify';
import { jsonSchemaTransform, serializerCompiler, validatorCompiler } from 'fastify-type-provider-zod';
import { accountRoutes, auth, requireMember } from './accounts/index.ts';
import { campaignRoutes } from './campaigns/index.ts';
import { deliveryRoutes } from './deliveries/index.ts';
import { experimentRoutes } from './experiments/index.ts';
import { forecastRoutes } from './forecasts/index.ts';
import { goalRoutes } from './goals/index.ts';
import type { CountrySource } from './infra/countries.ts';
import { answerWithProblems, notFound, refuseUnread } from './infra/problem.ts';
import { requestId } from './infra/request-id.ts';
import type { Secrets } from './infra/seal.ts';
import { SLOW_CLIENTS } from './infra/slow-clients.ts';
import { refuseUnstorable } from './infra/unstorable.ts';
import { libraryRoutes, servePictures } from './library/index.ts';
import { memberRoutes } from './members/index.ts';
import { peopleRoutes } from './people/index.ts';
import { createPreviewTokens, publishingRoutes } from './publishing/index.ts';
import { rehearsalRoutes } from './rehearsals/index.ts';
import { resultRoutes } from './reports/index.ts';
import { calendarRoute, seasonRoutes } from './season/index.ts';
import type { Services } from './services.ts';
import { siteRoutes } from './sites/index.ts';
import { versionRoutes } from './versions/index.ts';
import type { Metrics } from './watch/index.ts';

export interface StudioAppOptions {
  readonly services: Services;
  readonly secrets: Secrets;
  readonly edgeOrigin: string;
  readonly country: CountrySource;
  readonly isBehindTls: boolean;
  /** Addresses and networks of proxies whose word on who asks is believed, with commas between. */
  readonly trustedProxies: string;
  /** Folder of the built studio; without it only the API is served. */
  readonly studioFiles?: string;
  readonly logLevel?: string;
  /** Measures its answers, where somebody asks for them. */
  readonly metrics?: Metrics | undefined;
}

/** Files of the studio that are neither documents nor workers. */
const PART_OF_PAGE = /\/assets\/(?![^/]*worker)[^/]*\.(?:js|css|woff2)(?:\.br|\.gz)?$/;
/** What only documents and workers heed: more than half a kilobyte, and a place is made of dozens of files. */
const OF_DOCUMENTS = [
  'content-security-policy',
  'cross-origin-opener-policy',
  'origin-agent-cluster',
  'x-dns-prefetch-control',
  'x-download-options',
  'x-frame-options',
  'x-permitted-cross-domain-policies',
  'x-xss-protection',
];

/** The studio's API under `/api`, its reference under `/api/docs`, and the built studio. Never listens itself. */
export async function createStudioApp(options: StudioAppOptions): Promise<FastifyInstance> {
  const { services } = options;
  const app = Fastify({
    ...SLOW_CLIENTS,
    frameworkErrors: refuseUnread,
    logger: { level: options.logLevel ?? 'warn', redact: ['req.headers.cookie'] },
    genReqId: requestId,
    trustProxy: options.trustedProxies === '' ? false : options.trustedProxies,
  });
  app.setValidatorCompiler(validatorCompiler);
  app.setSerializerCompiler(serializerCompiler);
  answerWithProblems(app);
  options.metrics?.measure(app, 'studio');
  refuseUnstorable(app);
  // What the API answers is somebody's, now: nothing on the way may keep it.
  app.addHook('onSend', async (request, reply) => {
    if (request.url.startsWith('/api') && !reply.hasHeader('cache-control'))
      reply.header('cache-control', 'no-store');
  });
  // What is asked every few seconds is answered with 304 while nothing of it has changed (RFC 9110, 13.1.2).
  await app.register(etag, { weak: true });
  // What is sent to us is taken as it is: a small body must not unfold into a large one.
  await app.register(compress, { threshold: 1024, globalDecompression: false });
  await app.register(helmet, {
    contentSecurityPolicy: {
      directives: {
        defaultSrc: ["'self'"],
        // Toasts and the palette place their own style elements.
        styleSrc: ["'self'", "'unsafe-inline'"],
        imgSrc: ["'self'", 'data:', 'blob:'],
        // Pages of the customers' sites stand behind the stage, sandboxed.
        frameSrc: ["'self'", 'http:', 'https:'],
        upgradeInsecureRequests: null,
      },
    },
    strictTransportSecurity: options.isBehindTls,
  });
  await app.register(swagger, {
    openapi: { info: { title: 'Velarium', description: 'The studio’s own API.', version: '1' } },
    transform: jsonSchemaTransform,
  });
  await app.register(swaggerUi, { routePrefix: '/api/docs' });
  await app.register(
    async (api) => {
      // Of files nobody asks who loads them: they come also while the database is away.
      await api.register(auth, {
        db: services.db,
        accounts: services.accounts,
        secrets: options.secrets,
        isBehindTls: options.isBehindTls,
      });
      await api.register(accountRoutes, { accounts: services.accounts });
      await api.register(memberRoutes, { members: services.members, accounts: services.accounts });
      const { edgeOrigin, country, secrets } = options;
      await api.register(ofMembers, { services, edgeOrigin, country, secrets });
    },
    { prefix: '/api' },
  );
  await app.register(calendarRoute, { season: services.season });
  await app.register(servePictures, { library: () => services.library });
  const { studioFiles } = options;
  if (studioFiles)
    await app.register(fastifyStatic, {
      root: studioFiles,
      wildcard: false,
      preCompressed: true,
      // Files named by their content never change; what names them is asked for each time.
      cacheControl: false,
      setHeaders: (reply, path) => {
        reply.header(
          'cache-control',
          path.includes('/assets/') ? 'public, max-age=31536000, immutable' : 'no-cache',
        );
        if (PART_OF_PAGE.test(path)) for (const name of OF_DOCUMENTS) reply.raw.removeHeader(name);
      },
    });
  app.setNotFoundHandler((request, reply) => {
    // Addresses of the studio are made in the browser; the page decides what they mean.
    if (studioFiles && request.method === 'GET' && !/^\/(api|assets)\//.test(request.url))
      return reply.sendFile('index.html');
    throw notFound('address');
  });
  return app;
}

/** What members ask of their workspace. */
const ofMembers: FastifyPluginAsync<
  Pick<StudioAppOptions, 'services' | 'edgeOrigin' | 'country' | 'secrets'>
> = async (scope, { services, edgeOrigin, country, secrets }) => {
  requireMember(scope, services.accounts);
  await scope.register(siteRoutes, {
    sites: services.sites,
    edgeOrigin,
    country,
    onCreated: services.library.looks.begin,
    onChanged: services.publishing.prepareSite,
  });
  await scope.register(campaignRoutes, { campaigns: services.campaigns });
  await scope.register(forecastRoutes, { forecasts: services.forecasts });
  await scope.register(versionRoutes, {
    versions: services.versions,
    campaigns: services.campaigns,
    publishing: services.publishing,
  });
  await scope.register(publishingRoutes, {
    publishing: services.publishing,
    campaigns: services.campaigns,
    sites: services.sites,
    previews: createPreviewTokens(secrets),
  });
  await scope.register(libraryRoutes, {
    library: services.library,
    sites: services.sites,
    onChanged: services.publishing.prepareSite,
  });
  await scope.register(peopleRoutes, {
    people: services.people,
    sentTo: services.deliveries.outbox.sentTo,
    forgetSent: services.deliveries.forget,
    judgeHeld: services.intake.judgeHeld,
  });
  await scope.register(deliveryRoutes, { deliveries: services.deliveries });
  await scope.register(resultRoutes, { reports: services.reports, weekMails: services.weekMails });
  await scope.register(goalRoutes, {
    goals: services.goals,
    onChanged: services.publishing.prepareSite,
  });
  await scope.register(seasonRoutes, { season: services.season });
  await scope.register(rehearsalRoutes, { rehearsals: services.rehearsals });
  await scope.register(experimentRoutes, {
    experiments: services.experiments,
    publishing: services.publishing,
  });
};
