import type { AnswerPage, Campaign } from '@velarium/contract';
import fc from 'fast-check';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { createIntakeService, storeEvents } from '../src/intake/index.ts';
import { nearestTransaction } from '../src/results/count-events.ts';
import { COUNT } from '../src/results/count-statement.ts';
import { countEvents } from '../src/results/index.ts';
import {
  BROWSER,
  createCampaign,
  createTestServer,
  createWorkspace,
  eventId,
  type Member,
  ORIGIN,
  randomVisitor,
  sendEvents,
  type TestServer,
} from './server.ts';
import { storedEvent } from './stored-event.ts';

const DAY_MS = 86_400_000;

let server: TestServer;
let owner: Member;
let campaign: string;
beforeAll(async () => {
  server = await createTestServer();
  owner = await createWorkspace(server);
});
afterAll(() => server.close());
beforeEach(async () => {
  campaign = (await createCampaign(owner)).id;
  await owner.publish(campaign);
});

const numbers = async () => (await owner.ask('GET', `/campaigns/${campaign}`)).json<Campaign>().numbers;
const event = (kind: string, more: object = {}) => ({ kind, campaign, version: 1, ...more });
const answer = (visitor: string, more: { event?: object; headers?: object; [key: string]: unknown } = {}) => {
  const { event: ofEvent, ...body } = more;
  return server.edge.inject({
    method: 'POST',
    url: '/submit',
    headers: { origin: ORIGIN, 'content-type': 'text/plain', 'user-agent': BROWSER },
    payload: JSON.stringify({
      site: owner.siteKey,
      visitor,
      event: {
        id: eventId(),
        session: eventId(),
        page: '/tours',
        device: 'desktop',
        ...event('converted'),
        ...ofEvent,
      },
      fields: { email: 'lark@example.org' },
      consent: true,
      ...body,
    }),
  });
};

describe('whoever converts is a visitor', () => {
  it('also when a blocker kept every event from us', async () => {
    expect((await answer(randomVisitor())).statusCode).toBe(204);
    expect(await numbers()).toEqual({ showings: 0, visitors: 1, conversions: 1, converters: 1 });
  });
  it('with the showing that was answered, which counts once whenever its own news comes', async () => {
    const [visitor, showing] = [randomVisitor(), eventId(Date.now() - 9000)];
    await answer(visitor, { showing });
    const counted = { showings: 1, visitors: 1, conversions: 1, converters: 1 };
    expect(await numbers()).toEqual(counted);
    await sendEvents(server, owner, [event('shown', { id: showing })], { visitor });
    expect(await numbers()).toEqual(counted);
  });
  it('by a link followed too', async () => {
    await sendEvents(server, owner, [event('converted')]);
    expect(await numbers()).toMatchObject({ visitors: 1, converters: 1 });
  });
  it('and of one instant is told apart as they were shown it, not as they converted', async () => {
    const at = new Date();
    const pairs = Array.from({ length: 20 }, () => {
      const visitor = randomVisitor();
      const of = (kind: string, more: object) =>
        storedEvent({ ...owner, campaign }, kind, 0, { at, visitor, ...more });
      return [of('converted', { page: '/thanks' }), of('shown', { page: '/tours', cause: 'depth' })];
    });
    await storeEvents(server.db.manager, pairs.flat());
    await countEvents(server.db);
    const told = await server.db.query(
      `SELECT page, cause, count(*)::integer FROM visitor_day WHERE campaign_id = $1 AND kind = 'shown'
        GROUP BY page, cause`,
      [campaign],
    );
    expect(told).toEqual([{ page: '/tours', cause: 'depth', count: 20 }]);
  });
  it('whatever comes in whatever order: visitors are those who were shown it or converted', async () => {
    const visitors = Array.from({ length: 4 }, randomVisitor);
    const told = fc.array(
      fc.record({
        visitor: fc.constantFrom(...visitors),
        kind: fc.constantFrom('shown', 'converted', 'closed'),
      }),
      { minLength: 1, maxLength: 12 },
    );
    await fc.assert(
      fc.asyncProperty(told, async (events) => {
        for (const { visitor, kind } of events) await sendEvents(server, owner, [event(kind)], { visitor });
        const [raw] = await server.db.query(
          `SELECT count(*) FILTER (WHERE kind = 'shown')::integer AS showings,
                  count(DISTINCT visitor) FILTER (WHERE kind IN ('shown', 'converted'))::integer AS visitors,
                  count(*) FILTER (WHERE kind = 'converted')::integer AS conversions,
                  count(DISTINCT visitor) FILTER (WHERE kind = 'converted')::integer AS converters
             FROM event WHERE campaign_id = $1`,
          [campaign],
        );
        expect(await numbers()).toEqual(raw);
      }),
      { numRuns: 12 },
    );
  });
});

