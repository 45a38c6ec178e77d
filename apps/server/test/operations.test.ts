import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import pg from 'pg';
import type { DataSource } from 'typeorm';
import { afterAll, beforeAll, describe, expect, it, test } from 'vitest';
import { postgresPrograms } from '../../../scripts/lib/install.mjs';
import { readConfig } from '../src/config.ts';
import { createDataSource } from '../src/infra/orm.ts';
import { requestId } from '../src/infra/request-id.ts';
import { createSeal } from '../src/infra/seal.ts';
import { createServices } from '../src/services.ts';
import { createStudioApp } from '../src/studio-app.ts';
import { createMetrics, createWatchApp } from '../src/watch/index.ts';
import {
  createCampaign,
  createTestServer,
  createWorkspace,
  eventId,
  type Member,
  randomVisitor,
  SERVICES,
  sendEvents,
  type TestServer,
} from './server.ts';

let server: TestServer;
let owner: Member;
beforeAll(async () => {
  server = await createTestServer();
  owner = await createWorkspace(server);
});
afterAll(() => server.close());

const BEFORE = 'b'.repeat(40);
const AFTER = 'a'.repeat(40);

describe('how a process is', () => {
  const watch = (roles: string[], database: () => DataSource | undefined, isOpen = true) => {
    const metrics = createMetrics();
    metrics.watchDatabase(database, roles.includes('worker'));
    return { metrics, app: createWatchApp({ roles, metrics, database, isOpen: () => isOpen }) };
  };
  const away = () => undefined;
  const there = () => server.db;

  it.each([
    ['a worker with its database', ['worker'], there, true, 200],
    ['a worker without', ['worker'], away, true, 503],
    ['all in one without', ['studio', 'edge', 'worker'], away, true, 503],
    ['an edge without: it serves what it last knew', ['edge'], away, true, 200],
    ['one that begins, or comes to its end', ['edge'], there, false, 503],
  ])('%s', async (_, roles, database, isOpen, status) => {
    const { app } = watch(roles, database, isOpen);
    expect((await app.inject({ url: '/ready' })).statusCode).toBe(status);
    // It answers, whatever it has to say.
    expect((await app.inject({ url: '/health' })).json()).toEqual({ status: 'up', roles });
  });

  it('a database that takes its time is away, and nobody waits for it', async () => {
    const slow = { query: () => new Promise(() => {}) } as unknown as DataSource;
    const { app } = watch(['studio'], () => slow);
    expect((await app.inject({ url: '/ready' })).json()).toMatchObject({
      status: 'not ready',
      database: 'away',
    });
  });

  it('is told in the form of OpenMetrics 1.0, by routes and never by addresses', async () => {
    const { metrics, app } = watch(['studio', 'worker'], there);
    const studio = await createStudioApp({
      services: server.services,
      secrets: SERVICES.secrets,
      edgeOrigin: SERVICES.edgeOrigin,
      country: { of: () => null, networks: 0, header: null },
      isBehindTls: false,
      trustedProxies: '',
      logLevel: 'silent',
      metrics,
    });
    await studio.inject({ url: '/api/sites/secret-name/pages' });
    await studio.close();
    await sendEvents(server, owner, [{ kind: 'pageview', id: eventId() }] as never, {
      visitor: randomVisitor(),
    });
    metrics.onFailure();
    const answer = await app.inject({ url: '/metrics' });
    expect(answer.headers['content-type']).toBe('application/openmetrics-text; version=1.0.0; charset=utf-8');
    // Section "Overall Structure": the last line says that nothing is missing.
    expect(answer.body).toMatch(/\n# EOF\n$/);
    for (const [, name] of answer.body.matchAll(/^# TYPE (\S+) counter$/gm))
      expect(answer.body).toMatch(new RegExp(`^${name}_total`, 'm'));
    expect(answer.body).not.toContain('secret-name');
    const value = (line: string) =>
      Number(
        answer.body
          .split('\n')
          .find((one) => one.startsWith(line))
          ?.split(' ')
          .at(-1),
      );
    expect(
      value(
        'velarium_http_request_duration_seconds_count{role="studio",method="GET",route="/api/sites/:siteId/pages",status="4xx"}',
      ),
    ).toBe(1);
    expect(value('velarium_failures_total')).toBe(1);
    expect(value('velarium_database_up')).toBe(1);
    expect(value('velarium_events_uncounted')).toBe(1);
    expect(value('velarium_delivery_oldest_due_seconds')).toBe(0);
    const connections = ['idle', 'busy'].map((state) =>
      value(`velarium_database_connections{state="${state}"}`),
    );
    expect(connections.reduce((sum, count) => sum + count, 0)).toBeGreaterThan(0);
  });

  it('tells nothing of a database that is away but that it is', async () => {
    const { app } = watch(['worker'], away);
    const { body, statusCode } = await app.inject({ url: '/metrics' });
    expect(statusCode).toBe(200);
    expect(body).toMatch(/^velarium_database_up 0$/m);
    expect(body).not.toMatch(/^velarium_(deliveries|events_uncounted|delivery_oldest)\S* \d/m);
  });
});

describe('a request that failed', () => {
  it.each([
    ['as the proxy calls it', 'abcd-1234.5', /^abcd-1234\.5$/],
    ['anew where nobody has named it', undefined, /^[0-9a-f-]{36}$/],
    ['anew where its name could be another line of the log', 'a\n{"level":50}', /^[0-9a-f-]{36}$/],
    ['anew where it is long without end', 'a'.repeat(500), /^[0-9a-f-]{36}$/],
  ])('is called %s', (_, given, known) => {
    expect(requestId({ headers: { 'x-request-id': given } as never })).toMatch(known);
  });
});

describe('the secret is changed', () => {
  it('what one of before has sealed and signed still holds, and is sealed anew', () => {
    const [old, both, next] = [createSeal([BEFORE]), createSeal([AFTER, BEFORE]), createSeal([AFTER])];
    const sealed = old.close({ word: 'hush' });
    expect(both.open(sealed)).toEqual({ word: 'hush' });
    expect([both.isCurrent(sealed), both.isCurrent(both.close('x'))]).toEqual([false, true]);
    expect(() => next.open(sealed)).toThrow();
    expect(next.open(both.close({ word: 'hush' }))).toEqual({ word: 'hush' });
    expect([both.isSigned('a', old.sign('a')), next.isSigned('a', old.sign('a'))]).toEqual([true, false]);
    expect(next.isSigned('a', both.sign('a'))).toBe(true);
  });

  it('connections go on after the old one is given up; addresses that must not be written to ask for it', async () => {
    const servicesWith = (...secrets: [string, ...string[]]) =>
      createServices(server.db, { ...SERVICES, secrets });
    const before = servicesWith(BEFORE);
    const { connection } = await before.deliveries.connections.create(owner.workspaceId, owner.siteId, {
      kind: 'events',
      name: 'Records',
      address: 'https://records.example/events',
      events: ['answer.stored'],
      scope: null,
    } as never);
    const actor = { workspaceId: owner.workspaceId, name: 'Owner' };
    await before.people.importDoNotWrite(actor, owner.siteId, 'lark@example.org');
    const knows = (services: typeof before) =>
      services.people.isNeverWrittenTo(server.db.manager, owner.siteId, 'lark@example.org');
    expect(await knows(before)).toBe(true);

    const both = servicesWith(AFTER, BEFORE);
    await both.people.requireSecrets();
    expect(await both.deliveries.reseal()).toBe(1);
    expect(await both.deliveries.reseal()).toBe(0);
    expect(await knows(both)).toBe(true);

    const after = servicesWith(AFTER);
    await after.deliveries.connections.renewSecret(owner.siteId, connection.id);
    await expect(after.people.requireSecrets()).rejects.toThrow(/1 addresses that must not be written to/);
  });

  test.each([
    ['too short a one', 'short', /line 1: expected at least 32 characters, got 5/],
    ['too short a one of before', `${AFTER}\nshort`, /line 2: expected at least 32 characters/],
    ['none', ' \n', /line 1: expected at least 32 characters, got 0/],
  ])('%s is refused', (_, text, words) => {
    expect(() => readConfig([], { DATABASE_URL: 'postgres://x', VELARIUM_SECRET: text })).toThrow(words);
  });
  it('is read one a line, the present one first', () => {
    const env = { DATABASE_URL: 'postgres://x', VELARIUM_SECRET: `${AFTER}\n\n ${BEFORE} \n` };
    expect(readConfig([], env).secrets).toEqual([AFTER, BEFORE]);
  });
});

describe('a backup', () => {
  /** Every table with how many rows it holds and what they are, whatever their order. */
  const contents = async (db: DataSource) => {
    const tables: { name: string }[] = await db.query(
      `SELECT format('%I.%I', schemaname, tablename) AS name FROM pg_tables
        WHERE schemaname = 'public' OR (schemaname = 'job' AND tablename LIKE 'j%') ORDER BY 1`,
    );
    const found: Record<string, unknown> = {};
    for (const { name } of tables) {
      const [row] = await db.query(
        `SELECT count(*)::int AS count, md5(string_agg(line, '' ORDER BY line)) AS sum FROM (SELECT t::text AS line FROM ${name} t) AS all_rows`,
      );
      found[name] = row;
    }
    return found;
  };

  it('that is restored is the same to the row, serves the same pages, and lets the same people in', async () => {
    const campaign = await createCampaign(owner);
    await owner.publish(campaign.id);
    await sendEvents(server, owner, [{ kind: 'pageview', id: eventId() }] as never, {
      visitor: randomVisitor(),
    });
    const manifest = await server.manifestOf(owner.siteKey);
    const before = await contents(server.db);

    // As docs/operations.md says.
    const folder = mkdtempSync('/tmp/velarium-backup-');
    const programs = postgresPrograms();
    const run = (program: string, ...args: string[]) =>
      execFileSync(`${programs}/${program}`, args, { stdio: 'pipe' });
    run('pg_dump', '--format=custom', `--file=${folder}/velarium.dump`, server.databaseUrl);
    const restored = `${new URL(server.databaseUrl).pathname.slice(1)}_restored`;
    const admin = new pg.Client({ connectionString: server.databaseUrl });
    await admin.connect();
    await admin.query(`CREATE DATABASE ${restored}`);
    const url = server.databaseUrl.replace(/\/[^/]*$/, `/${restored}`);
    run('pg_restore', '--exit-on-error', '--no-owner', `--dbname=${url}`, `${folder}/velarium.dump`);

    const db = await createDataSource(url).initialize();
    try {
      expect(await contents(db)).toEqual(before);
      // Nothing is left to migrate, and nothing is made anew.
      expect(await db.showMigrations()).toBe(false);
      const services = createServices(db, SERVICES);
      const site = await services.publishing.findSite(owner.siteKey);
      expect(JSON.parse(site?.body ?? '')).toEqual(manifest);
      const [member] = await services.accounts.members(owner.workspaceId);
      expect(member?.email).toMatch(/^owner/);
      await services.jobs.stop();
    } finally {
      await db.destroy();
      await admin.query(`DROP DATABASE ${restored} WITH (FORCE)`);
      await admin.end();
      rmSync(folder, { recursive: true });
    }
  });
});
