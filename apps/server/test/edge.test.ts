import { brotliDecompressSync, gunzipSync } from 'node:zlib';
import { collectSchema, submitSchema } from '@velarium/contract';
import { Ajv } from 'ajv';
import addFormats from 'ajv-formats';
import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { z } from 'zod';
import {
  BROWSER,
  createCampaign,
  createTestServer,
  createWorkspace,
  eventId,
  type Member,
  ORIGIN,
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
  owner = await createWorkspace(server);
  campaign = (await createCampaign(owner)).id;
  await owner.publish(campaign);
});
afterAll(() => server.close());

const manifestUrl = () => `/tag/${owner.siteKey}/manifest.json`;
const shown = () => ({
  id: eventId(),
  kind: 'shown',
  session: eventId(),
  page: '/tours',
  device: 'desktop',
  campaign,
  version: 1,
});
const collect = (events: object[], sending: Sending = {}) => sendEvents(server, owner, events, sending);
const showings = async () => (await owner.ask('GET', `/campaigns/${campaign}`)).json().numbers;

describe('what sites load', () => {
  it('the manifest is answered 304 to who has it (RFC 9110, 13.1.2)', async () => {
    const first = await server.edge.inject({ url: manifestUrl() });
    const etag = String(first.headers.etag);
    expect(first.headers['cache-control']).toBe('public, max-age=0, s-maxage=1, must-revalidate');
    for (const known of [etag, `W/${etag}`, `"other", ${etag}`, '*']) {
      const again = await server.edge.inject({ url: manifestUrl(), headers: { 'if-none-match': known } });
      expect([again.statusCode, again.body, again.headers.etag]).toEqual([304, '', etag]);
    }
    expect(
      (await server.edge.inject({ url: manifestUrl(), headers: { 'if-none-match': '"other"' } })).statusCode,
    ).toBe(200);
  });

  it('is compressed as the browser asks', async () => {
    const plain = (await server.edge.inject({ url: manifestUrl() })).body;
    const br = await server.edge.inject({ url: manifestUrl(), headers: { 'accept-encoding': 'gzip, br' } });
    const gzip = await server.edge.inject({ url: manifestUrl(), headers: { 'accept-encoding': 'gzip' } });
    expect(br.headers['content-encoding']).toBe('br');
    expect(brotliDecompressSync(br.rawPayload).toString()).toBe(plain);
    expect(gunzipSync(gzip.rawPayload).toString()).toBe(plain);
  });
  // Source: RFC 9110, 12.5.3.
  it.each([
    ['br;q=1.0, gzip;q=0.8', 'br'],
    ['br;q=0, gzip', 'gzip'],
    ['gzip;q=0.5, br; q=0.000', 'gzip'],
    ['br;q=0.01', 'br'],
    ['gzip;q=0,br;q=0', undefined],
    ['identity', undefined],
    ['brotli', undefined],
  ])('asked with %j in the coding %s', async (accepted, coding) => {
    const { headers } = await server.edge.inject({
      url: manifestUrl(),
      headers: { 'accept-encoding': accepted },
    });
    expect(headers['content-encoding']).toBe(coding);
  });

  it('only the site’s own pages may read it', async () => {
    const own = await server.edge.inject({ url: manifestUrl(), headers: { origin: ORIGIN } });
    const foreign = await server.edge.inject({
      url: manifestUrl(),
      headers: { origin: 'https://elsewhere.example' },
    });
    expect(own.headers['access-control-allow-origin']).toBe(ORIGIN);
    expect(foreign.headers['access-control-allow-origin']).toBeUndefined();
  });

  it('a published change is served at once, also by an edge that had it in memory', async () => {
    const before = (await server.edge.inject({ url: manifestUrl() })).headers.etag;
    await owner.ask('POST', `/campaigns/${campaign}/rest`);
    await expect
      .poll(async () => (await server.edge.inject({ url: manifestUrl() })).headers.etag, {
        timeout: 2000,
        interval: 5,
      })
      .not.toBe(before);
    await owner.ask('POST', `/campaigns/${campaign}/run`);
    await expect
      .poll(async () => (await server.edge.inject({ url: manifestUrl() })).headers.etag, {
        timeout: 2000,
        interval: 5,
      })
      .toBe(before);
  });

  it.each([
    '/tag/aaaaaaaaaaaa.js',
    '/tag/aaaaaaaaaaaa/manifest.json',
    '/tag/../../etc/passwd',
    '/tag/renderer-111111111111.js',
  ])('%s is not there', async (url) => {
    expect((await server.edge.inject({ url })).statusCode).toBe(404);
  });

  it('another site’s message is not served under this site’s key', async () => {
    const other = await createWorkspace(server);
    const theirs = await createCampaign(other, 'corner-invitation');
    await other.publish(theirs.id);
    const [live] = (await server.manifestOf(other.siteKey)).campaigns;
    expect(
      (await server.edge.inject({ url: `/tag/${other.siteKey}/messages/${live?.message}.json` })).statusCode,
    ).toBe(200);
    expect(
      (await server.edge.inject({ url: `/tag/${owner.siteKey}/messages/${live?.message}.json` })).statusCode,
    ).toBe(404);
  });
});

