import type { Campaign, CampaignDocument, Experiments } from '@velarium/contract';
import { evenShares, variantOf } from '@velarium/core';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { ensurePartitions } from '../src/intake/index.ts';
import {
  addColleague,
  createCampaign,
  createTestServer,
  createWorkspace,
  type Member,
  randomVisitor,
  sendEvents,
  type TestServer,
} from './server.ts';

let server: TestServer;
let owner: Member;
let campaign: Campaign;
beforeAll(async () => {
  server = await createTestServer();
  await server.db.transaction((manager) => ensurePartitions(manager, new Date(), -20, 1));
});
afterAll(() => server.close());
beforeEach(async () => {
  owner = await createWorkspace(server);
  campaign = await createCampaign(owner);
});

const path = (rest: string) => `/campaigns/${campaign.id}/${rest}`;
const now = async () => (await owner.ask('GET', `/campaigns/${campaign.id}`)).json<Campaign>();
const experiments = async () => (await owner.ask('GET', path('experiments'))).json<Experiments>();
/** Tries the campaign's own message at another moment beside it, and publishes it. */
async function launch(change: (document: CampaignDocument) => CampaignDocument): Promise<void> {
  const { revision, document } = await now();
  const saved = await owner.ask('PUT', path('draft'), { revision, document: change(document) });
  expect(saved.statusCode, saved.body).toBe(200);
  const published = await owner.ask('POST', path('publish'), { revision: saved.json<Campaign>().revision });
  expect(published.statusCode, published.body).toBe(200);
}
const later = (document: CampaignDocument): CampaignDocument => ({
  ...document,
  rule: {
    ...document.rule,
    moment: { ...document.rule.moment, triggers: [{ kind: 'time', seconds: 25 }] },
  },
});
const divided = (document: CampaignDocument): CampaignDocument => ({
  ...document,
  variants: evenShares([variantOf('b', later(document), document.rule.moment)]),
});
/** A visitor who was shown a variant so long ago, and converted so many hours after, if at all. */
async function visitor(
  variant: string | null,
  agoHours: number,
  convertedAfter?: number,
  id = randomVisitor(),
): Promise<string> {
  const put = (kind: string, hours: number) =>
    server.db.query(
      `INSERT INTO event (id, at, site_id, kind, visitor, session, page, device, campaign_id, version, variant)
       VALUES (gen_random_uuid(), now() - $1 * interval '1 hour', $2, $3, $4, gen_random_uuid(), '/', 'desktop', $5, 1, $6)`,
      [hours, owner.siteId, kind, id, campaign.id, variant],
    );
  await server.db.query(`UPDATE counted_until SET since = '-infinity'`);
  await put('shown', agoHours);
  if (convertedAfter !== undefined) await put('converted', agoHours - convertedAfter);
  return id;
}
const backdate = (hours: number) =>
  server.db.query(
    `UPDATE experiment SET started_at = now() - $2 * interval '1 hour' WHERE campaign_id = $1`,
    [campaign.id, hours],
  );

it('begins with the publish that divides visitors, and goes on while what is tried stays the same', async () => {
  await launch((document) => document);
  expect(await experiments()).toEqual({ running: null, ended: [] });
  await launch(divided);
  const { running } = await experiments();
  expect(running).toMatchObject({ entered: 0, days: [], endedAt: null, smallest: 0.02, windowHours: 24 });
  expect(running?.visitorsASide).toBeGreaterThan(1000);
  await launch((document) => ({
    ...document,
    rule: { ...document.rule, limits: { ...document.rule.limits, priority: 3 } },
  }));
  expect((await experiments()).running?.id).toBe(running?.id);
  // What is tried differs: that is another one.
  await launch((document) => ({
    ...document,
    variants: document.variants.map((variant) => ({ ...variant, weight: 20 })),
  }));
  const found = await experiments();
  expect(found.running?.id).not.toBe(running?.id);
  expect(found.ended).toMatchObject([{ id: running?.id, ended: 'changed' }]);
});