describe('an event of one id counts once, whenever it comes (decision 0016)', () => {
  /** How far the clock of the browser that made the id is off. */
  it.each<[what: string, offMs: number]>([
    ['with a right clock', 0],
    ['with a clock four days behind', -4 * DAY_MS],
    ['with a clock ten years behind', -3650 * DAY_MS],
    ['with a clock a day ahead', DAY_MS],
    ['with a clock a thousand years ahead', 365_000 * DAY_MS],
  ])('%s', async (_what, offMs) => {
    let now = new Date();
    const intake = createIntakeService({ ...server.services, db: server.db, clock: () => now });
    const site = {
      id: owner.siteId,
      workspaceId: owner.workspaceId,
      recordedFacts: null,
      pageParts: { pageParameters: [], hashRoutes: false },
      madeMs: 0,
    };
    const sent = {
      id: eventId(now.getTime() + offMs),
      session: eventId(),
      page: '/tours',
      device: 'desktop' as const,
      kind: 'shown' as const,
      campaign,
      version: 1,
    };
    const visitor = randomVisitor();
    // As far as partitions reach; a later one would be made by then.
    for (const days of [0, 0.1, 2, 3.5, 4, 6.9]) {
      now = new Date(Date.now() + days * DAY_MS);
      await intake.collect(site, { site: owner.siteKey, visitor, events: [sent, sent] });
      expect(await numbers(), `after ${days} days`).toMatchObject({ showings: 1, visitors: 1 });
    }
    const rows = await server.db.query('SELECT count(*)::integer AS rows FROM event WHERE id = $1', [
      sent.id,
    ]);
    expect(rows).toEqual([{ rows: 1 }]);
  });
});

describe('consent is what the visitor was asked', () => {
  const CONSENT = 'I would like to receive the weekly sky letter and can leave it at any time.';
  const consents = async () =>
    (await owner.ask('GET', `/sites/${owner.siteId}/answers`)).json<AnswerPage>().answers;

  it('in the file they had, though the saved block it came from says something else by now', async () => {
    const made = (await owner.ask('GET', `/campaigns/${campaign}`)).json<Campaign>();
    const form = made.document.message.steps[0]?.blocks.find((block) => block.kind === 'form');
    const kept = (
      await owner.ask('POST', `/sites/${owner.siteId}/blocks`, {
        name: `Form of ${campaign}`,
        block: form,
      })
    ).json<{ id: string }>();
    const [first, ...others] = made.document.message.steps;
    const saved = { id: 'kept', kind: 'saved', saved: kept.id, style: form?.style };
    await owner.ask('PUT', `/campaigns/${campaign}/draft`, {
      revision: made.revision,
      document: {
        ...made.document,
        message: {
          ...made.document.message,
          steps: [
            { ...first, blocks: first?.blocks.map((block) => (block.kind === 'form' ? saved : block)) },
            ...others,
          ],
        },
      },
    });
    const published = await owner.publish(campaign);
    expect(published.statusCode).toBe(200);
    const hashOf = async () =>
      (await server.manifestOf(owner.siteKey)).campaigns.find(({ id }) => id === campaign)?.message;
    const had = await hashOf();
    await owner.ask('PUT', `/sites/${owner.siteId}/blocks/${kept.id}`, {
      name: `Form of ${campaign}`,
      block: { ...form, consentText: 'Sell my address.' },
    });
    const now = await hashOf();
    expect(now).not.toBe(had);
    const [asked, later] = [eventId(), eventId()];
    expect(
      (await answer(randomVisitor(), { event: { id: asked, version: 2 }, message: had })).statusCode,
    ).toBe(204);
    expect(
      (await answer(randomVisitor(), { event: { id: later, version: 2 }, message: now })).statusCode,
    ).toBe(204);
    const stored = await consents();
    expect(stored.find(({ id }) => id === asked)?.consentText).toBe(CONSENT);
    expect(stored.find(({ id }) => id === later)?.consentText).toBe('Sell my address.');
  });
  it('no file of another campaign is taken for it', async () => {
    const other = (await createCampaign(owner)).id;
    await owner.publish(other);
    // The same words give the same file, so that one differs.
    const made = (await owner.ask('GET', `/campaigns/${other}`)).json<Campaign>();
    await owner.ask('PUT', `/campaigns/${other}/draft`, {
      revision: made.revision,
      document: { ...made.document, message: { ...made.document.message, label: 'Another' } },
    });
    await owner.publish(other);
    const { campaigns } = await server.manifestOf(owner.siteKey);
    const theirs = campaigns.find(({ id }) => id === other)?.message;
    expect((await answer(randomVisitor(), { message: theirs })).statusCode).toBe(404);
  });
  it('a form sent from a page that is still open after its campaign went to the archive is stored', async () => {
    await owner.ask('POST', `/campaigns/${campaign}/archive`);
    const id = eventId();
    expect((await answer(randomVisitor(), { event: { id } })).statusCode).toBe(204);
    expect((await consents()).some((one) => one.id === id)).toBe(true);
  });
});

