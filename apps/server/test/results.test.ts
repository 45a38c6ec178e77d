import type { Campaign, CampaignParts, CampaignResults, SiteResults } from '@velarium/contract';
import { parse } from 'csv-parse/sync';
import fc from 'fast-check';
import { afterAll, beforeAll, beforeEach, describe, expect, it, test } from 'vitest';
import { ensurePartitions, type StoredEvent, storeEvents } from '../src/intake/index.ts';
import { countEvents } from '../src/results/index.ts';
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
import { storedEvent } from './stored-event.ts';

const DAY_MS = 86_400_000;

let server: TestServer;
let owner: Member;
let campaign: Campaign;
let zone: string;
beforeAll(async () => {
  server = await createTestServer();
  await server.db.transaction((manager) => ensurePartitions(manager, new Date(), -50, 1));
});
afterAll(() => server.close());
beforeEach(async () => {
  owner = await createWorkspace(server);
  campaign = await createCampaign(owner);
  await owner.publish(campaign.id);
  [{ zone }] = await server.db.query('SELECT time_zone AS zone FROM site WHERE id = $1', [owner.siteId]);
});

const event = (kind: string, agoMs: number, more: Partial<StoredEvent> = {}) =>
  storedEvent({ siteId: owner.siteId, campaign: campaign.id }, kind, agoMs, more);
const store = (...events: StoredEvent[]) => storeEvents(server.db.manager, events);
const ofSite = async (query = '') =>
  (await owner.ask('GET', `/sites/${owner.siteId}/results?${query}`)).json<SiteResults>();
const ofCampaign = async (query = '') =>
  (await owner.ask('GET', `/campaigns/${campaign.id}/results?${query}`)).json<CampaignResults>();
const partsOf = async (query = '') =>
  (await owner.ask('GET', `/campaigns/${campaign.id}/results/parts?${query}`)).json<CampaignParts>();

const DEVICES = ['desktop', 'mobile', 'tablet'];
/** The visitors of days by how they were at their first event of the days, and how many met so many messages on a day. */
const rawParts = async (from: string, until: string) => {
  const inDays = 'campaign_id = $1 AND (at AT TIME ZONE $4)::date BETWEEN $2 AND $3';
  const asked = [campaign.id, from, until, zone];
  const parts = await server.db.query(
    `SELECT device AS key, count(*)::integer AS visitors,
            (count(*) FILTER (WHERE visitor IN (SELECT visitor FROM event WHERE kind = 'converted' AND ${inDays})))::integer
              AS converters
       FROM (SELECT DISTINCT ON (visitor) visitor, device FROM event WHERE kind IN ('shown', 'converted') AND ${inDays}
              ORDER BY visitor, at, id) AS one
      GROUP BY 1 ORDER BY visitors DESC, key`,
    asked,
  );
  const met: { messages: number; visitors: number }[] = await server.db.query(
    `SELECT messages, count(*)::integer AS visitors
       FROM (SELECT least(count(*), 5)::integer AS messages FROM event WHERE kind = 'shown' AND ${inDays}
              GROUP BY visitor, (at AT TIME ZONE $4)::date) AS one GROUP BY messages`,
    asked,
  );
  const [more] = await server.db.query(
    `SELECT count(*) FILTER (WHERE kind = 'shown' AND seconds IS NOT NULL)::integer AS opened,
            count(*) FILTER (WHERE kind = 'closed' AND closed_by = 'button')::integer AS closed,
            count(DISTINCT visitor) FILTER (WHERE kind = 'clicked' AND part = 'go')::integer AS clickers
       FROM event WHERE ${inDays}`,
    asked,
  );
  return {
    parts,
    met: [1, 2, 3, 4, 5].map((n) => met.find(({ messages }) => messages === n)?.visitors ?? 0),
    ...more,
  };
};

