import { mkdtempSync, rmSync } from 'node:fs';
import pg from 'pg';
import { startCluster } from '../../scripts/lib/cluster.mjs';
import { choosePorts } from '../../scripts/lib/ports.mjs';
import { startWhole } from '../../scripts/lib/whole.mjs';

/** One throwaway cluster for the run and one seeded database on it, which every test copies. */
export async function globalSetup(): Promise<() => Promise<void>> {
  const home = mkdtempSync('/tmp/velarium-e2e-cluster-');
  const cluster = await startCluster({ home, isThrowaway: true });
  const client = new pg.Client({ connectionString: cluster.url });
  await client.connect();
  await client.query('CREATE DATABASE velarium_seeded');
  await client.end();
  const ports = await choosePorts({ studio: 0, edge: 0, fell: 0, skerry: 0, standins: 0, smtp: 0 });
  const whole = await startWhole({ databaseUrl: cluster.urlOf('velarium_seeded'), home, ports });
  await whole.stop();
  // Nothing is analysed by itself on this cluster; the copies take over what is known of the tables.
  const seeded = new pg.Client({ connectionString: cluster.urlOf('velarium_seeded') });
  await seeded.connect();
  await seeded.query('ANALYZE');
  await seeded.end();
  process.env.VELARIUM_E2E_DATABASE = cluster.url;
  process.env.VELARIUM_E2E_ADMIN = cluster.adminUrl;
  return async () => {
    await cluster.stop();
    rmSync(home, { recursive: true, force: true });
  };
}