describe('whoever enters', () => {
  it('counts once, when a day after their first showing is over; what they do later is nobody’s', async () => {
    await launch(divided);
    await backdate(200);
    // Before it began: not in it.
    await visitor('a', 300, 1);
    await visitor('a', 100, 1);
    await visitor('a', 100);
    await visitor('b', 100, 2);
    // Too late, and too young to count.
    await visitor('b', 100, 30);
    await visitor('b', 3, 1);
    const { running } = await experiments();
    expect(running?.entered).toBe(5);
    expect(running?.days.at(-1)?.arms).toEqual([
      { id: 'a', weight: 50, visitors: 2, converters: 1 },
      { id: 'b', weight: 50, visitors: 2, converters: 1 },
    ]);
  });

  it('says who was left out: shown it without having been divided, and never counted after', async () => {
    await launch(divided);
    await backdate(200);
    const late = await visitor(null, 120);
    await visitor('a', 100, 1);
    await visitor(null, 90);
    // Divided later, but they know the present one by then.
    await visitor('b', 100, undefined, late);
    const { running } = await experiments();
    expect(running).toMatchObject({ entered: 1, undivided: 2 });
    expect(running?.days.at(-1)?.arms.map(({ visitors }) => visitors)).toEqual([1, 0]);
  });

  it('is no robot: how often one was shown it is said, and counts nowhere', async () => {
    await launch(divided);
    const other = await createCampaign(await createWorkspace(server));
    const ROBOT = 'ExampleBot/1.0 (+https://bot.example)';
    const shown = { kind: 'shown', campaign: campaign.id, version: 1 };
    for (const event of [shown, shown, { kind: 'pageview' }, { ...shown, campaign: other.id }])
      expect(
        (await sendEvents(server, owner, [event], { headers: { 'user-agent': ROBOT } })).statusCode,
      ).toBe(204);
    await server.services.intake.flushHeard();
    expect((await experiments()).running).toMatchObject({ entered: 0, undivided: 0, robots: 2 });
    // What it said of another site's campaign is nothing to anybody.
    expect(await server.db.query('SELECT site_id FROM robot_day WHERE campaign_id = $1', [other.id])).toEqual(
      [],
    );
  });

  it('is told of day by day, days without anybody too', async () => {
    await launch(divided);
    await backdate(200);
    await visitor('a', 24 * 6);
    await visitor('b', 24 * 2);
    const { running } = await experiments();
    expect(running?.days.map(({ arms }) => arms.map(({ visitors }) => visitors))).toEqual([
      [1, 0],
      [1, 0],
      [1, 0],
      [1, 0],
      [1, 1],
    ]);
  });
});

describe('ending it', () => {
  const end = (adopt: string | null) => owner.ask('POST', path('experiments/end'), { adopt });

  it('with a variant gives its message and moment to everybody, at once; what was found stays as it was', async () => {
    await launch(divided);
    await backdate(200);
    await visitor('b', 100, 1);
    const ended = await end('b');
    expect(ended.statusCode, ended.body).toBe(200);
    const { document, hasUnpublishedChanges } = await now();
    expect(document.variants).toEqual([]);
    expect(document.rule.moment.triggers).toEqual([{ kind: 'time', seconds: 25 }]);
    expect(hasUnpublishedChanges).toBe(false);
    const found = await experiments();
    expect(found.running).toBeNull();
    expect(found.ended).toMatchObject([{ ended: 'adopted', adopted: 'b', entered: 1 }]);
    await visitor('b', 90);
    expect((await experiments()).ended[0]?.entered).toBe(1);
    // Undone: what came back is the draft as it was, and it is divided again.
    await launch(() => ended.json().before);
    expect((await experiments()).running).toMatchObject({ entered: 0 });
  });

  it('without one keeps the present one', async () => {
    await launch(divided);
    const before = (await now()).document.rule.moment;
    await end(null);
    expect((await now()).document).toMatchObject({ variants: [], rule: { moment: before } });
    expect((await experiments()).ended).toMatchObject([{ ended: 'stopped', adopted: null }]);
  });

  it('publishes no edit that nobody has looked at', async () => {
    await launch(divided);
    const { revision, document } = await now();
    await owner.ask('PUT', path('draft'), { revision, document: later(document) });
    expect((await end('b')).json()).toMatchObject({ status: 409, code: 'edits-open' });
    expect((await experiments()).running).not.toBeNull();
  });

  it('does not run a campaign that rests', async () => {
    await launch(divided);
    await owner.ask('POST', path('rest'));
    expect((await end(null)).json()).toMatchObject({ status: 409, code: 'at-rest' });
    expect((await now()).state).toBe('resting');
  });

  it('takes one that runs, and a variant that was tried', async () => {
    expect((await end(null)).statusCode).toBe(404);
    await launch(divided);
    expect((await end('c')).json()).toMatchObject({ code: 'no-variant' });
  });
});

it('says before it begins how many visitors and days it takes', async () => {
  await launch((document) => document);
  const ask = async (smallest: number) =>
    (await owner.ask('POST', path('experiments/forecast'), { smallest, isPlanned: true, arms: 2 })).json();
  expect(await ask(1)).toEqual({ rate: null, visitorsADay: 0, visitorsASide: 8158, days: null });
  for (let n = 0; n < 20; n++) await visitor('a', 30 + n, n < 2 ? 1 : undefined);
  const found = await ask(2);
  // Ten per cent against twelve; 20 visitors on two or three days.
  expect(found).toMatchObject({ rate: 0.1, visitorsASide: 3841 });
  expect(found.days).toBe(Math.ceil((2 * 3841) / found.visitorsADay));
});

