import fc from 'fast-check';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { type BinaryType, binaryArray, type Cell } from '../src/infra/binary-array.ts';
import { isKnownKey } from '../src/infra/database-fault.ts';
import { createDataSource } from '../src/infra/orm.ts';
import { createBatcher } from '../src/intake/batcher.ts';
import { storeEvents } from '../src/intake/index.ts';
import { createCampaign, createTestServer, createWorkspace, type Member, type TestServer } from './server.ts';
import { storedEvent } from './stored-event.ts';

let server: TestServer;
let owner: Member;
let campaign: string;
beforeAll(async () => {
  server = await createTestServer();
});
beforeEach(async () => {
  owner = await createWorkspace(server);
  ({ id: campaign } = await createCampaign(owner));
});
afterAll(() => server.close());

const showing = () => storedEvent({ ...owner, campaign }, 'shown', 1000);
const storedIds = async (): Promise<string[]> =>
  (await server.db.query('SELECT id FROM event WHERE site_id = $1 ORDER BY id', [owner.siteId])).map(
    ({ id }: { id: string }) => id,
  );

describe('arrays in the binary format are what the database reads from text', () => {
  /** Of each type: its values, and how the database reads them from text. */
  const TYPES: [BinaryType, fc.Arbitrary<Cell>, (value: NonNullable<Cell>) => string][] = [
    [
      'uuid',
      fc.oneof(
        fc.uuid(),
        fc.uuid().map((id) => id.toUpperCase()),
      ),
      String,
    ],
    ['text', fc.string({ unit: 'binary' }).map((text) => text.replace(/[\0\p{Surrogate}]/gu, '')), String],
    ['boolean', fc.boolean(), String],
    ['smallint', fc.integer({ min: -32_768, max: 32_767 }), String],
    ['integer', fc.integer(), String],
    [
      'double precision',
      fc.double({ noNaN: true }),
      (value) => (Object.is(value, -0) ? '-0' : String(value)),
    ],
    [
      'timestamptz',
      fc.date({ min: new Date('1850-01-01'), max: new Date('2999-12-31'), noInvalidDate: true }),
      (value) => (value as Date).toISOString(),
    ],
  ];
  it.each(TYPES)('%s', async (type, value, inWords) => {
    // Few different ones, so that many are the same as the one before.
    const values = fc
      .array(value, { maxLength: 4 })
      .chain((some) => fc.array(fc.constantFrom<Cell>(null, ...some), { maxLength: 12 }));
    await fc.assert(
      fc.asyncProperty(values, async (cells) => {
        const words = cells.map((cell) => (cell === null ? null : inWords(cell)));
        const [row]: [{ differ: string }] = await server.db.query(
          `SELECT count(*) AS differ FROM unnest($1::${type}[], $2::text[]::${type}[]) AS pair (sent, meant)
            WHERE sent IS DISTINCT FROM meant`,
          [binaryArray(type, cells), words],
        );
        expect(row.differ).toBe('0');
      }),
      { numRuns: 40 },
    );
  });
});

describe('an event that is known', () => {
  it('keeps all from being stored where each was taken to be new, and is passed over where it is looked for', async () => {
    const [known, fresh] = [showing(), showing()];
    expect(await storeEvents(server.db.manager, [known])).toBe(1);
    const error = await storeEvents(server.db.manager, [known, fresh], { areNew: true }).catch(
      (raised) => raised,
    );
    expect(isKnownKey(error)).toBe(true);
    expect(await storedIds()).toEqual([known.id]);
    expect(await storeEvents(server.db.manager, [known, fresh])).toBe(1);
    expect(await storedIds()).toEqual([known.id, fresh.id]);
  });

  it.each([
    ['', false],
    [', also over a pooler', true],
  ])('takes nothing from what comes with it, side by side or after it%s', async (_words, isPooled) => {
    const db = await createDataSource(server.databaseUrl, { isPooled }).initialize();
    try {
      const batcher = createBatcher(db);
      const [known, ...others] = Array.from({ length: 30 }, showing);
      if (!known) return;
      await batcher.add([known]);
      await Promise.all(others.map((one, n) => batcher.add(n % 3 === 0 ? [one, known] : [one])));
      // Twice in one statement, and where it is looked for at once.
      const last = showing();
      await Promise.all([batcher.add([last, last]), batcher.add([known])]);
      expect(await storedIds()).toEqual([known, ...others, last].map(({ id }) => id).sort());
    } finally {
      await db.destroy();
    }
  });
  it('takes nothing from one that came late with it', async () => {
    const batcher = createBatcher(server.db);
    const known = showing();
    await batcher.add([known]);
    const late = { ...showing(), isLate: true };
    await batcher.add([late, known]);
    expect(await storedIds()).toEqual([known.id, late.id]);
  });
});

it.each([
  ['once a connection', false, 1],
  ['anew each time over a pooler, which lends another connection each time', true, 0],
])('what stores events is read %s', async (_words, isPooled, remembered) => {
  const db = await createDataSource(server.databaseUrl, { poolSize: 1, isPooled }).initialize();
  try {
    for (const one of [showing(), showing()]) expect(await storeEvents(db.manager, [one])).toBe(1);
    // In a transaction as well, by its own connection.
    await db.transaction((manager) => storeEvents(manager, [showing()]));
    expect(await db.query('SELECT name FROM pg_prepared_statements')).toHaveLength(remembered);
    expect(await storedIds()).toHaveLength(3);
  } finally {
    await db.destroy();
  }
});
