import type { ManifestsRun, SitePage } from '@velarium/contract';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { SITE_CHANGED } from '../src/publishing/index.ts';
import {
  createCampaign,
  createTestServer,
  createWorkspace,
  eventId,
  type Member,
  randomVisitor,
  sendEvents,
  type TestServer,
} from './server.ts';

let server: TestServer;
let owner: Member;
beforeAll(async () => {
  server = await createTestServer();
});
afterAll(() => server.close());
beforeEach(async () => {
  owner = await createWorkspace(server);
});

/** Somebody leaves a page that calls itself so. */
async function leave(page: string, title: string, visitor = randomVisitor()): Promise<void> {
  const left = { kind: 'left', page, title, view: eventId(), stay: [20, 50] };
  const answer = await sendEvents(server, owner, [{ kind: 'pageview', page }, left], { visitor });
  expect(answer.statusCode).toBe(204);
  await server.services.intake.flushHeard();
}
const titles = async () => {
  const pages = (await owner.ask('GET', `/sites/${owner.siteId}/pages`)).json<SitePage[]>();
  return Object.fromEntries(pages.map(({ path, title }) => [path, title]));
};

describe('what pages call themselves', () => {
  it('is what they are called once two have said so, without what the site’s titles have in common', async () => {
    await leave('/aurora?utm_source=letter', '  The aurora \n tonight · Quillon Fell ');
    expect((await titles())['/aurora']).toBe('/aurora');
    await leave('/aurora/', 'The aurora tonight · Quillon Fell');
    await leave('/tours', 'Night tours · Quillon Fell');
    await leave('/tours', 'Night tours · Quillon Fell');
    expect(await titles()).toMatchObject({ '/aurora': 'The aurora tonight', '/tours': 'Night tours' });
  });

  it('is not shown where one visitor alone has it, however often', async () => {
    const visitor = randomVisitor();
    for (let times = 0; times < 3; times++) await leave('/account', 'Hello Ida Fenwick', visitor);
    expect((await titles())['/account']).toBe('/account');
  });

  it('leaves the title that a page was given as it is, and gives one to a page that has none', async () => {
    const given = [
      { path: '/named', title: 'By hand', kind: null },
      { path: '/plain', title: '', kind: null },
    ];
    await owner.ask('POST', `/sites/${owner.siteId}/pages`, { source: 'hand', pages: given });
    for (const page of ['/named', '/plain', '/plain', '/named']) await leave(page, `As visits say: ${page}`);
    expect(await titles()).toEqual({ '/named': 'By hand', '/plain': 'As visits say: /plain' });
  });

  it('is forgotten but for the latest of a page that counts up in its title', async () => {
    for (let n = 1; n <= 12; n++) await leave('/inbox', `(${n}) Inbox`);
    await server.services.intake.tidy();
    const [kept] = await server.db.query(
      'SELECT count(*)::integer AS count FROM page_title WHERE site_id = $1',
      [owner.siteId],
    );
    expect(kept.count).toBe(8);
  });
});

describe('which manifest pages run', () => {
  const run = async () =>
    (await owner.ask('GET', `/sites/${owner.siteId}/manifests-run`)).json<ManifestsRun>();
  const made = async () => (await server.manifestOf(owner.siteKey)).made as number;
  const view = async (manifest: number) => {
    await sendEvents(server, owner, [{ kind: 'pageview' }], { body: { made: manifest } });
    await server.services.intake.flushHeard();
  };
  /** As if the manifest of now had been made so long ago. */
  const age = (hours: number) =>
    server.db.query("UPDATE site_manifest SET built_at = now() - $2 * interval '1 hour' WHERE site_id = $1", [
      owner.siteId,
      hours,
    ]);

  /** Tells the edge that the site is to be read anew. */
  const announced = async () => {
    await server.db.query('SELECT pg_notify($1, $2)', [SITE_CHANGED, owner.siteKey]);
    await server.manifestOf(owner.siteKey);
  };

  it('changes when what it says does, and not when it is only made anew', async () => {
    const { id } = await createCampaign(owner);
    const before = await made();
    const groups = `/sites/${owner.siteId}/groups`;
    await owner.ask('POST', groups, {
      name: 'Nobody asks for it',
      rules: [{ kind: 'exact', address: '/a' }],
    });
    expect(await made()).toBe(before);
    await owner.publish(id);
    expect(await made()).toBeGreaterThan(before);
  });

  it('is counted as old an hour after another took its place', async () => {
    const old = (await made()) - 86_400_000;
    await view(old);
    expect(await run()).toEqual({ calls: 1, outdated: 0, oldest: null });
    await age(2);
    await announced();
    await view(old);
    await view(Date.now());
    expect(await run()).toEqual({ calls: 3, outdated: 1, oldest: new Date(old).toISOString() });
  });
});
