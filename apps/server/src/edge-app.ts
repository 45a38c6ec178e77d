import Fastify, { type FastifyInstance, LogController } from 'fastify';
import { edgeRoutes, type SiteDirectory } from './edge/index.ts';
import type { CountrySource } from './infra/countries.ts';
import { answerWithProblems } from './infra/problem.ts';
import { servePictures } from './library/index.ts';
import type { PreviewTokens } from './publishing/index.ts';
import type { Services } from './services.ts';

export interface EdgeAppOptions {
  readonly services: Services;
  readonly directory: SiteDirectory;
  readonly tagFiles: string;
  readonly previews: PreviewTokens;
  /** Where a visitor is, from the address or from a header that the operator's own proxy sets. */
  readonly country: CountrySource;
  readonly trustsProxy: boolean;
  readonly logLevel?: string;
}

/** The public edge. Never listens itself. */
export async function createEdgeApp({
  services,
  directory,
  tagFiles,
  previews,
  country,
  trustsProxy,
  logLevel,
}: EdgeAppOptions): Promise<FastifyInstance> {
  const app = Fastify({
    logger: { level: logLevel ?? 'warn' },
    trustProxy: trustsProxy,
    // Two lines and a logger for each request would cost more than most requests here do.
    logController: new LogController({ disableRequestLogging: true }),
    childLoggerFactory: (logger) => logger,
    // Strict schemas mean what they say: nothing is dropped, turned into another type or filled in.
    ajv: { customOptions: { removeAdditional: false, coerceTypes: false, useDefaults: false } },
  });
  answerWithProblems(app);
  await app.register(edgeRoutes, {
    directory,
    publishing: services.publishing,
    results: services.results,
    intake: services.intake,
    tagFiles,
    previews,
    country,
  });
  await app.register(servePictures, { library: services.library });
  return app;
}
