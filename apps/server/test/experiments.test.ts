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
async function visitor(variant: string, agoHours: number, convertedAfter?: number): Promise<void> {
  const id = randomVisitor();
  const put = (kind: string, hours: number) =>
    server.db.query(
      `INSERT INTO event (id, at, site_id, kind, visitor, session, page, device, campaign_id, version, variant)
       VALUES (gen_random_uuid(), now() - $1 * interval '1 hour', $2, $3, $4, gen_random_uuid(), '/', 'desktop', $5, 1, $6)`,
      [hours, owner.siteId, kind, id, campaign.id, variant === 'a' ? null : variant],
    );
  await server.db.query(`UPDATE counted_until SET since = '-infinity'`);
  await put('shown', agoHours);
  if (convertedAfter !== undefined) await put('converted', agoHours - convertedAfter);
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
