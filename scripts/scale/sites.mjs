/**
 * Tries ten thousand sites on one edge: the memory it takes, what it asks the database for what has not changed, and how quickly
 * it answers meanwhile.
 *
 *   node --import tsx scripts/scale/sites.mjs [how many, 10000]
 *
 * Prints what docs/scaling.md says was measured. Takes two minutes; no part of `npm test`.
 */
import { readFileSync } from 'node:fs';
import { createInstallation } from '../../bench/installation.ts';
import { choosePorts } from '../lib/ports.mjs';

const SITES = Number(process.argv[2] ?? 10_000);
const AT_ONCE = 16;
/** After so long an edge asks again whether a site is as it was; see `edge/directory.ts`. */
const FRESH_MS = 30_000;

const wait = (ms) => new Promise((resolve) => setTimeout(resolve, ms));
const say = (what, figure) => console.log(`| ${what} | ${figure} |`);
const keyOf = (n) => `site${String(n).padStart(8, '0')}`;

const installation = await createInstallation();
const { client, home, env } = installation;
try {
  // Each as large as the demo's, in a workspace of the same.
  await client.query(
    `WITH made AS (
       INSERT INTO site
       SELECT (jsonb_populate_record(s, jsonb_build_object(
                 'id', gen_random_uuid(), 'key', 'site' || lpad(n::text, 8, '0'), 'name', 'Site ' || n))).*
         FROM site s, generate_series(0, $1 - 1) n WHERE s.key = 'quillonfell2'
       RETURNING id, key)
     INSERT INTO site_manifest
     SELECT (jsonb_populate_record(m, jsonb_build_object('site_id', made.id, 'etag', '"' || made.key || '"'))).*
       FROM made, site_manifest m JOIN site s ON s.id = m.site_id WHERE s.key = 'quillonfell2'`,
    [SITES],
  );
  await client.query('VACUUM ANALYZE');
  const [{ bytes }] = (
    await client.query(
      "SELECT length(body) AS bytes FROM site_manifest m JOIN site s ON s.id = m.site_id WHERE s.key = 'quillonfell2'",
    )
  ).rows;
  const { edge } = await choosePorts({ edge: 0 });
  Object.assign(env, { VELARIUM_EDGE_PORT: String(edge), VELARIUM_EDGE_FOLDER: `${home}/edge` });
  const program = installation.start('server', ['--role=edge']);
  await program.ready;
  const resident = () =>
    Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${program.pid}/status`, 'utf8'))?.[1]) / 1024;
  const processor = () => {
    const fields = readFileSync(`/proc/${program.pid}/stat`, 'utf8').split(') ')[1]?.split(' ') ?? [];
    return (Number(fields[11]) + Number(fields[12])) / 100;
  };
  const read = async () => {
    // What the database has counted is written down a moment later.
    await wait(1500);
    const { rows } = await client.query(
      'SELECT xact_commit::int AS transactions, tup_fetched::bigint AS rows FROM pg_stat_database WHERE datname = current_database()',
    );
    return rows[0];
  };
  const ask = async (key) => {
    const response = await fetch(`http://127.0.0.1:${edge}/tag/${key}/manifest.json`, {
      headers: { origin: 'http://127.0.0.1:4410' },
    });
    if (!response.ok) throw new Error(`${key}: ${response.status}`);
    await response.arrayBuffer();
  };
  /** Asks for sites one after another from several hands, and meanwhile for one that is known; how long the slowest of these took. */
  const round = async (from, until) => {
    const [began, used, before] = [Date.now(), processor(), await read()];
    let next = from;
    let isOver = false;
    const hand = async () => {
      while (next < until) await ask(keyOf(next++));
    };
    const waits = [];
    const watch = (async () => {
      while (!isOver) {
        const at = performance.now();
        await ask('quillonfell2');
        waits.push(performance.now() - at);
        await wait(5);
      }
    })();
    await Promise.all(Array.from({ length: AT_ONCE }, hand));
    isOver = true;
    await watch;
    const after = await read();
    waits.sort((a, b) => a - b);
    return {
      seconds: (Date.now() - began) / 1000 - 3,
      processor: processor() - used,
      transactions: after.transactions - before.transactions,
      p99: waits[Math.floor(waits.length * 0.99)] ?? 0,
    };
  };
  const told = ({ seconds, processor: busy, transactions, p99 }) =>
    `${seconds.toFixed(1)} s, ${busy.toFixed(1)} s of a core, ${transactions} transactions of the database, 99 % of asks for a known site within ${p99.toFixed(0)} ms`;

  await ask('quillonfell2');
  say(`a manifest, bytes before it is compressed`, bytes);
  say('memory of the edge, no site asked for', `${resident().toFixed(0)} MB`);
  const first = [];
  for (const [from, until] of [
    [0, SITES / 10],
    [SITES / 10, SITES],
  ]) {
    first.push(await round(from, until));
    say(`memory with ${until.toLocaleString('en-GB')} sites`, `${resident().toFixed(0)} MB`);
  }
  say(`the last ${(SITES * 0.9).toLocaleString('en-GB')} of them for the first time`, told(first[1]));
  say('half of them again, at once', told(await round(SITES / 2, SITES)));
  await wait(FRESH_MS);
  say('all of them after half a minute, nothing changed', told(await round(0, SITES)));
  for (let n = 0; n < 3; n++) {
    await wait(FRESH_MS);
    await round(0, SITES);
  }
  say('memory after three rounds more', `${resident().toFixed(0)} MB`);
} finally {
  await installation.end();
}
