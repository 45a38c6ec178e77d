import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { ensurePartitions } from '../src/intake/index.ts';
import { createTestServer, type TestServer } from './server.ts';

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
    await server.db.undoLastMigration();
    const tables = await server.db.query(`SELECT tablename FROM pg_tables WHERE schemaname = 'public'`);
    expect(tables).toEqual([{ tablename: 'migrations' }]);
    await server.db.runMigrations();
  });
});

describe('day partitions', () => {
  it('are made once, however often and by however many they are asked for', async () => {
    const now = new Date(Date.UTC(2026, 11, 31, 23, 59));
    const make = () => server.db.transaction((manager) => ensurePartitions(manager, now, -1, 2));
    await Promise.all([make(), make(), make()]);
    const names = await server.db.query(
      `SELECT relname FROM pg_inherits JOIN pg_class ON pg_class.oid = inhrelid WHERE inhparent = 'event'::regclass ORDER BY 1`,
    );
    expect(names.map(({ relname }: { relname: string }) => relname)).toEqual([
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
