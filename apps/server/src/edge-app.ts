import Fastify, { type FastifyInstance, LogController } from 'fastify';
import { edgeRoutes, type SiteDirectory } from './edge/index.ts';
import { answerWithProblems } from './infra/problem.ts';
import type { Services } from './services.ts';

export interface EdgeAppOptions {
  readonly services: Services;
  readonly directory: SiteDirectory;
  readonly tagFiles: string;
  readonly logLevel?: string;
}

/** The public edge. Never listens itself. */
export async function createEdgeApp({
  services,
  directory,
  tagFiles,
  logLevel,
}: EdgeAppOptions): Promise<FastifyInstance> {
  const app = Fastify({
    logger: { level: logLevel ?? 'warn' },
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
    intake: services.intake,
    tagFiles,
  });
  return app;
}