/** What the raw events say of days, counted one by one. */
const raw = async (from: string, until: string) => {
  const [row] = await server.db.query(
    `SELECT count(*) FILTER (WHERE kind = 'shown')::integer AS showings,
            count(*) FILTER (WHERE kind = 'clicked')::integer AS clicks,
            count(*) FILTER (WHERE kind = 'closed')::integer AS closes,
            count(*) FILTER (WHERE kind = 'closed' AND seconds < 2)::integer AS "closedSoon",
            count(*) FILTER (WHERE kind = 'converted')::integer AS conversions,
            count(DISTINCT visitor) FILTER (WHERE kind IN ('shown', 'converted'))::integer AS visitors,
            count(DISTINCT visitor) FILTER (WHERE kind = 'viewable')::integer AS viewers,
            count(DISTINCT visitor) FILTER (WHERE kind = 'clicked')::integer AS clickers,
            count(DISTINCT visitor) FILTER (WHERE kind = 'answering')::integer AS writers,
            count(DISTINCT visitor) FILTER (WHERE kind = 'converted')::integer AS converters,
            count(DISTINCT visitor) FILTER (WHERE kind = 'held')::integer AS withheld
       FROM event WHERE campaign_id = $1 AND (at AT TIME ZONE $4)::date BETWEEN $2 AND $3`,
    [campaign.id, from, until, zone],
  );
  return row;
};

it('equals the raw events of any days, unique visitors included, in whatever order and however late they come', async () => {
  const visitors = Array.from({ length: 5 }, randomVisitor);
  const told = fc.array(
    fc.record({
      visitor: fc.constantFrom(...visitors),
      kind: fc.constantFrom('shown', 'viewable', 'clicked', 'answering', 'closed', 'converted', 'held'),
      day: fc.integer({ min: 0, max: 9 }),
      hour: fc.integer({ min: 0, max: 23 }),
      minute: fc.integer({ min: 0, max: 59 }),
      seconds: fc.integer({ min: 0, max: 3 }),
      device: fc.constantFrom(...DEVICES),
    }),
    { minLength: 1, maxLength: 25 },
  );
  const batches = fc.array(told, { minLength: 1, maxLength: 4 });
  await fc.assert(
    fc.asyncProperty(
      batches,
      fc.tuple(fc.integer({ min: 0, max: 9 }), fc.integer({ min: 0, max: 9 })),
      async (sent, [a, b]) => {
        for (const batch of sent) {
          await store(
            ...batch.map(({ visitor, kind, day, hour, minute, seconds, device }, n) =>
              // No two at one instant: which of them came first is nobody's to say.
              event(kind, day * DAY_MS + hour * 3_600_000 + minute * 60_000 + n, {
                visitor,
                device,
                stay: kind === 'closed' || kind === 'shown' ? [seconds, 0] : null,
                closedBy: kind === 'closed' ? 'button' : null,
                part: kind === 'clicked' ? 'go' : null,
              }),
            ),
          );
          await countEvents(server.db);
        }
        const day = (ago: number) => new Date(Date.now() - ago * DAY_MS).toISOString().slice(0, 10);
        const [from, until] = [day(Math.max(a, b)), day(Math.min(a, b))];
        const found = await ofSite(`period=own&from=${from}&until=${until}&against=none`);
        expect(found.campaigns[0]?.counts).toEqual(await raw(from, until));
        const one = await ofCampaign(`period=own&from=${from}&until=${until}&against=none`);
        const told = await partsOf(`period=own&from=${from}&until=${until}&against=none`);
        expect({
          parts: told.parts,
          met: found.met,
          opened: one.openedSeconds.reduce((sum, n) => sum + n, 0),
          closed: one.closes.find(({ way }) => way === 'button')?.events ?? 0,
          clickers: told.onMessage[0]?.parts[0]?.clickers ?? 0,
        }).toEqual(await rawParts(from, until));
      },
    ),
    { numRuns: 15 },
  );
});

it('counts each event once, also while transactions are under way that began after one another', async () => {
  await store(event('shown', 0));
  await countEvents(server.db);
  await store(event('shown', 0));
  const open = await Promise.all(
    [1, 2].map(async () => {
      const runner = server.db.createQueryRunner();
      await runner.startTransaction();
      return runner;
    }),
  );
  // One after the other, so that the later one lies beyond what is thought to begin next.
  for (const runner of open) await runner.query('SELECT pg_current_xact_id()');
  await countEvents(server.db, 0);
  for (const runner of open) {
    await runner.rollbackTransaction();
    await runner.release();
  }
  expect((await ofSite('period=7')).campaigns[0]?.counts.showings).toBe(2);
});

