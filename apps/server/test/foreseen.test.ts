import { randomUUID } from 'node:crypto';
import type { Campaign, Foreseen } from '@velarium/contract';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { createCampaign, createTestServer, createWorkspace, type Member, type TestServer } from './server.ts';

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
});

const forecast = {
  visitors: 900,
  byDay: [10, 18, 24, 28, 30].map((value) => ({ value, low: value - 3, high: value + 3 })),
};
const publish = async (more: object = { forecast }) =>
  owner.ask('POST', `/campaigns/${campaign.id}/publish`, {
    revision: (await owner.ask('GET', `/campaigns/${campaign.id}`)).json<Campaign>().revision,
    ...more,
  });
const foreseen = async (by = owner, siteId = owner.siteId) =>
  (await by.ask('GET', `/sites/${siteId}/foreseen`)).json<Foreseen[]>();
/** As if the first version had been published so many days ago. */
const age = async (days: number) => {
  for (const [table, column] of [
    ['campaign_version', 'published_at'],
    ['campaign_move', 'at'],
  ])
    await server.db.query(
      `UPDATE ${table} SET ${column} = ${column} - $2 * interval '1 day' WHERE campaign_id = $1 AND version = 1`,
      [campaign.id, days],
    );
};
/** A visitor who met the campaign so many days after its launch; on each of them. */
const meets = async (visitor: string, ...daysAfter: number[]) => {
  for (const days of daysAfter)
    await server.db.query(
      `INSERT INTO visitor_day (campaign_id, kind, visitor, day, first_at, events, variant)
       SELECT $1, 'shown', $2, (published_at + $3 * interval '1 day')::date, published_at + $3 * interval '1 day', 1, 'a'
         FROM campaign_version WHERE campaign_id = $1 AND version = 1`,
      [campaign.id, visitor, days],
    );
};

describe('what was foreseen of a launch', () => {
  it('is kept with its version, and held against the visitors who met it by the end of each day', async () => {
    expect((await publish()).statusCode).toBe(200);
    expect(await foreseen()).toMatchObject([
      { campaign: campaign.id, name: campaign.name, version: 1, forecast, came: [], isOver: false },
    ]);
    await age(3.5);
    const [once, often, before] = [randomUUID(), randomUUID(), randomUUID()];
    await meets(once, 0.2);
    await meets(often, 1.2, 2.5);
    // Before it was launched, and in the day that is not over yet.
    await meets(before, -2);
    await meets(randomUUID(), 3.2);
    expect(await foreseen()).toMatchObject([{ came: [1, 2, 2], isOver: false }]);
  });

  it('is over with the next version, with a rest, and with the last day that was foreseen', async () => {
    await publish();
    await age(3.5);
    await publish({});
    expect(await foreseen()).toMatchObject([{ version: 1, came: [0, 0, 0], isOver: true }]);
    await age(6);
    expect((await foreseen())[0]).toMatchObject({ isOver: true, came: [0, 0, 0, 0, 0] });
  });

  it('goes with a launch that is planned', async () => {
    const at = new Date(Date.now() + 3_600_000).toISOString();
    const { revision } = campaign;
    await owner.ask('PUT', `/campaigns/${campaign.id}/plan`, { revision, at, note: '', forecast });
    const [{ id: planId }] = await server.db.query('SELECT id FROM planned_launch WHERE campaign_id = $1', [
      campaign.id,
    ]);
    await server.services.versions.launchPlanned({ campaignId: campaign.id, planId });
    expect(await foreseen()).toMatchObject([{ version: 1, forecast }]);
  });

  it('is nothing where nothing was known, is refused where it is none, and is nobody else’s', async () => {
    await publish({});
    expect(await foreseen()).toEqual([]);
    for (const wrong of [
      {},
      { visitors: 3, byDay: [] },
      { visitors: 3, byDay: [{ value: -1, low: 0, high: 0 }] },
    ])
      expect((await publish({ forecast: wrong })).statusCode).toBe(422);
    const stranger = await createWorkspace(server);
    expect((await stranger.ask('GET', `/sites/${owner.siteId}/foreseen`)).statusCode).toBe(404);
  });
});
