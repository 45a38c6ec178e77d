import { rmSync } from 'node:fs';
import { buildAll } from './lib/build-all.mjs';
import { startCluster } from './lib/cluster.mjs';
import { ensurePackages, ensurePostgres } from './lib/install.mjs';
import { takeHome } from './lib/lock.mjs';
import { choosePorts } from './lib/ports.mjs';
import { HOME, Stop } from './lib/root.mjs';
import { startWhole } from './lib/whole.mjs';

const startedAtMs = Date.now();
const isFresh = process.argv.includes('--fresh');
const say = (words) => console.log(words);
const undo = [];

async function stopAll() {
  for (const take of undo.splice(0).reverse()) await take();
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
    databaseUrl = cluster.url;
  } else if (isFresh) {
    throw new Stop('--fresh begins the private database again; it does not empty the one in DATABASE_URL.');
  }
  await buildAll(say);
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

let isStopping = false;
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) {
  process.on(signal, async () => {
    if (isStopping) return;
    isStopping = true;
    await stopAll();
    process.exit(0);
  });
}

main().catch(async (error) => {
  if (isStopping) return;
  isStopping = true;
  await stopAll();
  console.error(error instanceof Stop ? error.message : error);
  process.exit(1);
});
