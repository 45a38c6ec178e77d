import type { Campaign } from '@velarium/contract';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { createDataSource } from '../src/infra/orm.ts';
import { createServices } from '../src/services.ts';
import {
  createCampaign,
  createTestServer,
  createWorkspace,
  type Member,
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

/** Four times the connections a process holds. */
const MANY = 48;

it('four times as many moves at once as there are connections are all made, and by few rebuilds', async () => {
  const made: Campaign[] = [];
  for (let n = 0; n < MANY; n++) made.push(await createCampaign(owner));
  const codesOf = async (moves: ReturnType<Member['ask']>[]) =>
    (await Promise.all(moves)).map(({ statusCode }) => statusCode);
  const right = made.map(() => 200);
  expect(await codesOf(made.map(({ id }) => owner.publish(id)))).toEqual(right);
  expect((await server.manifestOf(owner.siteKey)).campaigns).toHaveLength(MANY);
  const [resting, collected] = await Promise.all([
    codesOf(made.map(({ id }) => owner.ask('POST', `/campaigns/${id}/rest`))),
    sendEvents(server, owner, [{ kind: 'pageview' }]),
  ]);
  expect(resting).toEqual(right);
  expect(collected.statusCode).toBe(204);
  expect((await server.manifestOf(owner.siteKey)).campaigns).toEqual([]);
});

it('one move that is refused takes nothing from those made with it', async () => {
  const [a, b] = [await createCampaign(owner), await createCampaign(owner)];
  const moves = [owner.publish(a.id), owner.ask('POST', `/campaigns/${b.id}/restore`), owner.publish(b.id)];
  const codes = (await Promise.all(moves)).map(({ statusCode }) => statusCode);
  expect(codes).toEqual([200, 409, 200]);
  const live = (await server.manifestOf(owner.siteKey)).campaigns.map(({ id }) => id);
  expect(live).toEqual([a.id, b.id]);
});

it('every move is made over a single connection', async () => {
  const db = await createDataSource(server.databaseUrl, { poolSize: 1 }).initialize();
  try {
    const { publishing, campaigns, sites } = createServices(db, SERVICES);
    const actor = { workspaceId: owner.workspaceId, name: 'Owner', accountId: owner.session.account.id };
    const { id } = await campaigns.create(actor, owner.siteId, 'Alone', 'sky-letter');
    const { document, revision } = await createCampaign(owner);
    await campaigns.saveDraft(actor, id, 0, document);
    expect(revision).toBe(1);
    await publishing.publish(actor, id, revision);
    for (const move of ['rest', 'run', 'afresh', 'archive', 'restore'] as const)
      await publishing[move](actor, id);
    await sites.groups.save(owner.siteId, { name: 'Alone', rules: [{ kind: 'every' }] });
    await publishing.prepareSite(owner.workspaceId, owner.siteId);
    await publishing.preview(owner.siteKey, 'drafts');
  } finally {
    await db.destroy();
  }
});
