import { type Campaign, messageFileSchema } from '@velarium/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { ensurePartitions } from '../src/intake/index.ts';
import { createCampaign, createTestServer, createWorkspace, type TestServer } from './server.ts';

let server: TestServer;
beforeAll(async () => {
  server = await createTestServer();
});
afterAll(() => server.close());

describe('migrations', () => {
  it('make what the entities describe', async () => {
    const drift = await server.db.driver.createSchemaBuilder().log();
    // Column types, nullability and missing columns would show; keys, checks and indexes are the migrations' own.
    const columns = drift.upQueries
      .map(({ query }) => query)
      .filter(
        (query) =>
          /ADD (COLUMN )?"|ALTER COLUMN|DROP COLUMN|CREATE TABLE/.test(query) && !/CONSTRAINT/.test(query),
      );
    expect(columns).toEqual([]);
  });

  it('have a way back', async () => {
    for (const _migration of server.db.migrations) await server.db.undoLastMigration();
    const tables = await server.db.query(`SELECT tablename FROM pg_tables WHERE schemaname = 'public'`);
    expect(tables).toEqual([{ tablename: 'migrations' }]);
    await server.db.runMigrations();
  });
});

describe('an update of a Velarium with campaigns in it', () => {
  it('gives older documents what rules have learned since, and makes their files anew', async () => {
    const owner = await createWorkspace(server);
    const { id, document } = await createCampaign(owner);
    await owner.publish(id);
    // Down to the foundation, and as that wrote it.
    for (let n = 1; n < server.db.migrations.length; n++) await server.db.undoLastMigration();
    const { variants: _variants, ...old } = structuredClone(document);
    const { format, anchor, label, steps } = old.message;
    const palette = {
      surface: '#ffffff',
      ink: '#000000',
      accent: '#000000',
      accentText: '#ffffff',
      backdrop: '#000000',
    };
    const message = {
      format,
      anchor,
      label,
      palette,
      width: 460,
      steps: steps.map((step) => ({
        ...step,
        blocks: step.blocks.map((block) => {
          const { style, marks, tone, attention, asksSum, ...plain } = block as Record<string, unknown>;
          return plain;
        }),
      })),
    };
    const { afterNo, priority, withoutMemory, holdout, ...limits } = old.rule.limits;
    const { follows, ...pages } = old.rule.reach.pages;
    const before = { message, rule: { ...old.rule, limits, reach: { ...old.rule.reach, pages } } };
    await server.db.query('UPDATE campaign SET draft = $1 WHERE id = $2', [before, id]);
    await server.db.query('UPDATE campaign_version SET document = $1', [before]);
    await server.db.query(`UPDATE site SET settings = settings - 'privacy' - 'hashRoutes' - 'sharedDomain'`);

    await server.db.runMigrations();
    await server.services.publishing.prepareMissing();
    const updated = (await owner.ask('GET', `/campaigns/${id}`)).json<Campaign>();
    // Pages behind it could be scrolled then, and still can.
    const expected = { ...document.message, palette, holdsPage: false };
    expect(updated.document).toEqual({ ...document, message: expected });
    const manifest = await server.manifestOf(owner.siteKey);
    expect(manifest.campaigns).toHaveLength(1);
    const file = await server.edge.inject({
      url: `/tag/${owner.siteKey}/messages/${manifest.campaigns[0]?.message}.json`,
    });
    expect(messageFileSchema.parse(file.json()).message).toEqual(expected);
  });
});

describe('day partitions', () => {
  it('are made once, however often and by however many they are asked for', async () => {
    const now = new Date(Date.UTC(2026, 11, 31, 23, 59));
    const make = () => server.db.transaction((manager) => ensurePartitions(manager, now, -1, 2));
    await Promise.all([make(), make(), make()]);
    const names: { relname: string }[] = await server.db.query(
      `SELECT relname FROM pg_inherits JOIN pg_class ON pg_class.oid = inhrelid WHERE inhparent = 'event'::regclass
          AND relname > 'event_20261229' ORDER BY 1`,
    );
    expect(names.map(({ relname }) => relname)).toEqual([
      'event_20261230',
      'event_20261231',
      'event_20270101',
      'event_20270102',
    ]);
  });
});

it('the application’s role owns its own database and is no superuser', async () => {
  const [role] = await server.db.query(
    'SELECT rolsuper, rolcreaterole, rolreplication FROM pg_roles WHERE rolname = current_user',
  );
  expect(role).toEqual({ rolsuper: false, rolcreaterole: false, rolreplication: false });
  const [{ listen_addresses: addresses }] = await server.db.query('SHOW listen_addresses');
  expect(addresses).toBe('127.0.0.1');
});