it('a visitor seen last month and again this week is a visitor of this week, and of both', async () => {
  const visitor = randomVisitor();
  await store(event('shown', 20 * DAY_MS, { visitor }), event('shown', 0, { visitor }));
  const visitors = async (period: string) => (await ofSite(`period=${period}`)).campaigns[0]?.counts.visitors;
  expect([await visitors('7'), await visitors('28')]).toEqual([1, 1]);
  // News from between the two splits the link.
  await store(event('shown', 3 * DAY_MS, { visitor }), event('converted', 10 * DAY_MS, { visitor }));
  expect([await visitors('7'), await visitors('28')]).toEqual([1, 1]);
  expect((await ofSite('period=7')).campaigns[0]?.before).toMatchObject({ visitors: 1, converters: 1 });
});

it('of a day is shown by its hours, of more by days, with what was done with campaigns marked on them', async () => {
  await store(event('shown', 0), event('converted', 0));
  const today = await ofSite('period=today');
  expect(today.points).toMatchObject([{ at: expect.stringMatching(/T\d\d$/), showings: 1, conversions: 1 }]);
  await owner.ask('POST', `/campaigns/${campaign.id}/rest`);
  await owner.ask('POST', `/campaigns/${campaign.id}/run`);
  const { marks, points } = await ofSite('period=7');
  expect(points).toMatchObject([{ at: expect.stringMatching(/^\d{4}-\d\d-\d\d$/) }]);
  expect(marks.map(({ what, version }) => [what, version])).toEqual([
    ['published', 1],
    ['rested', 1],
    ['resumed', 1],
  ]);
});

it('tells how many messages a visitor met on one day', async () => {
  const [one, many] = [randomVisitor(), randomVisitor()];
  await store(
    event('shown', 0, { visitor: one }),
    event('shown', DAY_MS, { visitor: one }),
    ...Array.from({ length: 7 }, () => event('shown', 0, { visitor: many })),
  );
  expect((await ofSite('period=7')).met).toEqual([2, 0, 0, 0, 1]);
});