it('a viewer reads it and ends nothing; another workspace sees nothing', async () => {
  await launch(divided);
  const viewer = await addColleague(server, owner, 'viewer');
  const other = await createWorkspace(server);
  expect((await viewer.ask('GET', path('experiments'))).statusCode).toBe(200);
  expect((await viewer.ask('POST', path('experiments/end'), { adopt: null })).statusCode).toBe(403);
  expect((await other.ask('GET', path('experiments'))).statusCode).toBe(404);
  expect((await other.ask('POST', path('experiments/end'), { adopt: null })).statusCode).toBe(404);
  expect(
    (await other.ask('POST', path('experiments/forecast'), { smallest: 1, isPlanned: true, arms: 2 }))
      .statusCode,
  ).toBe(404);
});

it('a visitor’s manifest says when each variant opens', async () => {
  await launch(divided);
  const manifest = (await server.edge.inject({ url: `/tag/${owner.siteKey}/manifest.json` })).json();
  const [{ experiment, moment }] = manifest.campaigns;
  expect(manifest.parts).toContain('rare');
  expect(moment.triggers).not.toEqual([{ kind: 'time', seconds: 25 }]);
  expect(experiment.variants.map((one: { moment?: object }) => one.moment !== undefined)).toEqual([
    false,
    true,
  ]);
});

describe('for a goal of the site', () => {
  const makeGoal = async (days = 3) => {
    const goals = await owner.ask('POST', `/sites/${owner.siteId}/goals`, {
      name: 'A tour is booked',
      deed: { kind: 'page', pages: [{ kind: 'exact', address: '/booked' }] },
      days,
    });
    const [goal] = goals.json<{ id: string }[]>();
    return goal?.id ?? '';
  };
  const aimed = (goal: string) => (document: CampaignDocument) => ({
    ...divided(document),
    trial: { smallest: 2, isPlanned: true, goal },
  });
  /** Somebody who met a variant so long ago and reached the goal so many hours after, or before. */
  async function reaches(
    goal: string,
    variant: string,
    agoHours: number,
    afterHours?: number,
  ): Promise<void> {
    const id = await visitor(variant, agoHours);
    if (afterHours !== undefined)
      await server.db.query(
        `INSERT INTO goal_reached (goal_id, visitor, at) VALUES ($1, $2, now() - $3 * interval '1 hour')`,
        [goal, id, agoHours - afterHours],
      );
  }

  it('counts who reached it after they entered and within its days, and nobody else', async () => {
    const goal = await makeGoal();
    await launch(aimed(goal));
    await server.db.query(`UPDATE experiment SET started_at = now() - interval '10 days'`);
    await reaches(goal, 'a', 100);
    await reaches(goal, 'a', 100, 71);
    await reaches(goal, 'a', 100, 73);
    await reaches(goal, 'b', 100, -2);
    await reaches(goal, 'b', 100, 1);
    await reaches(goal, 'b', 100, 2);
    // Their days are not over.
    await reaches(goal, 'b', 70, 1);
    const { running } = await experiments();
    expect(running).toMatchObject({
      goal: { id: goal, name: 'A tour is booked', days: 3 },
      windowHours: 72,
      entered: 7,
    });
    expect(running?.days.at(-1)?.arms).toMatchObject([
      { id: 'a', visitors: 3, converters: 1 },
      { id: 'b', visitors: 3, converters: 2 },
    ]);
  });

  it('begins anew with another goal, keeps its goal from being removed, and is refused one of another site', async () => {
    const goal = await makeGoal();
    await launch(aimed(goal));
    const first = (await experiments()).running?.id;
    expect((await owner.ask('DELETE', `/sites/${owner.siteId}/goals/${goal}`)).json()).toMatchObject({
      status: 409,
      detail: expect.stringContaining(campaign.name),
    });
    await launch((document) => ({ ...document, trial: { smallest: 2, isPlanned: true } }));
    const after = await experiments();
    expect(after.running?.id).not.toBe(first);
    expect([after.running?.goal, after.ended[0]?.goal?.id]).toEqual([null, goal]);
    expect((await owner.ask('DELETE', `/sites/${owner.siteId}/goals/${goal}`)).statusCode).toBe(204);

    const { revision, document } = await now();
    const draft = await owner.ask('PUT', path('draft'), { revision, document: aimed(goal)(document) });
    expect([draft.statusCode, draft.json().fields[0].path]).toEqual([422, 'document.trial.goal']);
  });

  it('is planned by how many reached it, not by how many answered', async () => {
    const goal = await makeGoal();
    for (let n = 0; n < 10; n++) await reaches(goal, 'a', 200, n < 4 ? 5 : undefined);
    const forecast = async (trial: object) =>
      (
        await owner.ask('POST', path('experiments/forecast'), {
          smallest: 2,
          isPlanned: true,
          arms: 2,
          ...trial,
        })
      ).json();
    expect(await forecast({ goal })).toMatchObject({ rate: 0.4 });
    expect(await forecast({})).toMatchObject({ rate: 0 });
  });
});
