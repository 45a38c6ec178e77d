import 'reflect-metadata';
import type { DataSource } from 'typeorm';
import { readConfig } from './config.ts';
import { seedDemo } from './demo/seed.ts';
import { createSiteDirectory, onSiteChanged } from './edge/index.ts';
import { createEdgeApp } from './edge-app.ts';
import { type CountrySource, NO_COUNTRIES, readCountries } from './infra/countries.ts';
import { createDataSource } from './infra/orm.ts';
import { createPreviewTokens } from './publishing/index.ts';
import { createServices } from './services.ts';
import { createStudioApp } from './studio-app.ts';

const HOUR_MS = 3_600_000;
const HOST = '127.0.0.1';

async function main(): Promise<void> {
  const config = readConfig(process.argv.slice(2), process.env);
  const db = await createDataSource(config.databaseUrl).initialize();
  const undo: (() => unknown)[] = [() => db.destroy()];
  const stop = async () => {
    for (const take of undo.splice(0).reverse()) await take();
  };
  try {
    await migrate(db);
    const services = createServices(db);
    await services.intake.tidy();
    await services.publishing.prepareMissing();
    if (process.env.VELARIUM_DEMO_ORIGINS)
      await seedDemo(services, process.env.VELARIUM_DEMO_ORIGINS.split(','));

    const country: CountrySource = {
      ...(config.countryFile ? readCountries(config.countryFile) : NO_COUNTRIES),
      header: config.countryHeader,
    };
    if (config.roles.includes('studio')) {
      const studio = await createStudioApp({ ...config, services, country });
      await studio.listen({ port: config.studioPort, host: HOST });
      undo.push(() => studio.close());
    }
    if (config.roles.includes('edge')) {
      const directory = createSiteDirectory(services.sites, services.publishing);
      undo.push(
        await onSiteChanged(config.databaseUrl, {
          onChanged: directory.forget,
          onReconnected: directory.forgetAll,
        }),
      );
      const edge = await createEdgeApp({
        services,
        directory,
        tagFiles: config.tagFiles,
        previews: createPreviewTokens(config.sessionSecret),
        country,
        trustsProxy: config.trustsProxy,
      });
      await edge.listen({ port: config.edgePort, host: HOST });
      undo.push(() => edge.close());
    }
    if (config.roles.includes('worker')) {
      const timer = setInterval(() => void services.intake.tidy().catch(report), HOUR_MS);
      undo.push(() => clearInterval(timer));
    }
  } catch (error) {
    await stop();
    throw error;
  }
  process.send?.('ready');
  for (const signal of ['SIGINT', 'SIGTERM'] as const) {
    process.once(signal, () => void stop().then(() => process.exit(0), fail));
  }
}

/** Several processes may start at once over one database; one migrates and the others wait for it. */
async function migrate(db: DataSource): Promise<void> {
  const runner = db.createQueryRunner();
  try {
    await runner.query(`SELECT pg_advisory_lock(hashtext('velarium.migrate'))`);
    await db.runMigrations();
  } finally {
    await runner.query(`SELECT pg_advisory_unlock(hashtext('velarium.migrate'))`);
    await runner.release();
  }
}

function report(error: unknown): void {
  process.stderr.write(
    `velarium: ${error instanceof Error ? (error.stack ?? error.message) : String(error)}\n`,
  );
}
function fail(error: unknown): void {
  report(error);
  process.exit(1);
}

main().catch(fail);
