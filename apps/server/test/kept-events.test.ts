import type { Campaign, CampaignResults, SiteResults } from '@velarium/contract';
import { afterAll, beforeAll, beforeEach, expect, it } from 'vitest';
import { ensurePartitions, type StoredEvent, storeEvents } from '../src/intake/index.ts';
import { makeRoom } from '../src/intake/keeping.ts';
import { countEvents } from '../src/results/index.ts';
import {
  addColleague,
  createCampaign,
  createTestServer,
  createWorkspace,
  type Member,
  type TestServer,
} from './server.ts';
import { storedEvent } from './stored-event.ts';

const DAY_MS = 86_400_000;

let server: TestServer;
let owner: Member;
let campaign: Campaign;
beforeAll(async () => {
  server = await createTestServer();
});
afterAll(() => server.close());
beforeEach(async () => {
  await server.db.transaction((manager) => ensurePartitions(manager, new Date(), -60, 1));
  owner = await createWorkspace(server);
  campaign = await createCampaign(owner);
  await owner.publish(campaign.id);
});

const event = (kind: string, daysAgo: number, more: Partial<StoredEvent> = {}) =>
  storedEvent({ siteId: owner.siteId, campaign: campaign.id }, kind, daysAgo * DAY_MS, more);
const store = (...events: StoredEvent[]) => storeEvents(server.db.manager, events);
const keep = (days: number | null, by = owner) =>
  by.ask('PUT', `/sites/${owner.siteId}/kept-events`, { days });
const eventsOf = async (siteId: string): Promise<number> => {
  const [{ events }] = await server.db.query(
    'SELECT count(*)::integer AS events FROM event WHERE site_id = $1',
    [siteId],
  );
  return events;
};
const hasDay = async (daysAgo: number): Promise<boolean> => {
  const day = new Date(Date.now() - daysAgo * DAY_MS).toISOString().slice(0, 10).replaceAll('-', '');
  const [{ found }] = await server.db.query('SELECT to_regclass($1) IS NOT NULL AS found', [`event_${day}`]);
  return found;
};
/** All that is told of the site and its campaign. */
const told = async () => {
  const ask = async <T>(path: string) => (await owner.ask('GET', path)).json<T>();
  return Promise.all([
    ask<SiteResults>(`/sites/${owner.siteId}/results?period=90`),
    ask<CampaignResults>(`/campaigns/${campaign.id}/results?period=launch`),
    ...['device', 'page', 'source', 'hour', 'weekday', 'version', 'variant', 'cause', 'written'].map((by) =>
      ask(`/campaigns/${campaign.id}/results/parts?period=90&by=${by}`),
    ),
  ]);
};

it('single events go when their site’s days are over, and not a number of the reports changes', async () => {
  const visitor = event('shown', 0).visitor;
  await store(
    event('shown', 50, { visitor, stay: [8, 40], cause: 'time', device: 'mobile' }),
    event('clicked', 50, { visitor, part: 'go' }),
    event('converted', 50, { visitor }),
    event('closed', 45, { closedBy: 'button', stay: [3, 20] }),
    event('answering', 45, { part: 'mail' }),
    event('shown', 20, { visitor }),
    event('shown', 1),
  );
  const before = await told();
  expect(before[0].campaigns[0]?.counts).toMatchObject({
    showings: 3,
    visitors: 2,
    converters: 1,
    closes: 1,
  });
  // Another site keeps its own for ever, one of them on the same day.
  const mine = owner;
  const other = await createWorkspace(server);
  await storeEvents(server.db.manager, [
    storedEvent({ siteId: other.siteId, campaign: (await createCampaign(other)).id }, 'shown', 45 * DAY_MS),
  ]);
  await countEvents(server.db);
  await server.services.intake.tidy();
  expect(await eventsOf(mine.siteId)).toBe(7);

  expect((await keep(40)).statusCode).toBe(204);
  await server.services.intake.tidy();
  expect([await eventsOf(mine.siteId), await eventsOf(other.siteId)]).toEqual([2, 1]);
  // Whoever comes again is known by what was counted.
  expect(await told()).toEqual(before);
  expect([await hasDay(50), await hasDay(45), await hasDay(20)]).toEqual([false, true, true]);
  await store(event('shown', 0, { visitor }));
  expect((await told())[0].campaigns[0]?.counts).toMatchObject({ showings: 4, visitors: 2 });
});

it('an update counts what was there before it', async () => {
  const visitor = event('shown', 0).visitor;
  await store(
    event('shown', 9, {
      visitor,
      stay: [8, 40],
      cause: 'time',
      device: 'mobile',
      language: 'cy',
      variant: 'b',
    }),
    event('clicked', 9, { visitor, part: 'go' }),
    event('shown', 3, { visitor, device: 'tablet' }),
    event('converted', 3, { visitor }),
    event('closed', 4, { closedBy: 'escape', stay: [1, 20] }),
    event('answering', 4, { part: 'mail' }),
    event('shown', 4),
  );
  const before = await told();
  const countedAnew =
    server.db.migrations.length -
    server.db.migrations.findIndex(({ name = '' }) => name.startsWith('ResultsWithoutEvents'));
  for (let n = 0; n < countedAnew; n++) await server.db.undoLastMigration();
  await server.db.runMigrations();
  expect(await told()).toEqual(before);
});

it('what has not been counted yet stays, and an answer let through late finds room', async () => {
  await store(event('shown', 58));
  await keep(31);
  await server.services.intake.tidy();
  expect(await eventsOf(owner.siteId)).toBe(1);
  await told();
  await server.services.intake.tidy();
  expect(await eventsOf(owner.siteId)).toBe(0);
  const late = event('converted', 58);
  await expect(store(late)).rejects.toThrow(/no partition/);
  await server.db.transaction(async (manager) => {
    await makeRoom(manager, [late.at]);
    await storeEvents(manager, [late]);
  });
  expect((await told())[1].counts).toMatchObject({ showings: 1, conversions: 1 });
});

it('is the owner’s to say, within bounds, and nobody else’s', async () => {
  expect((await owner.ask('GET', `/sites/${owner.siteId}/kept-events`)).json()).toEqual({ days: null });
  expect((await keep(30)).statusCode).toBe(422);
  const editor = await addColleague(server, owner, 'editor');
  expect((await keep(90, editor)).statusCode).toBe(403);
  expect((await keep(90, await createWorkspace(server))).statusCode).toBe(404);
  expect((await keep(90)).statusCode).toBe(204);
  expect((await editor.ask('GET', `/sites/${owner.siteId}/kept-events`)).json()).toEqual({ days: 90 });
});
