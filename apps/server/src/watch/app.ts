import Fastify, { type FastifyInstance } from 'fastify';
import type { DataSource } from 'typeorm';
import { isUp, type Metrics } from './metrics.ts';

export interface WatchOptions {
  readonly roles: readonly string[];
  readonly metrics: Metrics;
  readonly database: () => DataSource | undefined;
  /** Whether its doors are open: it has begun, and is not coming to its end. */
  readonly isOpen: () => boolean;
}

/**
 * What whoever runs an installation asks of each of its processes, on a port of its own that nobody else need reach. Never
 * listens itself.
 */
export function createWatchApp({ roles, metrics, database, isOpen }: WatchOptions): FastifyInstance {
  const app = Fastify({ logger: { level: 'warn' } });
  // That it answers is all there is to say.
  app.get('/health', async () => ({ status: 'up', roles }));
  /** An edge serves what it last knew without the database; everybody else needs it. */
  app.get('/ready', async (_request, reply) => {
    const hasDatabase = await isUp(database());
    const isReady = isOpen() && (hasDatabase || roles.every((role) => role === 'edge'));
    return reply
      .status(isReady ? 200 : 503)
      .send({ status: isReady ? 'ready' : 'not ready', roles, database: hasDatabase ? 'up' : 'away' });
  });
  app.get('/metrics', async (_request, reply) =>
    reply.header('content-type', metrics.registry.contentType).send(await metrics.registry.metrics()),
  );
  return app;
}
