import 'reflect-metadata';
import { pino } from 'pino';
import type { DataSource } from 'typeorm';
import { type Config, readConfig } from './config.ts';
import { enqueue } from './deliveries/index.ts';
import { seedDemo } from './demo/seed.ts';
import {
  createKeptFiles,
  createSiteDirectory,
  createTagFiles,
  findReleased,
  keepRelease,
  onSiteChanged,
  readRelease,
} from './edge/index.ts';
import { createEdgeApp } from './edge-app.ts';
import { type CountrySource, NO_COUNTRIES, readCountries } from './infra/countries.ts';
import { databaseFault } from './infra/database-fault.ts';
import { createDataSource } from './infra/orm.ts';
import { databaseAway } from './infra/problem.ts';
import { createPreviewTokens } from './publishing/index.ts';
import { createCounting } from './results/index.ts';
import { createServices, type Services } from './services.ts';
import { createStudioApp } from './studio-app.ts';
import { createMetrics, createWatchApp, type Metrics } from './watch/index.ts';

const HOUR_MS = 3_600_000;
/** How often a database that is away is tried. */
const RETRY_MS = 1000;
/** How long an end in good order may take. What is under way then was not acknowledged, and comes again. */
const END_MS = 4000;

const log = pino({ base: { pid: process.pid } }, pino.destination({ dest: 2, sync: true }));

type Undo = () => unknown;

/** What is running, to be stopped in the reverse order, at any moment. */
class Running {
  private readonly undo: Undo[] = [];
  isStopping = false;

  add(undo: Undo): void {
    this.undo.push(undo);
  }
  async stop(): Promise<void> {
    this.isStopping = true;
    for (const take of this.undo.splice(0).reverse()) await take();
  }
}

async function main(config: Config, running: Running): Promise<void> {
  log.level = config.logLevel;
  const country: CountrySource = {
    ...(config.countryFile ? readCountries(config.countryFile) : NO_COUNTRIES),
    header: config.countryHeader,
  };
  /** What stands on the database, once it has been reached. */
  let whole: Services | undefined;
  const connected = (): Services => {
    if (!whole) throw databaseAway();
    return whole;
  };
  const isEdge = config.roles.includes('edge');
  /** Whether it serves; an edge does without a database. */
  let isReady = false;
  /** Whoever started it waits for all of its roles. */
  const tell = () => process.send?.('ready');
  const metrics = await startWatch({ config, running, isReady: () => isReady, database: () => whole?.db });

  for (;;) {
    try {
      whole = await connect(config, running);
      break;
    } catch (error) {
      if (databaseFault(error) !== 'away' || running.isStopping) throw error;
      report('the database cannot be reached; trying again');
      // An edge serves what it last knew meanwhile.
      if (isEdge && !isReady) {
        await startEdge({ config, running, connected, country, metrics });
        isReady = true;
        if (config.roles.length === 1) tell();
      }
      await new Promise((resolve) => setTimeout(resolve, RETRY_MS));
    }
  }
  if (isEdge && !isReady) await startEdge({ config, running, connected, country, metrics });
  if (config.roles.includes('studio')) {
    const studio = await createStudioApp({ ...config, services: whole, country, metrics });
    await studio.listen({ port: config.studioPort, host: config.host });
    running.add(() => studio.close());
    const beginning = await whole.members.beginning();
    // Told to whoever runs it, and to nobody else: it is a key.
    if (beginning)
      process.stdout.write(`Nobody has an account here yet. Make the first workspace at\n  ${beginning}\n`);
  }
  if (config.roles.includes('worker')) await startWorker(whole, running);
  isReady = true;
  tell();
}

/** Reaches the database, brings it up to date, and puts the services over it. */
async function connect(config: Config, running: Running): Promise<Services> {
  await migrate(config.directUrl);
  const isPooled = config.databaseUrl !== config.directUrl;
  const db = await createDataSource(config.databaseUrl, { isPooled }).initialize();
  try {
    const standby = await standbyOf(config, running);
    const services = createServices(db, {
      report,
      standby,
      privateNetworks: config.privateNetworks,
      secrets: config.secrets,
      edgeOrigin: config.edgeOrigin,
      studioOrigin: config.studioOrigin,
      ownMailbox: config.ownMailbox,
    });
    await services.people.requireSecrets();
    await services.deliveries.reseal();
    await services.jobs.prepare();
    await services.intake.tidy();
    await services.library.looks.beginMissing();
    await services.publishing.prepareMissing();
    if (config.roles.includes('edge')) await keepRelease(db, readRelease(config.tagFiles));
    if (process.env.VELARIUM_DEMO_ORIGINS)
      await seedDemo(services, process.env.VELARIUM_DEMO_ORIGINS.split(','));
    running.add(() => db.destroy());
    running.add(() => services.jobs.stop());
    return services;
  } catch (error) {
    await db.destroy();
    throw error;
  }
}

