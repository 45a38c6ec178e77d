import { afterAll, beforeAll, beforeEach, expect, it } from 'vitest';
import { enqueue } from '../src/deliveries/index.ts';
import { addColleague, createTestServer, createWorkspace, type Member, type TestServer } from './server.ts';

let server: TestServer;
let owner: Member;
beforeAll(async () => {
  server = await createTestServer();
});
afterAll(() => server.close());
beforeEach(async () => {
  owner = await createWorkspace(server);
  await server.db.query('DELETE FROM week_mail; DELETE FROM delivery');
});

const path = () => `/sites/${owner.siteId}/week-mail`;
const want = (member: Member, isOn = true) => member.ask('PUT', path(), { isOn });
const queue = (at: string) => server.services.weekMails.queue(enqueue, new Date(at));
const queued = (): Promise<
  { recipient: string; payload: { account: string; from: string; until: string } }[]
> => server.db.query(`SELECT recipient, payload FROM delivery WHERE kind = 'week' ORDER BY recipient`);
const zone = (name: string) =>
  server.db.query('UPDATE site SET time_zone = $2 WHERE id = $1', [owner.siteId, name]);

it('is queued once for who wants it, on Monday from seven in the site’s own zone to the end of Tuesday', async () => {
  await zone('America/New_York');
  await want(owner);
  // 23 November 2026 is a Monday; New York is five hours behind.
  for (const [at, count] of [
    ['2026-11-22T23:00:00Z', 0],
    ['2026-11-23T11:59:00Z', 0],
    ['2026-11-23T12:00:00Z', 1],
    ['2026-11-23T18:00:00Z', 1],
    ['2026-11-25T04:59:00Z', 1],
    ['2026-11-25T05:00:00Z', 1],
    ['2026-11-30T12:00:00Z', 2],
  ] as const) {
    await queue(at);
    expect([at, (await queued()).length]).toEqual([at, count]);
  }
  const [first] = await queued();
  expect(first?.payload).toMatchObject({ from: '2026-11-16', until: '2026-11-22' });
});

it('is each member’s own, a viewer’s too, and none for who has left the team', async () => {
  const viewer = await addColleague(server, owner, 'viewer');
  expect((await viewer.ask('GET', path())).json()).toEqual({ isOn: false });
  expect((await want(viewer)).json()).toEqual({ isOn: true });
  expect((await owner.ask('GET', path())).json()).toEqual({ isOn: false });
  await queue('2026-11-23T12:00:00Z');
  const [mail] = await queued();
  if (!mail) throw new Error('expected a mail');
  const [{ workspace_id: workspaceId }] = await server.db.query(
    'SELECT workspace_id FROM site WHERE id = $1',
    [owner.siteId],
  );
  const of = { workspaceId, siteId: owner.siteId };
  const draft = await server.services.weekMails.mailOf(of, { of: 'week', ...mail.payload });
  expect(draft?.text.flat().map(({ text }) => text)).toContain('No message was shown in this week.');
  expect(draft?.button?.address).toContain(
    `/sites/${owner.siteId}/results?period=own&from=2026-11-16&until=2026-11-22`,
  );

  await server.db.query('DELETE FROM membership WHERE account_id = $1', [mail.payload.account]);
  expect(await server.services.weekMails.mailOf(of, { of: 'week', ...mail.payload })).toBeUndefined();
  await queue('2026-11-30T12:00:00Z');
  expect(await queued()).toHaveLength(1);
});

it('is not sent to who has changed their mind, and comes back when they want it again', async () => {
  await want(owner);
  await want(owner, false);
  await queue('2026-11-23T12:00:00Z');
  expect(await queued()).toHaveLength(0);
  await want(owner);
  await queue('2026-11-23T12:00:00Z');
  expect(await queued()).toHaveLength(1);
});
