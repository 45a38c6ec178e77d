import type { Audience, AudienceShare, Condition, SeenValues, Traffic } from '@velarium/contract';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { languagesOf } from '../src/intake/index.ts';
import {
  createCampaign,
  createTestServer,
  createWorkspace,
  eventId,
  type Member,
  randomVisitor,
  type Sending,
  sendEvents,
  type TestServer,
} from './server.ts';

let server: TestServer;
let owner: Member;
let campaign: string;
beforeAll(async () => {
  server = await createTestServer();
});
beforeEach(async () => {
  owner = await createWorkspace(server);
  campaign = (await createCampaign(owner)).id;
});
afterAll(() => server.close());

const audienceOf = (condition: Condition): Audience => ({
  match: 'all',
  groups: [{ not: false, match: 'all', items: [{ not: false, condition }] }],
});
const share = async (condition: Condition): Promise<AudienceShare> =>
  (
    await owner.ask('POST', `/sites/${owner.siteId}/audience`, { audience: audienceOf(condition), campaign })
  ).json();
const seen = async (): Promise<SeenValues> => (await owner.ask('GET', `/sites/${owner.siteId}/seen`)).json();
const record = async (recordedFacts: string[] | null) => {
  const { settings } = (await owner.ask('GET', `/sites/${owner.siteId}`)).json();
  await owner.ask('PUT', `/sites/${owner.siteId}/settings`, { ...settings, recordedFacts });
  await server.manifestOf(owner.siteKey);
};
const arrive = (event: object = {}, sending: Sending = {}) =>
  sendEvents(server, owner, [{ kind: 'pageview', begun: [1, ''], ...event }], sending);

describe('how many visitors an audience would hold', () => {
  it('counts visitors by what their visits told, each once', async () => {
    const [visitor, session] = [randomVisitor(), eventId()];
    await arrive({ begun: [2, 'search.example'] }, { visitor, session });
    await sendEvents(server, owner, [{ kind: 'pageview' }, { kind: 'pageview', page: '/' }], {
      visitor,
      session,
    });
    await arrive({}, { visitor });
    await arrive(
      { page: '/tours?from=letter' },
      { headers: { 'x-country': 'no', 'accept-language': 'nb, en;q=0.5' } },
    );

    expect(await share({ kind: 'visitor', is: 'returning' })).toMatchObject({
      visitors: 2,
      inside: 1,
      of: 2,
      isSample: false,
      unheard: [],
    });
    expect((await share({ kind: 'views', comparison: 'exactly', count: 3 })).inside).toBe(1);
    expect((await share({ kind: 'referrer', host: 'search.example' })).inside).toBe(1);
    expect((await share({ kind: 'arrival', parameter: 'from', value: 'letter' })).inside).toBe(1);
    expect((await share({ kind: 'landing', path: '/tours' })).inside).toBe(2);
    expect((await share({ kind: 'country', code: 'no' })).inside).toBe(1);
    expect((await share({ kind: 'country', code: 'unknown' })).inside).toBe(1);
    expect((await share({ kind: 'language', code: 'nb' })).inside).toBe(1);
    expect((await share({ kind: 'browser', is: 'chromium' })).inside).toBe(2);
    expect(await seen()).toMatchObject({
      referrers: [{ value: 'search.example', visitors: 1 }],
      parameters: [{ name: 'from', value: 'letter', visitors: 1 }],
      languages: [
        { value: 'en', visitors: 1 },
        { value: 'nb', visitors: 1 },
      ],
    });
  });

  it('a page view sent twice is seen once', async () => {
    const view = { id: eventId(), kind: 'pageview', begun: [1, ''] };
    const sending = { visitor: randomVisitor(), session: eventId() };
    await sendEvents(server, owner, [view], sending);
    await sendEvents(server, owner, [view], sending);
    expect((await share({ kind: 'views', comparison: 'exactly', count: 1 })).inside).toBe(1);
  });

  it('knows who has seen, closed and converted, from the next visit on', async () => {
    await owner.publish(campaign);
    const visitor = randomVisitor();
    await arrive({}, { visitor, session: eventId(Date.now() - 60_000) });
    await sendEvents(server, owner, [{ kind: 'shown', campaign, version: 1 }], { visitor });
    expect((await share({ kind: 'campaign', id: null, what: 'seen' })).inside).toBe(0);
    await arrive({ begun: [2, ''], id: eventId(Date.now() + 1000) }, { visitor });
    expect((await share({ kind: 'campaign', id: null, what: 'seen' })).inside).toBe(1);
    expect((await share({ kind: 'campaign', id: campaign, what: 'closed' })).inside).toBe(0);
  });

  it('forgets visits a day after nobody can ask for them', async () => {
    await arrive();
    await server.db.query(`UPDATE visit SET started_at = now() - interval '32 days'`);
    expect((await share({ kind: 'visitor', is: 'new' })).of).toBe(0);
    await server.services.intake.tidy();
    expect(await server.db.query('SELECT 1 FROM visit WHERE site_id = $1', [owner.siteId])).toEqual([]);
  });
});

