import type { Campaign, CampaignResults, Goal } from '@velarium/contract';
import { afterAll, beforeAll, beforeEach, describe, expect, it, test } from 'vitest';
import {
  addColleague,
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

let server: TestServer;
let owner: Member;
let campaign: Campaign;
beforeAll(async () => {
  server = await createTestServer();
});
afterAll(() => server.close());
beforeEach(async () => {
  owner = await createWorkspace(server);
  campaign = await createCampaign(owner);
  await owner.ask('POST', `/campaigns/${campaign.id}/publish`, { revision: campaign.revision });
});

const goals = (id = '') => `/sites/${owner.siteId}/goals${id && `/${id}`}`;
const BOOKED = { kind: 'page', pages: [{ kind: 'begins', address: '/booked/' }] };
const make = async (name: string, deed: object = BOOKED, days = 7) => {
  const made = await owner.ask('POST', goals(), { name, deed, days });
  expect(made.statusCode, made.body).toBe(200);
  return made.json<Goal[]>().find((one) => one.name === name) as Goal;
};
const results = async () =>
  (await owner.ask('GET', `/campaigns/${campaign.id}/results?period=7`)).json<CampaignResults>().goals;
const ofCampaign = (kind: string, agoMs: number) => ({
  kind,
  campaign: campaign.id,
  version: 1,
  id: eventId(Date.now() - agoMs),
});
const view = (page: string, agoMs = 0) => ({ kind: 'pageview', page, id: eventId(Date.now() - agoMs) });
/** A goal counts from when it was made. */
const longAgo = () => server.db.query(`UPDATE goal SET created_at = now() - interval '2 days'`);

it('a page is reached by whoever met the campaign, and by whoever it was withheld from; before that it counts for nobody', async () => {
  await make('Booked');
  await longAgo();
  const say = (events: object[]) => sendEvents(server, owner, events as never, { visitor: randomVisitor() });
  await say([ofCampaign('shown', 60_000), view('/booked/friday?utm_source=letter')]);
  await say([ofCampaign('shown', 60_000), view('/bookedly')]);
  // They were there before they met it.
  await say([view('/booked/friday', 120_000), ofCampaign('shown', 60_000)]);
  await say([ofCampaign('held', 60_000), view('/booked/')]);
  await say([ofCampaign('held', 60_000), view('/')]);
  // Never met it at all.
  await say([view('/booked/friday')]);
  expect(await results()).toMatchObject([
    { name: 'Booked', days: 7, visitors: 3, reached: 1, withheld: 2, withheldReached: 1 },
  ]);
  const [goal] = (await owner.ask('GET', goals())).json<Goal[]>();
  expect(goal?.reached).toBe(4);
});

it('counts within its days, and only visitors who met the campaign since it was made', async () => {
  await make('Booked', BOOKED, 1);
  const visitor = randomVisitor();
  await sendEvents(server, owner, [ofCampaign('shown', 60_000)] as never, { visitor });
  expect(await results()).toEqual([]);
  await longAgo();
  await sendEvents(server, owner, [view('/booked/x')] as never, { visitor });
  expect(await results()).toMatchObject([{ visitors: 1, reached: 1 }]);
  await server.db.query(`UPDATE goal_reached SET at = at + interval '25 hours'`);
  expect(await results()).toMatchObject([{ visitors: 1, reached: 0 }]);
});

it('any form that is answered is one; a link that is followed is none', async () => {
  await make('Answered', { kind: 'answer' });
  await longAgo();
  const visitor = randomVisitor();
  await sendEvents(server, owner, [ofCampaign('shown', 60_000)] as never, { visitor });
  await sendEvents(server, owner, [ofCampaign('shown', 60_000), ofCampaign('converted', 0)] as never, {
    visitor: randomVisitor(),
  });
  const sent = await server.edge.inject({
    method: 'POST',
    url: '/submit',
    headers: { origin: ORIGIN, 'content-type': 'text/plain', 'user-agent': BROWSER },
    payload: JSON.stringify({
      site: owner.siteKey,
      visitor,
      event: {
        id: eventId(),
        kind: 'converted',
        session: eventId(),
        page: '/tours',
        device: 'desktop',
        campaign: campaign.id,
        version: 1,
      },
      fields: { email: 'lark@example.org' },
      consent: true,
    }),
  });
  expect(sent.statusCode).toBe(204);
  expect(await results()).toMatchObject([{ visitors: 2, reached: 1 }]);
});

describe('goals', () => {
  test.each<[string, object]>([
    ['without a page', { kind: 'page', pages: [] }],
    ['told by the page alone', { kind: 'page', pages: [{ kind: 'holds', selector: '.thanks' }] }],
    ['of a kind nobody knows', { kind: 'purchase' }],
  ])('%s are refused', async (_what, deed) => {
    expect((await owner.ask('POST', goals(), { name: 'G', deed, days: 7 })).statusCode).toBe(422);
  });
  it('have names of their own, are changed in name and days alone, and go with what they counted', async () => {
    const { id } = await make('Booked');
    expect(
      (await owner.ask('POST', goals(), { name: 'Booked', deed: BOOKED, days: 7 })).json(),
    ).toMatchObject({
      code: 'name-taken',
    });
    const changed = await owner.ask('PUT', goals(id), { name: 'Came', deed: { kind: 'answer' }, days: 3 });
    expect(changed.json()).toMatchObject([{ name: 'Came', days: 3, deed: BOOKED }]);
    expect((await owner.ask('DELETE', goals(id))).statusCode).toBe(204);
    expect((await owner.ask('GET', goals())).json()).toEqual([]);
    expect((await owner.ask('DELETE', goals(id))).statusCode).toBe(404);
  });
  it('are read by viewers, made by editors, and none of another workspace’s', async () => {
    const { id } = await make('Booked');
    const viewer = await addColleague(server, owner, 'viewer');
    const other = await createWorkspace(server);
    const body = { name: 'Mine', deed: BOOKED, days: 7 };
    expect((await viewer.ask('GET', goals())).json()).toHaveLength(1);
    for (const [who, status] of [
      [viewer, 403],
      [other, 404],
    ] as const) {
      expect((await who.ask('POST', goals(), body)).statusCode).toBe(status);
      expect((await who.ask('PUT', goals(id), body)).statusCode).toBe(status);
      expect((await who.ask('DELETE', goals(id))).statusCode).toBe(status);
    }
    expect((await other.ask('PUT', `/sites/${other.siteId}/goals/${id}`, body)).statusCode).toBe(404);
    expect((await other.ask('DELETE', `/sites/${other.siteId}/goals/${id}`)).statusCode).toBe(404);
  });
});