describe('one campaign', () => {
  it('tells what was clicked and written on its message, and where those gave up who sent nothing', async () => {
    const [sender, giver, clicker, other] = Array.from({ length: 4 }, randomVisitor) as [
      string,
      string,
      string,
      string,
    ];
    const did = (visitor: string, kind: 'clicked' | 'answering', part: string, agoMs = 1000) =>
      event(kind, agoMs, { visitor, part });
    await sendEvents(
      server,
      owner,
      [{ kind: 'answering', campaign: campaign.id, version: 1, part: 'first-name' }],
      { visitor: sender },
    );
    await store(
      did(sender, 'answering', 'mail'),
      event('converted', 0, { visitor: sender }),
      did(giver, 'answering', 'first-name', 9000),
      did(giver, 'answering', 'mail', 5000),
      // Twice is one visitor, and a part of one name on either side counts on its own side.
      did(clicker, 'clicked', 'mail'),
      did(clicker, 'clicked', 'mail', 500),
      // Long before these days, and of a time when parts were not told.
      did(randomVisitor(), 'clicked', 'mail', 40 * DAY_MS),
      event('clicked', 0),
      // Each variant has its own message, and those who saw it.
      event('viewable', 0, { visitor: sender }),
      event('viewable', 0, { visitor: other, variant: 'b' }),
      event('clicked', 0, { visitor: other, variant: 'b', part: 'mail' }),
    );
    const { onMessage } = await partsOf('period=7');
    const { counts } = await ofCampaign('period=7');
    expect(onMessage).toEqual([
      {
        variant: 'a',
        viewers: 1,
        parts: [
          { part: 'first-name', clickers: 0, writers: 2, gaveUp: 0 },
          { part: 'mail', clickers: 1, writers: 2, gaveUp: 1 },
        ],
      },
      { variant: 'b', viewers: 1, parts: [{ part: 'mail', clickers: 1, writers: 0, gaveUp: 0 }] },
    ]);
    expect(counts).toMatchObject({ writers: 2, clickers: 3, converters: 1 });
  });
  it('parts its visitors as they were when they first met it, each with who converted', async () => {
    const [a, b] = [randomVisitor(), randomVisitor()];
    await sendEvents(
      server,
      owner,
      [
        { kind: 'pageview', begun: [1, 'search.example'] },
        {
          kind: 'shown',
          campaign: campaign.id,
          version: 1,
          stay: [14, 60],
          cause: 'time',
          language: 'cy',
        },
      ],
      { visitor: a },
    );
    await store(
      event('shown', 60_000, { visitor: b, device: 'mobile', stay: [4, 20], cause: 'scroll' }),
      event('shown', 0, { visitor: b, device: 'desktop' }),
      event('converted', 0, { visitor: b, device: 'desktop' }),
    );
    const parts = async (by: string) => (await partsOf(`by=${by}`)).parts;
    expect(await parts('device')).toEqual([
      { key: 'desktop', visitors: 1, converters: 0 },
      { key: 'mobile', visitors: 1, converters: 1 },
    ]);
    expect(await parts('source')).toEqual([
      { key: 'search.example', visitors: 1, converters: 0 },
      { key: null, visitors: 1, converters: 1 },
    ]);
    expect((await parts('arrival')).find(({ key }) => key === 'new')?.visitors).toBe(1);
    expect(await parts('written')).toEqual([
      { key: 'cy', visitors: 1, converters: 0 },
      { key: null, visitors: 1, converters: 1 },
    ]);
    const [page] = await parts('page');
    await owner.ask('POST', `/sites/${owner.siteId}/groups`, {
      name: 'Met here',
      rules: [{ kind: 'exact', address: page?.key }],
    });
    expect(await parts('group')).toEqual([{ ...page, key: 'Met here' }]);
    for (const by of ['page', 'country', 'language', 'cause', 'hour', 'weekday', 'version', 'variant'])
      expect(
        (await parts(by)).reduce((sum, { visitors }) => sum + visitors, 0),
        by,
      ).toBe(2);
    const { openedSeconds, openedDepth } = await ofCampaign();
    const { versions } = await partsOf();
    expect(openedSeconds.reduce((sum, n) => sum + n, 0)).toBe(2);
    expect(openedDepth.reduce((sum, n) => sum + n, 0)).toBe(2);
    expect(versions).toMatchObject([{ version: 1, visitors: 2, converters: 1 }]);
  });

  it('tells how it went away and how soon', async () => {
    await store(
      event('closed', 0, { closedBy: 'button', stay: [0, 10] }),
      event('closed', 0, { closedBy: 'button', stay: [12, 10] }),
      event('closed', 0, { closedBy: 'escape' }),
    );
    const { closes, counts } = await ofCampaign();
    expect(closes.map(({ way, events }) => [way, events])).toEqual([
      ['button', 2],
      ['escape', 1],
    ]);
    expect(counts).toMatchObject({ closes: 3, closedSoon: 1 });
  });

  it('gives its days for comparing, those without an event too', async () => {
    await store(event('converted', 2 * DAY_MS), event('converted', 2 * DAY_MS));
    const days = (await owner.ask('GET', `/campaigns/${campaign.id}/results/days?period=7`)).json();
    expect(days).toHaveLength(7);
    expect(days.map(({ count }: { count: number }) => count)).toEqual([0, 0, 0, 0, 2, 0, 0]);
  });
});

test.each([
  ['period=own', 'Choose the first and the last day of the period.'],
  ['period=own&from=2026-03-02&until=2026-03-01', 'lies before the first'],
  ['against=own', 'days to compare with'],
])('%s is refused in words', async (query, words) => {
  const refused = await owner.ask('GET', `/sites/${owner.siteId}/results?${query}`);
  expect(refused.statusCode).toBe(422);
  expect(refused.json().detail).toContain(words);
});

it('is saved as a table that another reader reads back, with names that are no formulas', async () => {
  await owner.ask('PATCH', `/campaigns/${campaign.id}`, { name: '=cmd()' });
  await store(event('shown', 0), event('converted', 0));
  const file = await owner.ask('GET', `/sites/${owner.siteId}/results.csv?period=7`);
  const [row] = parse(file.body, { columns: true, bom: true }) as Record<string, string>[];
  expect(row).toMatchObject({
    campaign: "'=cmd()",
    visitors: '2',
    'visitors who converted': '1',
    rate: '0.5',
  });
});

it('is for everybody of the workspace and nobody else', async () => {
  const viewer = await addColleague(server, owner, 'viewer');
  const other = await createWorkspace(server);
  for (const path of [
    `/sites/${owner.siteId}/results`,
    `/sites/${owner.siteId}/results.csv`,
    `/campaigns/${campaign.id}/results`,
    `/campaigns/${campaign.id}/results/parts`,
    `/campaigns/${campaign.id}/results/days`,
  ]) {
    expect((await viewer.ask('GET', path)).statusCode, path).toBe(200);
    expect((await other.ask('GET', path)).statusCode, path).toBe(404);
  }
});
