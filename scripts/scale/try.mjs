/**
 * Tries an installation of several machines on one: three edges, two workers and a studio over a pooler and a database with a
 * synchronous standby, a caching proxy in front of an edge; then kills the database while events and answers come in.
 *
 *   node --import tsx scripts/scale/try.mjs
 *
 * Prints what docs/scaling.md says was measured. Takes a minute; no part of `npm test`.
 */
import { existsSync, readFileSync } from 'node:fs';
import pg from 'pg';
import { createInstallation, letterOf } from '../../bench/installation.ts';
import { ensureDebian } from '../lib/install.mjs';
import { choosePorts } from '../lib/ports.mjs';
import { startCache } from './cache.mjs';
import { missingOf, startLoad } from './load.mjs';
import { startPooler } from './pooler.mjs';
import { startStandby } from './standby.mjs';

const EDGES = 3;
const WORKERS = 2;
const BEFORE_MS = 6000;
const AFTER_MS = 10_000;
const PUBLISHES = 10;
const SITE = 'quillonfell2';

const wait = (ms) => new Promise((resolve) => setTimeout(resolve, ms));
const found = [];
const say = (what, figure) => {
  found.push(`| ${what} | ${figure} |`);
  console.log(`${what}: ${figure}`);
};

for (const [name, file] of [
  ['pgbouncer', '/usr/sbin/pgbouncer'],
  ['varnish', '/usr/sbin/varnishd'],
])
  await ensureDebian(name, () => existsSync(file), console.log);

