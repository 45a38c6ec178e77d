import type { Campaign, CampaignParts, Goal, Manifest } from '@velarium/contract';
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
  await owner.publish(campaign.id);
});

const goals = (id = '') => `/sites/${owner.siteId}/goals${id && `/${id}`}`;
const BOOKED = { kind: 'page', pages: [{ kind: 'begins', address: '/booked/' }] };
const make = async (name: string, deed: object = BOOKED, days = 7) => {
  const made = await owner.ask('POST', goals(), { name, deed, days });
  expect(made.statusCode, made.body).toBe(200);
  return made.json<Goal[]>().find((one) => one.name === name) as Goal;
};
const results = async () =>
  (await owner.ask('GET', `/campaigns/${campaign.id}/results/parts?period=7`)).json<CampaignParts>().goals;
const ofCampaign = (kind: string, agoMs: number) => ({
  kind,
  campaign: campaign.id,
  version: 1,
  // Whoever was divided from those it is withheld from has a variant, of one or of several.
  variant: 'a',
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
  // They were not divided: nobody could have withheld it from them.
  await say([{ ...ofCampaign('shown', 60_000), variant: undefined }, view('/booked/friday')]);
  // Never met it at all.
  await say([view('/booked/friday')]);
  expect(await results()).toMatchObject([
    { name: 'Booked', days: 7, visitors: 3, reached: 1, withheld: 2, withheldReached: 1 },
  ]);
  const [goal] = (await owner.ask('GET', goals())).json<Goal[]>();
  expect(goal?.reached).toBe(5);
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

describe('a purchase that an event of the page tells of', () => {
  const BOUGHT = { kind: 'event', name: 'bought', condition: null, worth: { from: 'data', path: 'total' } };
  const bought = (goal: string, worth: number | undefined, agoMs = 0) => ({
    kind: 'reached',
    goal,
    worth,
    id: eventId(Date.now() - agoMs),
  });
  const say = (events: object[], of: Member = owner) =>
    sendEvents(server, of, events as never, { visitor: randomVisitor() });
  const counting = async (counts: 'once' | 'each') => {
    const made = await owner.ask('POST', goals(), { name: 'Bought', deed: BOUGHT, days: 7, counts });
    await longAgo();
    return made.json<Goal[]>()[0]?.id as string;
  };

  it.each([
    ['once', { times: 2, worth: 30.35, withheldTimes: 1, withheldWorth: 7 }],
    ['each', { times: 4, worth: 130.35, withheldTimes: 1, withheldWorth: 7 }],
  ] as const)('counts %s, with its worth, shown or withheld', async (counts, sums) => {
    const goal = await counting(counts);
    await say([
      bought(goal, 500, 120_000),
      ofCampaign('shown', 60_000),
      bought(goal, 10.1, 30_000),
      bought(goal, 60, 20_000),
      bought(goal, 40, 10_000),
    ]);
    await say([ofCampaign('shown', 60_000), bought(goal, 20.25)]);
    await say([ofCampaign('shown', 60_000)]);
    await say([ofCampaign('held', 60_000), bought(goal, 7)]);
    expect(await results()).toMatchObject([
      { counts, visitors: 3, reached: 2, withheld: 1, withheldReached: 1, ...sums },
    ]);
  });

  it('is told to the tag while it is a goal, and counts for nobody afterwards', async () => {
    const manifest = async () =>
      (await server.edge.inject({ url: `/tag/${owner.siteKey}/manifest.json` })).json<Manifest>();
    const goal = await counting('once');
    await expect.poll(async () => (await manifest()).goals).toMatchObject([{ id: goal, name: 'bought' }]);
    await owner.ask('DELETE', goals(goal));
    await expect.poll(async () => (await manifest()).goals).toBeUndefined();
    expect((await say([bought(goal, 5)])).statusCode).toBe(204);
    expect(await results()).toEqual([]);
  });

  it('reaches no goal of another site, none of another kind, and none with a worth below nothing', async () => {
    const goal = await counting('once');
    const booked = await make('Booked');
    const other = await createWorkspace(server);
    await say([bought(goal, 5)], other);
    await say([bought(booked.id, 5)]);
    expect((await say([bought(goal, -5)])).statusCode).toBe(422);
    await results();
    const rows = await server.db.query('SELECT * FROM goal_reached WHERE goal_id = ANY($1)', [
      [goal, booked.id],
    ]);
    expect(rows).toEqual([]);
  });
});

it('a campaign is measured by the goals chosen for it', async () => {
  const booked = await make('Booked');
  const answered = await make('Answered', { kind: 'answer' });
  await longAgo();
  await sendEvents(server, owner, [ofCampaign('shown', 60_000)] as never, { visitor: randomVisitor() });
  const chosen = `/campaigns/${campaign.id}/goals`;
  const names = async () => (await results()).map(({ name }) => name);
  expect((await owner.ask('GET', chosen)).json()).toEqual({ goals: null });
  expect(await names()).toEqual(['Answered', 'Booked']);
  await owner.ask('PUT', chosen, { goals: [answered.id] });
  expect(await names()).toEqual(['Answered']);
  await owner.ask('DELETE', goals(answered.id));
  expect((await owner.ask('GET', chosen)).json()).toEqual({ goals: [] });
  const viewer = await addColleague(server, owner, 'viewer');
  expect((await viewer.ask('PUT', chosen, { goals: null })).statusCode).toBe(403);
  const other = await createWorkspace(server);
  const theirs = await other.ask('POST', `/sites/${other.siteId}/goals`, {
    name: 'Theirs',
    deed: BOOKED,
    days: 7,
  });
  expect(
    (await owner.ask('PUT', chosen, { goals: [booked.id, theirs.json<Goal[]>()[0]?.id] })).statusCode,
  ).toBe(404);
});

describe('goals', () => {
  test.each<[string, object]>([
    ['without a page', { kind: 'page', pages: [] }],
    ['told by the page alone', { kind: 'page', pages: [{ kind: 'holds', selector: '.thanks' }] }],
    ['of a kind nobody knows', { kind: 'purchase' }],
    ['of an event without a name', { kind: 'event', name: ' ', condition: null, worth: null }],
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
