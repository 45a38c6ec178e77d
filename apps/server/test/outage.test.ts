import { mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import type { FastifyInstance } from 'fastify';
import { type Logger, pino } from 'pino';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { choosePorts } from '../../../scripts/lib/ports.mjs';
import { programEnv, startOne } from '../../../scripts/lib/whole.mjs';
import {
  createKeptFiles,
  createSiteDirectory,
  createTagFiles,
  findReleased,
  keepRelease,
  onSiteChanged,
  readRelease,
} from '../src/edge/index.ts';
import { createEdgeApp } from '../src/edge-app.ts';
import { NO_COUNTRIES } from '../src/infra/countries.ts';
import { createDataSource } from '../src/infra/orm.ts';
import { databaseAway } from '../src/infra/problem.ts';
import { createPreviewTokens } from '../src/publishing/index.ts';
import { createServices, type Services } from '../src/services.ts';
import { createStudioApp } from '../src/studio-app.ts';
import { type BreakableLine, createBreakableLine } from './breakable.ts';
import {
  BROWSER,
  createCampaign,
  createTestServer,
  createWorkspace,
  eventId,
  type Member,
  ORIGIN,
  PASSWORD,
  randomVisitor,
  SERVICES,
  SILENT,
  type TestServer,
} from './server.ts';

/** A process begins slowly on a machine that is shared. */
const PATIENTLY = { timeout: 30_000 };

let server: TestServer;
let owner: Member;
let line: BreakableLine;
let folder: string;
beforeAll(async () => {
  server = await createTestServer();
  owner = await createWorkspace(server);
  const campaign = await createCampaign(owner);
  await owner.publish(campaign.id);
  line = await createBreakableLine(server.databaseUrl);
  folder = mkdtempSync('/tmp/velarium-outage-');
  writeFileSync(`${folder}/files.json`, JSON.stringify({ renderer: 'renderer-0123456789ab.js' }));
  writeFileSync(`${folder}/tag.js`, 'tag');
  writeFileSync(`${folder}/renderer-0123456789ab.js`, 'renderer');
});
afterAll(async () => {
  await line.close();
  await server.close();
  rmSync(folder, { recursive: true });
});
beforeEach(() => line.mend());

/** An edge over the breakable line, or one that has never reached its database. */
async function createEdge(
  services?: Services,
  log: Logger = SILENT,
): Promise<{ edge: FastifyInstance; pass(ms: number): void }> {
  let aheadMs = 0;
  const kept = createKeptFiles(`${folder}/kept`);
  const connected = () => {
    if (!services) throw databaseAway();
    return services;
  };
  const directory = createSiteDirectory(
    {
      findSite: async (...asked) => connected().publishing.findSite(...asked),
      findMessage: async (...asked) => connected().publishing.findMessage(...asked),
    },
    kept,
    () => Date.now() + aheadMs,
  );
  const edge = await createEdgeApp({
    services: connected,
    directory,
    tagFiles: await createTagFiles(readRelease(folder), kept, async (name) =>
      findReleased(connected().db, name),
    ),
    previews: createPreviewTokens(['x'.repeat(40)]),
    country: { ...NO_COUNTRIES, header: null },
    trustedProxies: '',
    log,
  });
  return {
    edge,
    pass(ms) {
      aheadMs += ms;
    },
  };
}

const post = (edge: FastifyInstance, url: string, body: object) =>
  edge.inject({
    method: 'POST',
    url,
    headers: { origin: ORIGIN, 'content-type': 'text/plain', 'user-agent': BROWSER },
    payload: JSON.stringify({ site: owner.siteKey, visitor: randomVisitor(), ...body }),
  });
const view = () => ({ id: eventId(), kind: 'pageview', session: eventId(), page: '/', device: 'desktop' });

describe('while the database is away', () => {
  const paths = async (edge: FastifyInstance) => {
    const { campaigns } = (await edge.inject({ url: `/tag/${owner.siteKey}/manifest.json` })).json();
    return [
      `/tag/${owner.siteKey}.js`,
      `/tag/${owner.siteKey}/manifest.json`,
      `/tag/${owner.siteKey}/messages/${campaigns[0].message}.json`,
      '/tag/renderer-0123456789ab.js',
    ];
  };

  it('the studio itself comes, also to who is signed in, and says of what it asks for that it is away', async () => {
    const db = await createDataSource(line.url).initialize();
    writeFileSync(`${folder}/index.html`, 'the studio');
    const studio = await createStudioApp({
      services: createServices(db, SERVICES),
      secrets: SERVICES.secrets,
      edgeOrigin: 'https://edge.example',
      country: { ...NO_COUNTRIES, header: null },
      isBehindTls: false,
      trustedProxies: '',
      studioFiles: folder,
      logLevel: 'silent',
    });
    const { email } = owner.session.account;
    const payload = { email, password: PASSWORD };
    const [cookie] = (await studio.inject({ method: 'POST', url: '/api/session', payload })).cookies;
    const ask = (url: string) =>
      studio.inject({ url, headers: { cookie: `${cookie?.name}=${cookie?.value}` } });
    expect((await ask('/api/session')).statusCode).toBe(200);
    await line.cut();
    for (const url of ['/', `/sites/${owner.siteId}/board`])
      expect([url, (await ask(url)).body]).toEqual([url, 'the studio']);
    expect((await ask('/tag.js')).body).toBe('tag');
    expect((await ask('/api/session')).statusCode).toBe(503);
    await studio.close();
    await db.destroy();
  });

  it.each(['cut', 'stall'] as const)(
    '(%s) the edge serves what it last knew and asks visitors back',
    async (how) => {
      const db = await createDataSource(line.url).initialize();
      const { edge, pass } = await createEdge(createServices(db, SERVICES));
      const known = await paths(edge);
      // Kept without being asked for: the manifest names it.
      const message = known[2]?.split('/').at(-1);
      // Under its own name: it is written under another first.
      const names = () => readdirSync(`${folder}/kept`, { recursive: true }).map(String);
      await expect.poll(() => names().some((name) => name.endsWith(message as string))).toBe(true);
      await line[how]();
      for (const _hour of [1, 2, 3]) {
        pass(3_600_000);
        for (const url of known) expect([url, (await edge.inject({ url })).statusCode]).toEqual([url, 200]);
      }
      const collected = await post(edge, '/collect', { events: [view()] });
      expect([collected.statusCode, Number(collected.headers['retry-after']) > 0]).toEqual([503, true]);
      const answered = await post(edge, '/submit', {
        event: { ...view(), kind: 'converted', campaign: '00000000-0000-4000-8000-000000000000', version: 1 },
        fields: {},
        consent: true,
      });
      expect([answered.statusCode, Number(answered.headers['retry-after']) > 0]).toEqual([503, true]);
      await line.mend();
      await expect
        .poll(async () => (await post(edge, '/collect', { events: [view()] })).statusCode)
        .toBe(204);
      await edge.close();
      await db.destroy();
    },
  );

  it('the log names what failed as the answer does, by its route and not by its address', async () => {
    const lines: string[] = [];
    const { edge } = await createEdge(undefined, pino({ base: null }, { write: (line) => lines.push(line) }));
    const { headers } = await edge.inject({ url: '/tag/aaaaaaaaaaaa/manifest.json?from=somebody' });
    expect(lines.map((line) => JSON.parse(line))).toEqual([
      expect.objectContaining({
        level: 50,
        reqId: headers['x-request-id'],
        method: 'GET',
        route: '/tag/:key/manifest.json',
      }),
    ]);
    expect(lines.join()).not.toContain('somebody');
    await edge.close();
  });

  it('an edge that starts without one serves what it kept, and 503 for what it never knew', async () => {
    const { edge } = await createEdge();
    for (const url of await paths(edge))
      expect([url, (await edge.inject({ url })).statusCode]).toEqual([url, 200]);
    const other = await edge.inject({ url: '/tag/aaaaaaaaaaaa/manifest.json' });
    expect([other.statusCode, other.json().code]).toEqual([503, 'database-away']);
    expect((await post(edge, '/collect', { events: [view()] })).statusCode).toBe(503);
    await edge.close();
  });
});

it('whoever starts all of it is told once all of it stands, though the edge serves before', async () => {
  await line.cut();
  const ports = await choosePorts({ studio: 0, edge: 0, fell: 0, skerry: 0, standins: 0, smtp: 0 });
  const options = { databaseUrl: line.url, home: folder, ports };
  // Nothing is to be seeded.
  const program = startOne('server', options, { ...programEnv(options), VELARIUM_DEMO_ORIGINS: '' });
  try {
    let isTold = false;
    void program.ready.then(() => {
      isTold = true;
    });
    const at = (port: number, path: string) =>
      fetch(`http://127.0.0.1:${port}${path}`).then(
        ({ status }) => status,
        () => 0,
      );
    await expect.poll(() => at(ports.edge, '/tag/aaaaaaaaaaaa/manifest.json'), PATIENTLY).toBe(503);
    expect(isTold).toBe(false);
    await line.mend();
    await program.ready;
    expect(await at(ports.studio, '/api/session')).toBe(401);
  } finally {
    await program.stop();
  }
}, 60_000);

it('the listener holds one connection through twenty outages, and stops at any moment', async () => {
  const changes: string[] = [];
  let reconnected = 0;
  const listener = onSiteChanged(line.url, {
    onChanged: (key) => changes.push(key),
    onReconnected: () => reconnected++,
  });
  await listener.isListening;
  const lines = async () =>
    (
      await server.db.query(
        `SELECT count(*)::integer AS n FROM pg_stat_activity
        WHERE application_name = 'velarium edge' AND datname = current_database()`,
      )
    )[0].n;
  // The test server's own edge listens too.
  const others = (await lines()) - 1;
  for (let outage = 1; outage <= 20; outage++) {
    // Several signs of one end, as a server that goes down gives them.
    await server.db.query(
      `SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE application_name = 'velarium edge' AND datname = current_database()`,
    );
    await line.cut();
    await line.mend();
    await expect.poll(() => reconnected, { timeout: 5000 }).toBe(outage);
    expect(line.open).toBe(1);
  }
  await expect.poll(lines).toBe(others + 1);
  await line.cut();
  listener.stop();
  await line.mend();
  await new Promise((resolve) => setTimeout(resolve, 1200));
  expect(line.open).toBe(0);
}, 60_000);

it('files of an earlier release are served to tags that still ask for them', async () => {
  await keepRelease(server.db, {
    tag: 'old',
    chunks: new Map([['renderer-aaaaaaaaaaaa.js', 'old renderer']]),
  });
  await keepRelease(server.db, readRelease(folder));
  const { edge } = await createEdge(server.services);
  const old = await edge.inject({ url: '/tag/renderer-aaaaaaaaaaaa.js' });
  expect([old.statusCode, old.body]).toEqual([200, 'old renderer']);
  expect(old.headers['x-content-type-options']).toBe('nosniff');
  await server.db.query(
    `UPDATE tag_file SET released_at = now() - interval '31 days' WHERE body LIKE 'old%'`,
  );
  await keepRelease(server.db, readRelease(folder));
  expect(await findReleased(server.db, 'renderer-aaaaaaaaaaaa.js')).toBeUndefined();
  await edge.close();
});
