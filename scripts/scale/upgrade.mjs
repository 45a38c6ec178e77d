/**
 * Tries an upgrade while an earlier release runs: that release is built in a folder of its own, seeds a database and serves; events
 * and answers come in and the studio is used; this release is started beside it, migrates, and takes over; the earlier one is ended.
 *
 *   node --import tsx scripts/scale/upgrade.mjs [commit]
 *
 * Prints what docs/operations.md says was measured. Takes four minutes; no part of `npm test`.
 */
import { execFileSync } from 'node:child_process';
import { chmodSync, mkdtempSync, rmSync } from 'node:fs';
import { pathToFileURL } from 'node:url';
import pg from 'pg';
import { letterOf } from '../../bench/installation.ts';
import { startCluster } from '../lib/cluster.mjs';
import { choosePorts } from '../lib/ports.mjs';
import { ROOT } from '../lib/root.mjs';
import { programEnv, startOne } from '../lib/whole.mjs';
import { missingOf, startLoad } from './load.mjs';

/** Before results were counted without their events: the largest migrations there have been came after it. */
const EARLIER = process.argv[2] ?? '6fba41e';
const BEFORE_MS = 4000;
const TOGETHER_MS = 8000;
const AFTER_MS = 4000;

const wait = (ms) => new Promise((resolve) => setTimeout(resolve, ms));
const found = [];
const say = (what, figure) => {
  found.push(`| ${what} | ${figure} |`);
  console.log(`${what}: ${figure}`);
};

const home = mkdtempSync('/tmp/velarium-upgrade-');
chmodSync(home, 0o755);
const folder = `${home}/earlier`;
const undo = [() => rmSync(home, { recursive: true, force: true })];
try {
  // A copy of its own, with its own packages: nothing of it touches what is installed here.
  execFileSync('git', ['clone', '-q', ROOT, folder]);
  execFileSync('git', ['-C', folder, 'checkout', '-q', EARLIER]);
  console.log(`building ${EARLIER}`);
  execFileSync(process.execPath, ['scripts/build.mjs'], { cwd: folder, stdio: 'pipe' });
  const earlier = await import(pathToFileURL(`${folder}/scripts/lib/whole.mjs`).href);

  const cluster = await startCluster({ home });
  undo.push(() => cluster.stop());
  const ports = await choosePorts({ studio: 0, edge: 0, fell: 0, skerry: 0, standins: 0, smtp: 0 });
  const options = { databaseUrl: cluster.url, home, ports };
  await (await earlier.startWhole(options)).stop();
  const old = earlier.startOne('server', options, earlier.programEnv(options));
  undo.push(() => old.stop());
  await old.ready;
  const client = new pg.Client({ connectionString: cluster.url });
  await client.connect();
  undo.push(() => client.end());
  const migrations = async () =>
    (await client.query('SELECT count(*)::int AS count FROM migrations')).rows[0].count;
  const before = await migrations();

  const letter = await letterOf(client);
  const edges = [`http://127.0.0.1:${ports.edge}`];
  const env = programEnv(options);
  const [origin] = env.VELARIUM_DEMO_ORIGINS.split(',');
  const load = startLoad({ edges: () => edges, campaign: letter.id, origin });
  let studio = `http://127.0.0.1:${ports.studio}`;
  const signIn = await fetch(`${studio}/api/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ email: 'mara@quillonfell.example', password: 'clear-skies-tonight' }),
  });
  const headers = { cookie: signIn.headers.getSetCookie()[0].split(';')[0] };
  const desk = { answered: 0, failed: [] };
  let isOpen = true;
  const used = (async () => {
    for (let n = 0; isOpen; n++) {
      const path = [
        `/sites/${letter.siteId}/campaigns`,
        `/campaigns/${letter.id}`,
        `/sites/${letter.siteId}/results?period=28`,
      ][n % 3];
      const status = await fetch(`${studio}/api${path}`, { headers }).then(
        (answer) => answer.status,
        (error) => error.message,
      );
      if (status === 200) desk.answered += 1;
      else desk.failed.push(`${path.replaceAll(/[0-9a-f-]{36}/g, '…')} ${status}`);
      await wait(50);
    }
  })();
  await wait(BEFORE_MS);

  const next = await choosePorts({ studio: 0, edge: 0 });
  const startedMs = performance.now();
  const now = startOne('server', options, {
    ...env,
    VELARIUM_PORT: String(next.studio),
    VELARIUM_EDGE_PORT: String(next.edge),
    VELARIUM_EDGE_FOLDER: `${home}/edge-now`,
  });
  undo.push(() => now.stop());
  await now.ready;
  say('migrations done while the earlier release ran', (await migrations()) - before);
  say('until the new release was ready', `${((performance.now() - startedMs) / 1000).toFixed(1)} s`);
  edges.push(`http://127.0.0.1:${next.edge}`);
  await wait(TOGETHER_MS);
  studio = `http://127.0.0.1:${next.studio}`;
  edges.shift();
  // What is on its way to it is answered first, as behind a balancer that has taken it out.
  await wait(1000);
  await old.stop();
  await wait(AFTER_MS);
  isOpen = false;
  await Promise.all([load.stop(), used]);
  say('events and answers refused', load.refused.length);
  say('manifests served, and not served', `${load.manifests.served}, ${load.manifests.unserved}`);
  say('asks of the studio answered, and failed', `${desk.answered}, ${desk.failed.length}`);
  for (const one of new Set(desk.failed)) console.log(`  ${one}`);
  for (const [what, ids, table] of [
    ['events', load.kept.events, 'event'],
    ['answers', load.kept.answers, 'lead'],
  ])
    say(
      `${what} acknowledged, and missing afterwards`,
      `${ids.length}, ${await missingOf(client, ids, table)}`,
    );
  console.log(`\n| measured | |\n| --- | --- |\n${found.join('\n')}`);
} finally {
  for (const one of undo.reverse()) await one();
}
