import PgBoss from 'pg-boss';
import type { DataSource, EntityManager } from 'typeorm';

/** Work that is done beside the requests, by the worker role. */
export interface JobData {
  'read-pages': { readonly siteId: string; readonly readingId: string };
  'launch-planned': { readonly campaignId: string; readonly planId: string };
  /** What runs on a site has changed: whatever must hold of it is looked at. */
  rehearse: { readonly workspaceId: string; readonly siteId: string };
}
type JobName = keyof JobData;
const JOB_NAMES: readonly JobName[] = ['read-pages', 'launch-planned', 'rehearse'];

/** How often an idle worker looks for work, seconds. */
const LOOK_EVERY_SECONDS = 1;
/** A job that has not come to its end by then is taken for lost with its worker, and done again. */
const LOST_AFTER_SECONDS = 900;
const TRIES = 2;

export interface Jobs {
  /** Makes the queues; to be called once, after the migrations. */
  prepare(): Promise<void>;
  /** Writes a job down in the caller's transaction: it is there if and only if what made it due is. */
  send<Name extends JobName>(
    manager: EntityManager,
    name: Name,
    data: JobData[Name],
    /** Not before this. */
    startAfter?: Date,
  ): Promise<void>;
  /** Begins to do jobs of this kind, one at a time. */
  work<Name extends JobName>(name: Name, handle: (data: JobData[Name]) => Promise<void>): Promise<void>;
  stop(): Promise<void>;
}

/** Jobs in the database itself, shared by any number of workers; over the caller's own connections. */
export function createJobs(db: DataSource, report: (error: unknown) => void): Jobs {
  // The driver's own pool: the mapper's answers have another shape than the queue reads.
  const { master } = db.driver as unknown as {
    master: { query(text: string, values?: unknown[]): Promise<{ rows: unknown[] }> };
  };
  const boss = new PgBoss({
    db: { executeSql: (text: string, values: unknown[]) => master.query(text, values) as never },
    schema: 'job',
    schedule: false,
  });
  boss.on('error', report);
  let isPrepared = false;
  return {
    async prepare() {
      await boss.start();
      isPrepared = true;
      for (const name of JOB_NAMES) await boss.createQueue(name);
    },
    async send(manager, name, data, startAfter) {
      await boss.send(name, data, {
        ...(startAfter ? { startAfter } : {}),
        retryLimit: TRIES,
        expireInSeconds: LOST_AFTER_SECONDS,
        db: {
          executeSql: async (text: string, values: unknown[]) => ({
            rows: await manager.query(text, values),
          }),
        },
      });
    },
    async work(name, handle) {
      await boss.work<JobData[typeof name]>(
        name,
        { pollingIntervalSeconds: LOOK_EVERY_SECONDS, batchSize: 1 },
        async ([job]) => {
          if (job) await handle(job.data);
        },
      );
    },
    async stop() {
      if (isPrepared) await boss.stop({ graceful: false, close: false });
    },
  };
}