describe('/collect', () => {
  it('answers when the rows are durable and counted', async () => {
    const before = await showings();
    const visitor = randomVisitor();
    const response = await collect([shown(), shown()], { visitor });
    expect([response.statusCode, response.headers['access-control-allow-origin']]).toEqual([204, ORIGIN]);
    expect(await showings()).toEqual({
      ...before,
      showings: before.showings + 2,
      visitors: before.visitors + 1,
    });
  });

  it('an event sent twice counts once, also side by side', async () => {
    const before = await showings();
    const [event, visitor] = [shown(), randomVisitor()];
    await Promise.all(Array.from({ length: 8 }, () => collect([event, event], { visitor })));
    expect(await showings()).toEqual({
      ...before,
      showings: before.showings + 1,
      visitors: before.visitors + 1,
    });
  });

  it('rollups equal the raw events after many calls side by side', async () => {
    const visitors = Array.from({ length: 12 }, randomVisitor);
    await Promise.all(
      Array.from({ length: 150 }, (_, n) =>
        collect([shown(), { ...shown(), kind: 'closed', closedBy: 'button' }], {
          visitor: visitors[n % 12] as string,
        }),
      ),
    );
    const [raw] = await server.db.query(
      `SELECT count(*)::int AS showings, count(DISTINCT visitor)::int AS visitors FROM event WHERE campaign_id = $1 AND kind = 'shown'`,
      [campaign],
    );
    expect(await showings()).toMatchObject(raw);
  });

  it.each<[what: string, status: number, send: () => ReturnType<typeof collect>]>([
    [
      'a page of another origin',
      403,
      () => collect([shown()], { headers: { origin: 'https://elsewhere.example' } }),
    ],
    ['an unknown site', 404, () => collect([shown()], { body: { site: 'aaaaaaaaaaaa' } })],
    ['a field nobody knows', 422, () => collect([{ ...shown(), price: 3 }])],
    [
      'an id that is not of version 7',
      422,
      () => collect([{ ...shown(), id: '6f9619ff-8b86-4d01-b42d-00cf4fc964ff' }]),
    ],
    ['no events', 422, () => collect([])],
    ['more than fifty events', 422, () => collect(Array.from({ length: 51 }, shown))],
    ['a number where text belongs', 422, () => collect([{ ...shown(), page: 7 }])],
    ['more than 64 kB', 413, () => collect([{ ...shown(), page: '/'.padEnd(70_000, 'a') }])],
  ])('%s is refused with %i and counts nothing', async (_what, status, send) => {
    const before = await showings();
    const response = await send();
    expect(response.statusCode).toBe(status);
    expect(response.headers['content-type']).toContain('application/problem+json');
    expect(await showings()).toEqual(before);
  });

  it('what is not JSON is refused', async () => {
    const response = await server.edge.inject({
      method: 'POST',
      url: '/collect',
      headers: { origin: ORIGIN, 'content-type': 'text/plain' },
      payload: '{',
    });
    expect(response.statusCode).toBe(400);
  });

  it('robots are answered and left out', async () => {
    const before = await showings();
    // The name headless browsers give themselves; isbot keeps the list.
    const response = await collect([shown()], {
      headers: { 'user-agent': 'ExampleBot/1.0 (+https://bot.example)' },
    });
    expect(response.statusCode).toBe(204);
    expect(await showings()).toEqual(before);
  });

  it('an event with a clock far off is stored at the server’s time', async () => {
    const event = { ...shown(), id: eventId(Date.UTC(2001, 0, 1)) };
    expect((await collect([event])).statusCode).toBe(204);
    const [row] = await server.db.query('SELECT at FROM event WHERE id = $1', [event.id]);
    expect(Math.abs(row.at.getTime() - Date.now())).toBeLessThan(60_000);
  });
});

