import { rmSync } from 'node:fs';
import { startCluster } from './lib/cluster.mjs';
import { ensurePackages, ensurePostgres } from './lib/install.mjs';
import { takeHome } from './lib/lock.mjs';
import { choosePorts } from './lib/ports.mjs';
import { run } from './lib/processes.mjs';
import { HOME, ROOT, Stop } from './lib/root.mjs';
import { startWhole } from './lib/whole.mjs';

const startedAtMs = Date.now();
const isFresh = process.argv.includes('--fresh');
const say = (words) => console.log(words);
const undo = [];
let isStopping = false;

async function stopAll() {
  for (const take of undo.splice(0).reverse()) await take();
}

/** How often in a row a database may die before that is taken for its last word, and how long apart ends the row. */
const MOST_DEATHS = 5;
const CALM_MS = 60_000;

/** Starts the private database again whenever it dies; the programs over it wait meanwhile. */
async function keepRunning(cluster) {
  let deaths = 0;
  for (let diedAtMs = 0; ; ) {
    await cluster.died;
    if (isStopping) return;
    deaths = Date.now() - diedAtMs < CALM_MS ? deaths + 1 : 1;
    diedAtMs = Date.now();
    if (deaths > MOST_DEATHS) return fail(new Stop('PostgreSQL ends again and again. Is the disk full?'));
    say('PostgreSQL has ended. Starting it again …');
    try {
      await cluster.restart();
      say('PostgreSQL is there again.');
    } catch (error) {
      return fail(error);
    }
  }
}

async function main() {
  await ensurePackages(say);
  undo.push(takeHome());
  let databaseUrl = process.env.DATABASE_URL;
  if (!databaseUrl) {
    await ensurePostgres(say);
    if (isFresh) rmSync(`${HOME}/database.json`, { force: true });
    const cluster = await startCluster();
    undo.push(() => cluster.stop());
    void keepRunning(cluster);
    databaseUrl = cluster.url;
  } else if (isFresh) {
    throw new Stop('--fresh begins the private database again; it does not empty the one in DATABASE_URL.');
  }
  // In a process of its own: what building takes of memory goes with it.
  await run(process.execPath, [`${ROOT}/scripts/build.mjs`], { isShown: true });
  const env = process.env;
  const ports = await choosePorts({
    studio: Number(env.VELARIUM_PORT ?? 4400),
    edge: Number(env.VELARIUM_EDGE_PORT ?? 4401),
    fell: Number(env.VELARIUM_SITES_PORT ?? 4410),
    skerry: Number(env.VELARIUM_SITES_PORT ?? 4410) + 1,
    standins: Number(env.VELARIUM_STANDINS_PORT ?? 4420),
    smtp: Number(env.VELARIUM_STANDINS_PORT ?? 4420) + 5,
  });
  const whole = await startWhole({ databaseUrl, home: HOME, ports });
  undo.push(() => whole.stop());
  const at = (port) => `http://127.0.0.1:${port}`;
  say(`
Velarium is ready after ${((Date.now() - startedAtMs) / 1000).toFixed(1)} s.

  Studio                    ${at(ports.studio)}
  Sign in as                mara@quillonfell.example
  with the password         clear-skies-tonight

  Quillon Fell Observatory  ${at(ports.fell)}
  Skerry Line Ferries       ${at(ports.skerry)}
  Stand-ins                 ${at(ports.standins)}

Ctrl+C stops everything and keeps the data.`);
  await whole.ended;
  throw new Stop(`A program ended by itself. Its log is in ${HOME}/logs.`);
}

for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) {
  process.on(signal, async () => {
    if (isStopping) return;
    isStopping = true;
    await stopAll();
    process.exit(0);
  });
}

async function fail(error) {
  if (isStopping) return;
  isStopping = true;
  await stopAll();
  console.error(error instanceof Stop ? error.message : error);
  process.exit(1);
}

main().catch(fail);