/** Tells whoever runs it how it is, where they have said on which port they ask. First begun, and last to end. */
async function startWatch({
  config,
  running,
  isReady,
  database,
}: {
  readonly config: Config;
  readonly running: Running;
  readonly isReady: () => boolean;
  readonly database: () => DataSource | undefined;
}): Promise<Metrics | undefined> {
  if (config.watchPort === null) return undefined;
  const metrics = createMetrics();
  metrics.watchDatabase(database, config.roles.includes('worker'));
  onReport = metrics.onFailure;
  const isOpen = () => isReady() && !running.isStopping;
  const app = createWatchApp({ roles: config.roles, metrics, database, isOpen });
  await app.listen({ port: config.watchPort, host: config.watchHost });
  running.add(() => app.close());
  return metrics;
}

interface EdgeStart {
  readonly config: Config;
  readonly running: Running;
  readonly connected: () => Services;
  readonly country: CountrySource;
  readonly metrics: Metrics | undefined;
}

async function startEdge({ config, running, connected, country, metrics }: EdgeStart): Promise<void> {
  const kept = createKeptFiles(config.edgeFolder);
  const directory = createSiteDirectory(
    {
      findSite: async (...asked) => connected().publishing.findSite(...asked),
      findMessage: async (...asked) => connected().publishing.findMessage(...asked),
    },
    kept,
  );
  const listener = onSiteChanged(config.directUrl, {
    onChanged: directory.forget,
    onReconnected: directory.forgetAll,
  });
  running.add(listener.stop);
  const edge = await createEdgeApp({
    services: connected,
    directory,
    tagFiles: await createTagFiles(readRelease(config.tagFiles), kept, async (name) =>
      findReleased(connected().db, name),
    ),
    previews: createPreviewTokens(config.secrets),
    country,
    trustedProxies: config.trustedProxies,
    log,
    metrics,
  });
  await edge.listen({ port: config.edgePort, host: config.host });
  running.add(() => edge.close());
}

async function startWorker(services: Services, running: Running): Promise<void> {
  const tidy = async () => {
    await services.intake.tidy();
    await services.accounts.tidy();
    await services.campaigns.tidy();
    await services.publishing.tidy();
    await services.weekMails.queue(enqueue);
    await services.people.tidy(services.deliveries.forgetOld);
  };
  const timer = setInterval(() => void tidy().catch(report), HOUR_MS);
  running.add(() => clearInterval(timer));
  await services.jobs.work('read-pages', services.sites.readPages);
  await services.jobs.work('launch-planned', services.versions.launchPlanned);
  // What held is noted whether or not anybody looks.
  await services.jobs.work('rehearse', async ({ workspaceId, siteId }) => {
    await services.rehearsals.rehearse(workspaceId, siteId, 'live');
  });
  const sending = services.deliveries.startSending();
  running.add(() => sending.stop());
  const counting = createCounting(services.db, report);
  running.add(() => counting.stop());
}

/** The standby, where there is one; what it cannot do yet is done by the database itself. */
async function standbyOf({ standbyUrl }: Config, running: Running): Promise<DataSource | undefined> {
  if (standbyUrl === null) return undefined;
  try {
    const standby = await createDataSource(standbyUrl).initialize();
    running.add(() => standby.destroy());
    return standby;
  } catch (error) {
    report(error);
    return undefined;
  }
}

/** Several processes may start at once over one database; one migrates and the others wait for it. */
async function migrate(databaseUrl: string): Promise<void> {
  const db: DataSource = await createDataSource(databaseUrl, { isPatient: true, poolSize: 2 }).initialize();
  const runner = db.createQueryRunner();
  try {
    await runner.query(`SELECT pg_advisory_lock(hashtext('velarium.migrate'))`);
    await db.runMigrations();
  } finally {
    await runner.release();
    // The connection's end gives the lock back.
    await db.destroy();
  }
}

/** Told of each that is reported. */
let onReport = () => {};

/** Notes what failed beside any request, in the form in which requests are logged. */
function report(error: unknown): void {
  onReport();
  if (error instanceof Error) log.error({ err: error }, error.message);
  else log.warn(String(error));
}

const running = new Running();
/** Ends in good order, or after {@link END_MS} in any. */
function end(code: number): void {
  setTimeout(() => process.exit(code), END_MS).unref();
  running.stop().then(
    () => process.exit(code),
    (error) => {
      report(error);
      process.exit(1);
    },
  );
}
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.once(signal, () => end(0));
main(readConfig(process.argv.slice(2), process.env), running).catch((error) => {
  if (!running.isStopping) report(error);
  end(running.isStopping ? 0 : 1);
});
