import type { FastifyInstance } from 'fastify';
import { Counter, collectDefaultMetrics, Gauge, type OpenMetricsContentType, Registry } from 'prom-client';
import type { DataSource } from 'typeorm';
import { AnswerTimes } from './answer-times.ts';

/** Events that wait to be counted are looked for no further: more is too many, whatever their number. */
const MOST_UNCOUNTED = 100_000;

/** What is measured of one process. Source of the form: OpenMetrics 1.0. */
export function createMetrics() {
  const registry = new Registry<OpenMetricsContentType>();
  registry.setContentType(Registry.OPENMETRICS_CONTENT_TYPE);
  const registers = [registry];
  collectDefaultMetrics({ register: registry });
  const times = new AnswerTimes(registry);
  const failed = new Counter({
    name: 'velarium_failures',
    help: 'What failed beside any request and was written to the log.',
    registers,
  });
  const gauge = (name: string, help: string, labelNames: string[], collect: (own: Gauge) => Promise<void>) =>
    new Gauge({
      name,
      help,
      labelNames,
      registers,
      async collect() {
        // What cannot be had is not told, neither as it was before nor as nought.
        this.reset();
        if (labelNames.length === 0) this.remove();
        await collect(this).catch(() => {});
      },
    });

  return {
    registry,
    /** Told of what fails beside any request. */
    onFailure: () => failed.inc(),
    /** Measures every answer of an application. */
    measure(app: FastifyInstance, role: 'studio' | 'edge'): void {
      // The framework's own hook for what was answered listens twice and takes both back, each time.
      app.addHook('onRequest', (request, { raw }, done) => {
        const begunMs = performance.now();
        raw.once('finish', () => {
          const route = request.routeOptions.url ?? 'none';
          const seconds = (performance.now() - begunMs) / 1000;
          times.add({ role, method: request.method, route, status: raw.statusCode }, seconds);
        });
        done();
      });
    },
    /** What is asked of the database when somebody asks for the figures; nothing while it is away. */
    watchDatabase(database: () => DataSource | undefined, isWorker: boolean): void {
      gauge('velarium_database_connections', 'Connections of this process.', ['state'], async (own) => {
        const pool = poolOf(database());
        if (!pool) return;
        own.set({ state: 'idle' }, pool.idleCount);
        own.set({ state: 'busy' }, pool.totalCount - pool.idleCount);
        own.set({ state: 'waited for' }, pool.waitingCount);
      });
      gauge('velarium_database_up', 'Whether the database answers.', [], async (own) => {
        own.set(await isUp(database()).then(Number));
      });
      if (!isWorker) return;
      gauge(
        'velarium_deliveries',
        'What is to go out, by its state; what was sent is not counted.',
        ['state'],
        async (own) => {
          const rows: { state: string; count: string }[] =
            (await database()?.query(
              `SELECT state, count(*) FROM delivery WHERE state <> 'sent' GROUP BY state`,
            )) ?? [];
          for (const { state, count } of rows) own.set({ state }, Number(count));
        },
      );
      gauge(
        'velarium_delivery_oldest_due_seconds',
        'How long what is due the longest has been due.',
        [],
        async (own) => {
          const [row]: { seconds: number | null }[] = await required(database()).query(
            `SELECT extract(epoch FROM now() - min(due_at))::float8 AS seconds FROM delivery
              WHERE state IN ('waiting', 'retrying') AND due_at <= now()`,
          );
          own.set(row?.seconds ?? 0);
        },
      );
      gauge(
        'velarium_events_uncounted',
        `Events stored and not yet in the reports, up to ${MOST_UNCOUNTED}.`,
        [],
        async (own) => {
          const db = required(database());
          const [until]: { tx: string; since: string }[] = await db.query(
            'SELECT tx, since::text FROM counted_until',
          );
          const [row]: { count: string }[] = await db.query(
            `SELECT count(*) FROM (SELECT FROM event WHERE tx >= $1 AND at >= $2 LIMIT ${MOST_UNCOUNTED}) AS waiting`,
            [until?.tx, until?.since],
          );
          own.set(Number(row?.count ?? 0));
        },
      );
    },
  };
}
export type Metrics = ReturnType<typeof createMetrics>;

const required = (db: DataSource | undefined): DataSource => {
  if (!db) throw new Error('expected a database, got none yet');
  return db;
};

interface Pool {
  readonly totalCount: number;
  readonly idleCount: number;
  readonly waitingCount: number;
}
const poolOf = (db: DataSource | undefined): Pool | undefined =>
  (db?.driver as { master?: Pool } | undefined)?.master;

/** How long the database may take to say that it is there. */
const PATIENCE_MS = 2000;

/** Whether the database answers in time. */
export async function isUp(db: DataSource | undefined): Promise<boolean> {
  let timer: NodeJS.Timeout | undefined;
  const late = new Promise<false>((resolve) => {
    timer = setTimeout(() => resolve(false), PATIENCE_MS);
  });
  const asked = db?.query('SELECT 1').then(
    () => true,
    () => false,
  );
  try {
    return await Promise.race([asked ?? false, late]);
  } finally {
    clearTimeout(timer);
  }
}