describe('/submit', () => {
  const submit = (
    change: { fields?: object; consent?: boolean; version?: number; id?: string; campaign?: string } = {},
  ) => {
    const { fields = { email: 'lark@example.org' }, consent = true, ...event } = change;
    return server.edge.inject({
      method: 'POST',
      url: '/submit',
      headers: { origin: ORIGIN, 'content-type': 'text/plain', 'user-agent': BROWSER },
      payload: JSON.stringify({
        site: owner.siteKey,
        visitor: randomVisitor(),
        event: { ...shown(), kind: 'converted', ...event },
        fields,
        consent,
      }),
    });
  };
  const leads = async () => (await owner.ask('GET', `/sites/${owner.siteId}/answers`)).json().answers;

  it('stores the answers with the published consent and counts a conversion, once', async () => {
    const before = await showings();
    const id = eventId();
    expect((await submit({ id })).statusCode).toBe(204);
    expect((await submit({ id })).statusCode).toBe(204);
    const all = await leads();
    expect(all).toHaveLength(1);
    expect(all[0]).toMatchObject({
      id,
      fields: [{ label: 'Your mail address', value: 'lark@example.org' }],
      consentText: 'I would like to receive the weekly sky letter and can leave it at any time.',
      page: '/tours',
    });
    expect(Date.now() - Date.parse(all[0].consentedAt)).toBeLessThan(60_000);
    expect(await showings()).toMatchObject({
      conversions: before.conversions + 1,
      converters: before.converters + 1,
    });
  });

  it.each<[what: string, change: Parameters<typeof submit>[0], status: number, message: RegExp]>([
    ['a missing answer', { fields: {} }, 422, /Your mail address: please fill this in/],
    ['an address that is none', { fields: { email: 'lark' } }, 422, /name@example\.org/],
    ['no consent', { consent: false }, 422, /tick this to go on/],
    [
      'a field the form does not have',
      { fields: { email: 'a@example.org', admin: 'yes' } },
      422,
      /no such field/,
    ],
    ['a version that was never published', { version: 9 }, 404, /takes no answers/],
    ['a campaign of nobody', { campaign: '00000000-0000-4000-8000-000000000000' }, 404, /takes no answers/],
  ])('%s is refused and nothing is stored', async (_what, change, status, message) => {
    const before = (await leads()).length;
    const response = await submit(change);
    expect(response.statusCode).toBe(status);
    expect(response.json().detail).toMatch(message);
    expect((await leads()).length).toBe(before);
  });
});

describe('the compiled validators and the contract agree', () => {
  const ajv = new Ajv({ strict: false });
  (addFormats as unknown as (instance: Ajv) => void)(ajv);
  const event = shownLike();
  const collectBody = body({
    site: text('quillonfell2'),
    visitor: text('a'.repeat(32)),
    events: fc.array(event, { minLength: 1, maxLength: 3 }),
  });
  const submitBody = body({
    site: text('quillonfell2'),
    visitor: text('a'.repeat(32)),
    event,
    fields: mostly(fc.dictionary(fc.string(), fc.string()), fc.dictionary(fc.string(), fc.integer())),
    consent: mostly(fc.boolean(), fc.string()),
    sum: fc.string(),
    unseen: fc.string(),
    files: mostly(fc.dictionary(fc.string(), fc.base64String()), fc.dictionary(fc.string(), fc.string())),
  });
  it.each([
    ['collect', collectSchema, collectBody],
    ['submit', submitSchema, submitBody],
  ] as const)('%s', (_name, schema, bodies) => {
    const validate = ajv.compile(z.toJSONSchema(schema, { target: 'draft-7' }));
    let accepted = 0;
    fc.assert(
      fc.property(bodies, (body) => {
        const value = JSON.parse(JSON.stringify(body));
        const isRight = schema.safeParse(value).success;
        if (isRight) accepted++;
        expect(validate(value)).toBe(isRight);
      }),
      { numRuns: 3000 },
    );
    // Half of what is usual: a comparison of refusals alone would say nothing.
    expect(accepted).toBeGreaterThan(200);
  });

  /** What is right twelve times out of thirteen: a body is made of so many parts that few would be right otherwise. */
  function mostly<T, U>(right: fc.Arbitrary<T>, wrong: fc.Arbitrary<U>) {
    return fc.oneof({ weight: 12, arbitrary: right }, { weight: 1, arbitrary: wrong });
  }
  /** All parts, now and then some of them, or one too many. */
  function body(parts: Record<string, fc.Arbitrary<unknown>>) {
    const less = fc.record(parts, { requiredKeys: [] });
    return mostly(fc.record(parts), fc.oneof(less, fc.record({ ...parts, more: fc.string() })));
  }
  function text(right: string) {
    return mostly(fc.constant(right), fc.string());
  }
  function shownLike() {
    return fc.record(
      {
        id: text('01939a5e-0000-7000-8000-000000000001'),
        kind: text('converted'),
        session: text('01939a5e-0000-7000-8000-000000000002'),
        page: mostly(
          fc.string().map((rest) => `/${rest}`),
          fc.string(),
        ),
        device: text('mobile'),
        campaign: text('00000000-0000-4000-8000-000000000000'),
        version: mostly(fc.integer({ min: 1, max: 5 }), fc.double()),
        closedBy: text('button'),
      },
      { requiredKeys: ['id', 'kind', 'session', 'page', 'device', 'campaign', 'version'] },
    );
  }
});
