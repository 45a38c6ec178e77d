import Fastify, { type FastifyInstance } from 'fastify';
import type { Logger } from 'pino';
import { type DeliveryService, linkPages } from './deliveries/index.ts';
import { type EdgeServices, edgeRoutes, type SiteDirectory, type TagFiles } from './edge/index.ts';
import type { CountrySource } from './infra/countries.ts';
import { NO_SNIFFING } from './infra/no-sniffing.ts';
import { answerWithProblems, notFound, refuseUnread } from './infra/problem.ts';
import { requestId } from './infra/request-id.ts';
import { SLOW_CLIENTS } from './infra/slow-clients.ts';
import { type LibraryService, servePictures } from './library/index.ts';
import type { PreviewTokens } from './publishing/index.ts';
import type { Metrics } from './watch/index.ts';

export interface EdgeAppOptions {
  /** What the database answers. @throws {ProblemError} 503 until it has been reached for the first time. */
  readonly services: () => EdgeServices & {
    readonly library: LibraryService;
    readonly deliveries: DeliveryService;
  };
  readonly directory: SiteDirectory;
  readonly tagFiles: TagFiles;
  readonly previews: PreviewTokens;
  /** Where a visitor is, from the address or from a header that the operator's own proxy sets. */
  readonly country: CountrySource;
  readonly trustedProxies: string;
  /** What fails is written to it. */
  readonly log: Logger;
  /** Measures its answers, where somebody asks for them. */
  readonly metrics?: Metrics | undefined;
}

/** The public edge. Never listens itself. */
export async function createEdgeApp({
  services,
  directory,
  tagFiles,
  previews,
  country,
  trustedProxies,
  log,
  metrics,
}: EdgeAppOptions): Promise<FastifyInstance> {
  const app = Fastify({
    ...SLOW_CLIENTS,
    frameworkErrors: refuseUnread,
    trustProxy: trustedProxies === '' ? false : trustedProxies,
    // Strict schemas mean what they say: nothing is dropped, turned into another type or filled in.
    ajv: { customOptions: { removeAdditional: false, coerceTypes: false, useDefaults: false } },
  });
  // Named and logged when it fails: a logger of its own for each would cost more than most requests here do.
  answerWithProblems(app, { log, idOf: ({ raw }) => requestId(raw) });
  app.setNotFoundHandler(() => {
    throw notFound('address');
  });
  metrics?.measure(app, 'edge');
  app.addHook('onSend', (_request, reply, _payload, done) => {
    reply.header(...NO_SNIFFING);
    done();
  });
  await app.register(edgeRoutes, { directory, services, tagFiles, previews, country });
  await app.register(servePictures, { library: () => services().library });
  await app.register(linkPages, { deliveries: () => services().deliveries });
  return app;
}
