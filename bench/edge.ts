import { fork } from 'node:child_process';
import { randomBytes, randomUUID } from 'node:crypto';
import { chmodSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { Readable } from 'node:stream';
import { text } from 'node:stream/consumers';
import { pipeline } from 'node:stream/promises';
import autocannon from 'autocannon';
import pg from 'pg';
import { from as copyFrom, to as copyTo } from 'pg-copy-streams';
import { startCluster } from '../scripts/lib/cluster.mjs';
import { choosePorts } from '../scripts/lib/ports.mjs';
import { programEnv, startOne, startWhole } from '../scripts/lib/whole.mjs';
import { type Figure, perSecond, times } from './measure.ts';

const SECONDS = 6;
const EVENTS = 50;
const CALLS = 2000;
const ROUNDS = 5;
/** Rounds before they count: until then a server that has just begun still makes its code fast. */
const WARM_UP_ROUNDS = 3;
const CONNECTIONS = 40;
/** As a monitor usually asks: common practice. */
const SCRAPED_EVERY_MS = 5000;
const USER_AGENT = 'Mozilla/5.0 (X11; Linux x86_64) Chrome/156.0.0.0 Safari/537.36';

const hex = (bytes: number) => randomBytes(bytes).toString('hex');
function eventId(): string {
  const time = Date.now().toString(16).padStart(12, '0');
  return `${time.slice(0, 8)}-${time.slice(8)}-7${randomUUID().slice(15)}`;
}

/** Manifest requests against the bare framework, and durable events against COPY of the same rows. */
export async function measureEdge(): Promise<Figure[]> {
  const home = mkdtempSync('/tmp/velarium-bench-');
  // PostgreSQL's own user must be able to walk into it.
  chmodSync(home, 0o755);
  // Durable, as in production: what is acknowledged is on disk.
  const cluster = await startCluster({ home });
  const ports = await choosePorts({ studio: 0, edge: 0, fell: 0, skerry: 0, standins: 0, smtp: 0 });
  const whole = await startWhole({ databaseUrl: cluster.url, home, ports });
  const client = new pg.Client({ connectionString: cluster.url });
  await client.connect();
  try {
    return [
      await measureManifest(ports.edge, home),
      await measureWatched({ databaseUrl: cluster.url, home, ports }),
      await measureIntake(ports, client),
    ];
  } finally {
    await client.end();
    await whole.stop();
    await cluster.stop();
    rmSync(home, { recursive: true, force: true });
  }
}

const manifestOf = (edgePort: number) => `http://127.0.0.1:${edgePort}/tag/quillonfell2/manifest.json`;
/** Answers a second. */
const askAgainAndAgain = (url: string, headers = {}): Promise<number> =>
  autocannon({ url, headers, connections: 20, duration: SECONDS }).then(({ requests }) => requests.average);

interface Installation {
  readonly databaseUrl: string;
  readonly home: string;
  readonly ports: Record<'studio' | 'edge' | 'fell' | 'skerry' | 'standins' | 'smtp', number>;
}

/** Two edges of one installation, one of them with its figures asked for by somebody, in turns. */
async function measureWatched(installation: Installation): Promise<Figure> {
  const edges = await choosePorts({ plain: 0, watched: 0, watch: 0 });
  const start = (port: number, more = {}) =>
    startOne(
      'server',
      installation,
      {
        ...programEnv(installation),
        VELARIUM_EDGE_PORT: String(port),
        VELARIUM_EDGE_FOLDER: `${installation.home}/edge-${port}`,
        ...more,
      },
      ['--role=edge'],
    );
  const started = [start(edges.plain), start(edges.watched, { VELARIUM_WATCH_PORT: String(edges.watch) })];
  try {
    await Promise.all(started.map(({ ready }) => ready));
    const asked = { plain: [] as number[], watched: [] as number[] };
    const scrape = setInterval(
      () => void fetch(`http://127.0.0.1:${edges.watch}/metrics`).catch(() => {}),
      SCRAPED_EVERY_MS,
    );
    for (const of of ['plain', 'watched', 'watched', 'plain'] as const)
      asked[of].push(await askAgainAndAgain(manifestOf(edges[of])));
    clearInterval(scrape);
    const [plain = 0, watched = 0] = [asked.plain, asked.watched].map(
      (seen) => seen.reduce((sum, one) => sum + one, 0) / seen.length,
    );
    return {
      what: 'manifest requests of an edge whose figures are asked for',
      ours: perSecond(watched),
      reference: `the same edge without figures ${perSecond(plain)}`,
      ratio: times(watched / plain),
      target: 'at least 0.9x',
      isMet: watched / plain >= 0.9,
    };
  } finally {
    for (const edge of started) await edge.stop();
  }
}

async function measureManifest(edgePort: number, home: string): Promise<Figure> {
  const url = manifestOf(edgePort);
  const response = await fetch(url);
  const etag = response.headers.get('etag') ?? '';
  const file = `${home}/manifest.json`;
  writeFileSync(file, await response.text());
  const bare = fork(new URL('bare-server.ts', import.meta.url).pathname, [file], {
    execArgv: ['--import', 'tsx'],
  });
  const barePort = await new Promise<number>((resolve) =>
    bare.once('message', (port) => resolve(Number(port))),
  );
  await askAgainAndAgain(url);
  const plain = await askAgainAndAgain(`http://127.0.0.1:${barePort}/`);
  const ours = await askAgainAndAgain(url);
  const again = await askAgainAndAgain(`http://127.0.0.1:${barePort}/`);
  const notModified = await askAgainAndAgain(url, { 'if-none-match': etag });
  bare.kill();
  const reference = (plain + again) / 2;
  return {
    what: `manifest requests (304: ${perSecond(notModified)})`,
    ours: perSecond(ours),
    reference: `bare Fastify, same bytes ${perSecond(reference)}`,
    ratio: times(ours / reference),
    target: 'at least 0.8x',
    isMet: ours / reference >= 0.8,
  };
}

async function measureIntake(ports: { edge: number; fell: number }, client: pg.Client): Promise<Figure> {
  const running = await client.query("SELECT id FROM campaign WHERE state = 'running' LIMIT 1");
  const campaign = running.rows[0].id as string;
  const body = () => {
    const session = eventId();
    return JSON.stringify({
      site: 'quillonfell2',
      visitor: hex(16),
      events: Array.from({ length: EVENTS }, (_, n) => ({
        id: eventId(),
        kind: n % 3 === 0 ? 'pageview' : n % 3 === 1 ? 'shown' : 'viewable',
        session,
        page: '/journal/finding-saturn',
        device: 'desktop',
        // Each call is a session of its own, so each makes a visit too.
        ...(n === 0 ? { begun: [1, 'search.example'] } : {}),
        ...(n % 3 === 0 ? {} : { campaign, version: 1 }),
      })),
    });
  };
  const sent = { events: 0, ms: 0 };
  const copied = { events: 0, ms: 0 };
  await client.query('CREATE TABLE copied (LIKE event INCLUDING ALL)');
  // In turns, since the machine is not always as fast.
  for (let round = -WARM_UP_ROUNDS; round < ROUNDS; round++) {
    const { rows } = await client.query('SELECT pg_snapshot_xmax(pg_current_snapshot())::text AS next');
    const brought = `FROM event WHERE tx >= ${Number(rows[0].next)}`;
    const sentMs = await collect(ports, body);
    const stored = Number((await client.query(`SELECT count(*) ${brought}`)).rows[0].count);
    if (stored < CALLS * EVENTS)
      throw new Error(`/collect: ${CALLS * EVENTS} acknowledged, ${stored} stored`);
    await untilCounted(client);
    const copiedMs = await copyRows(client, brought);
    if (round < 0) continue;
    sent.ms += sentMs;
    sent.events += stored;
    copied.ms += copiedMs;
    copied.events += stored;
  }
  const [ours, copy] = [sent, copied].map(({ events, ms }) => events / (ms / 1000)) as [number, number];
  return {
    what: `durable events through /collect, rollups and uniques included`,
    ours: perSecond(ours),
    reference: `COPY of the same ${copied.events.toLocaleString('en-GB')} rows ${perSecond(copy)}`,
    ratio: times(ours / copy),
    target: 'at least 0.5x',
    isMet: ours / copy >= 0.5,
  };
}

/** Sends events, every one of them acknowledged; milliseconds until the last was. */
async function collect(ports: { edge: number; fell: number }, body: () => string): Promise<number> {
  // Made beforehand: on two cores the making would take from what is measured.
  // Each connection holds one ready for a call that is not made any more.
  const bodies = Array.from({ length: CALLS + CONNECTIONS }, body);
  const startedAtMs = performance.now();
  // The generator itself says so only at the next full second.
  let answeredAtMs = startedAtMs;
  const result = await autocannon({
    url: `http://127.0.0.1:${ports.edge}/collect`,
    method: 'POST',
    headers: {
      origin: `http://127.0.0.1:${ports.fell}`,
      'content-type': 'text/plain',
      'user-agent': USER_AGENT,
      'accept-language': 'en-GB,en;q=0.8',
    },
    connections: CONNECTIONS,
    amount: CALLS,
    setupClient: (connection) => {
      const next = () => connection.setBody(bodies.pop() ?? '');
      next();
      connection.on('response', () => {
        answeredAtMs = performance.now();
        next();
      });
    },
  });
  if (result.non2xx > 0 || result['2xx'] < CALLS)
    throw new Error(
      `/collect: expected ${CALLS} times 2xx, got ${result['2xx']} and ${result.non2xx} others`,
    );
  return answeredAtMs - startedAtMs;
}

/** Nothing is left to be counted, so that COPY has the machine to itself. */
async function untilCounted(client: pg.Client): Promise<void> {
  const isBehind = 'SELECT last_value > mark AS behind FROM counted_until, event_mark';
  while ((await client.query(isBehind)).rows[0].behind)
    await new Promise((resolve) => setTimeout(resolve, 100));
}

/** Copies rows into a table of the same columns and indexes, 1 000 a statement; milliseconds it took. */
async function copyRows(client: pg.Client, brought: string): Promise<number> {
  const rows = await text(client.query(copyTo(`COPY (SELECT * ${brought}) TO STDOUT`)));
  const lines = rows.trimEnd().split('\n');
  const startedAtMs = performance.now();
  for (let at = 0; at < lines.length; at += 1000) {
    const some = `${lines.slice(at, at + 1000).join('\n')}\n`;
    await pipeline(Readable.from([some]), client.query(copyFrom('COPY copied FROM STDIN')));
  }
  return performance.now() - startedAtMs;
}