describe('what pages tell of a visitor', () => {
  const told = {
    signedIn: true,
    basket: { items: 2, total: 36.5 },
    attributes: { plan: 'gold', firstName: 'Ida\u0000\ud800' },
  };
  const tell = async () => {
    await arrive();
    return sendEvents(server, owner, [{ kind: 'left', stay: [5, 50], told }]);
  };
  it('is not kept unless the site asks for it', async () => {
    await tell();
    expect((await share({ kind: 'signedIn', is: true })).unheard).toEqual(['signedIn']);
    expect((await seen()).attributes).toEqual([]);
  });
  it('is kept by the names the site asks for, and by no others', async () => {
    await record(['plan']);
    await tell();
    expect((await share({ kind: 'signedIn', is: true })).inside).toBe(1);
    expect((await share({ kind: 'basketTotal', comparison: 'atLeast', amount: 36.5 })).inside).toBe(1);
    expect((await seen()).attributes).toEqual([{ name: 'plan', value: 'gold', visitors: 1 }]);
  });
  it('with what no database can hold is stored without it, and no other visitor’s events are lost', async () => {
    await record(['firstName']);
    const answers = await Promise.all([
      arrive({ page: '/a\u0000b', begun: [1, 'a\ud800.example'] }),
      tell(),
      arrive({ page: `/${'\u8a9e'.repeat(2000)}` }),
      arrive({ page: '/c' }),
    ]);
    expect(answers.map(({ statusCode }) => statusCode)).toEqual([204, 204, 204, 204]);
    expect((await seen()).landings.map(({ value }) => value.slice(0, 10))).toContain('/%E8%AA%9E');
    expect((await seen()).attributes).toEqual([{ name: 'firstName', value: 'Ida', visitors: 1 }]);
    expect((await seen()).referrers).toEqual([{ value: 'a.example', visitors: 1 }]);
  });
});

it.each([
  // RFC 9110, 12.5.4, its own example first.
  ['da, en-gb;q=0.8, en;q=0.7', 'da,en-gb,en'],
  ['en;q=0.2, nb;q=0.9', 'nb,en'],
  ['en, de;q=0', 'en'],
  ['*', ''],
  ['', ''],
  ['<script>, EN-GB', 'en-gb'],
])('languages of %j are %j', (header, languages) => {
  expect(languagesOf(header)).toBe(languages);
});

describe('traffic to be replayed', () => {
  const traffic = async (days = 28): Promise<Traffic> =>
    (await owner.ask('GET', `/sites/${owner.siteId}/traffic?days=${days}`)).json();

  it('is every visitor with their pages in order, how each ended, and how they came; without their names', async () => {
    const [visitor, session, view] = [randomVisitor(), eventId(), eventId()];
    await arrive(
      { id: view, page: '/tours?utm_medium=newsletter', begun: [3, 'letters.example'] },
      { visitor, session, headers: { 'x-country': 'no', 'accept-language': 'nb, en;q=0.5' } },
    );
    await sendEvents(
      server,
      owner,
      [
        { kind: 'left', page: '/tours', view, stay: [42, 80] },
        { kind: 'pageview', page: '/contact' },
      ],
      { visitor, session },
    );
    await arrive({ page: '/' });
    const { visitors, isSample, list } = await traffic();
    expect([visitors, isSample, list.length]).toEqual([2, false, 2]);
    const reader = list.find(({ pages }) => pages.length === 2);
    expect(reader).toMatchObject({ source: 'mail', session: 3, country: 'no', language: 'nb' });
    expect(reader?.pages.map(({ path, seconds, depth }) => [path, seconds, depth])).toEqual([
      ['/tours?utm_medium=newsletter', 42, 80],
      ['/contact', null, null],
    ]);
    expect(JSON.stringify(list)).not.toContain(visitor.slice(0, 8));
  });
  it('is of the days that are asked for, and of no more than there are', async () => {
    await arrive();
    await server.db.query("UPDATE event SET at = at - interval '3 days' WHERE site_id = $1", [owner.siteId]);
    expect([(await traffic(1)).list.length, (await traffic(7)).list.length]).toEqual([0, 1]);
    for (const days of [0, 32, 'many', '7&most=1000000'])
      expect((await owner.ask('GET', `/sites/${owner.siteId}/traffic?days=${days}`)).statusCode).toBe(422);
  });
});