it.each([
  [5, 7, 5],
  [9, 7, 9],
  // The lower half has begun anew in between, on either side.
  [2 ** 32 - 1, 2 ** 32 + 3, 2 ** 32 - 1],
  [2, 3 * 2 ** 32 - 4, 3 * 2 ** 32 + 2],
  [2 ** 31 + 5, 5 * 2 ** 32 + 2 ** 31, 5 * 2 ** 32 + 2 ** 31 + 5],
])('a session’s transaction %i beside what begins next, %i, is %i', (lowerHalf, next, whole) => {
  expect(nearestTransaction(lowerHalf, next)).toBe(whole);
});

describe('what is stored while others store', () => {
  const showing = () => storedEvent({ ...owner, campaign }, 'shown', 1000);
  const moved = async () =>
    (await server.db.query('SELECT last_value > mark AS moved FROM counted_until, event_mark'))[0].moved;
  it('is counted when it is there, and until then is known to be to come', async () => {
    const slow = server.db.createQueryRunner();
    await slow.startTransaction();
    await storeEvents(slow.manager, [showing()]);
    await storeEvents(server.db.manager, [showing()]);
    await countEvents(server.db, 0);
    // One began before the other, which therefore waits too.
    expect(await moved()).toBe(true);
    await slow.commitTransaction();
    await slow.release();
    expect(await numbers()).toMatchObject({ showings: 2 });
    expect(await moved()).toBe(false);
  });
  it('nothing is looked for where nothing was stored', async () => {
    await storeEvents(server.db.manager, [showing()]);
    expect(await numbers()).toMatchObject({ showings: 1 });
    const asked: string[] = [];
    await countEvents({ query: (sql: string) => asked.push(sql) && server.db.query(sql) } as never);
    expect(asked).toHaveLength(1);
  });
});

it('each visitor is looked up by themselves, also while the database knows nothing of its tables yet', async () => {
  const { db } = server;
  const events = Array.from({ length: 2000 }, () => storedEvent({ ...owner, campaign }, 'shown', 1000));
  await storeEvents(db.manager, events);
  await countEvents(db);
  const plan: { 'QUERY PLAN': string }[] = await db.query(`EXPLAIN ${COUNT}`, [0, 2 ** 31, '-infinity']);
  const indexes = plan.flatMap((line) => /visitor_day_\w+/.exec(line['QUERY PLAN']) ?? []);
  expect(indexes).toContain('visitor_day_pkey');
  expect(indexes).not.toContain('visitor_day_by_day');
});