const installation = await createInstallation();
const { cluster, home, env } = installation;
const undo = [];
try {
  const admin = new pg.Client({ connectionString: cluster.adminUrl });
  admin.on('error', () => {});
  await admin.connect();
  const standby = await startStandby({ adminUrl: cluster.adminUrl, folder: `${home}/standby` });
  undo.push(() => standby.stop());
  // What is acknowledged is on both.
  await admin.query(`ALTER SYSTEM SET synchronous_standby_names = 'standby'`);
  await admin.query('SELECT pg_reload_conf()');
  const pooler = await startPooler({ url: cluster.url, folder: `${home}/pooler` });
  undo.push(() => pooler.stop());

  env.DATABASE_URL = pooler.url;
  env.DATABASE_DIRECT_URL = pooler.sessionUrl;
  env.DATABASE_STANDBY_URL = cluster.url.replace(`:${cluster.port}/`, `:${standby.port}/`);
  const edges = [];
  for (let n = 0; n < EDGES; n++) {
    const { edge, watch } = await choosePorts({ edge: 0, watch: 0 });
    Object.assign(env, {
      VELARIUM_EDGE_PORT: String(edge),
      VELARIUM_WATCH_PORT: String(watch),
      VELARIUM_EDGE_FOLDER: `${home}/edge-${n}`,
    });
    await installation.start('server', ['--role=edge']).ready;
    edges.push({ address: `http://127.0.0.1:${edge}`, port: edge, watch });
  }
  delete env.VELARIUM_WATCH_PORT;
  for (let n = 0; n < WORKERS; n++) await installation.start('server', ['--role=worker']).ready;
  const { studio } = await choosePorts({ studio: 0 });
  env.VELARIUM_PORT = String(studio);
  await installation.start('server', ['--role=studio']).ready;
  const used = await admin.query(
    `SELECT count(*)::int AS count FROM pg_stat_activity WHERE usename = 'velarium'`,
  );
  say(`connections of ${EDGES} edges, ${WORKERS} workers and a studio to the database`, used.rows[0].count);

  // A publish on every edge.
  const session = await fetch(`http://127.0.0.1:${studio}/api/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ email: 'mara@quillonfell.example', password: 'clear-skies-tonight' }),
  });
  const headers = {
    cookie: session.headers.getSetCookie()[0].split(';')[0],
    'x-csrf-token': (await session.json()).csrfToken,
  };
  const letter = await letterOf(installation.client);
  const { rows: running } = await installation.client.query(
    `SELECT id FROM campaign WHERE state = 'running' AND site_id = $1 LIMIT 1`,
    [letter.siteId],
  );
  const moving = running[0].id;
  const ask = (path, method = 'POST') => fetch(`http://127.0.0.1:${studio}/api${path}`, { method, headers });
  const runs = async ({ address }) => {
    const manifest = await (await fetch(`${address}/tag/${SITE}/manifest.json`)).json();
    return manifest.campaigns.some(({ id }) => id === moving);
  };
  let slowest = 0;
  for (let n = 0; n < PUBLISHES; n++) {
    const isRunning = n % 2 === 1;
    const moved = await ask(`/campaigns/${moving}/${isRunning ? 'run' : 'rest'}`);
    if (!moved.ok) throw new Error(`moving the campaign: ${moved.status} ${await moved.text()}`);
    const beganMs = performance.now();
    for (const edge of edges) while ((await runs(edge)) !== isRunning) await wait(5);
    slowest = Math.max(slowest, performance.now() - beganMs);
  }
  say(
    `slowest of ${PUBLISHES} publishes to be served by all ${EDGES} edges, after it was answered`,
    `${Math.round(slowest)} ms`,
  );

  // Reports from the standby.
  const reads = async () => {
    const of = new pg.Client({
      connectionString: cluster.adminUrl.replace(`:${cluster.port}/`, `:${standby.port}/`),
    });
    await of.connect();
    const { rows } = await of.query(
      `SELECT sum(xact_commit)::int AS count FROM pg_stat_database WHERE datname = 'velarium'`,
    );
    await of.end();
    return rows[0].count;
  };
  const beforeReads = await reads();
  for (let n = 0; n < 20; n++) {
    const results = await ask(`/sites/${letter.siteId}/results?period=28`, 'GET');
    if (!results.ok) throw new Error(`results: ${results.status} ${await results.text()}`);
  }
  // What is idle tells of itself some ten seconds later.
  await wait(12_000);
  say('transactions on the standby for twenty looks at Results of the site', (await reads()) - beforeReads);

  // A caching proxy.
  const cache = await startCache({ edgePort: edges[0].port, folder: `${home}/cache` });
  undo.push(() => cache.stop());
  const hits = { hit: 0, miss: 0 };
  const files = [`/tag/${SITE}.js`, `/tag/${SITE}/manifest.json`];
  for (let n = 0; n < 500; n++)
    for (const file of files) {
      const answer = await fetch(`http://127.0.0.1:${cache.port}${file}`, {
        headers: { origin: env.VELARIUM_DEMO_ORIGINS.split(',')[0] },
      });
      hits[answer.headers.get('x-cache')] += 1;
      await answer.arrayBuffer();
    }
  say('of 1,000 requests for the tag and its manifest a caching proxy answered itself', hits.hit);

  // The database is killed under load.
  const load = startLoad({
    edges: () => edges.map(({ address }) => address),
    campaign: letter.id,
    origin: env.VELARIUM_DEMO_ORIGINS.split(',')[0],
  });
  await wait(BEFORE_MS);
  const [pid] = readFileSync(`${home}/pg/data/postmaster.pid`, 'utf8').split('\n');
  const killedMs = performance.now();
  process.kill(Number(pid), 'SIGKILL');
  const asked = fetch(`http://127.0.0.1:${edges[0].watch}/ready`);
  await standby.promote();
  pooler.turnTo(standby.port);
  const promotedMs = performance.now() - killedMs;
  await wait(AFTER_MS);
  await load.stop();
  const { kept, refused, manifests } = load;
  const after = refused.filter((at) => at >= killedMs);
  say('the standby had taken the database’s place', `${(promotedMs / 1000).toFixed(1)} s after the kill`);
  say('an edge said meanwhile that it was ready', (await asked).status === 200 ? 'yes' : 'no');
  say(
    'the last event or answer was refused',
    after.length === 0
      ? 'none was'
      : `${((Math.max(...after) - killedMs) / 1000).toFixed(1)} s after the kill (${after.length} in all; before it ${refused.length - after.length})`,
  );
  say('manifests served, and not served, all the while', `${manifests.served}, ${manifests.unserved}`);

  const db = new pg.Client({
    connectionString: cluster.url.replace(`:${cluster.port}/`, `:${standby.port}/`),
  });
  await db.connect();
  say(
    'events acknowledged, and missing afterwards',
    `${kept.events.length}, ${await missingOf(db, kept.events, 'event')}`,
  );
  say(
    'answers acknowledged, and missing afterwards',
    `${kept.answers.length}, ${await missingOf(db, kept.answers, 'lead')}`,
  );
  const { rows: sizes } = await db.query(
    `SELECT sum(pg_total_relation_size(inhrelid)) / (SELECT count(*) FROM event) AS bytes FROM pg_inherits
      WHERE inhparent = 'event'::regclass`,
  );
  say('bytes an event takes, its indexes included', Math.round(sizes[0].bytes));
  await db.end();
  await admin.end().catch(() => {});
  console.log(`\n| measured | |\n| --- | --- |\n${found.join('\n')}`);
} finally {
  for (const one of undo.reverse()) await one();
  await installation.end();
}
process.exit(0);
