import { type Campaign, type Preview, type PreviewTicket, previewSchema } from '@velarium/contract';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { createPreviewTokens } from '../src/publishing/index.ts';
import {
  createCampaign,
  createTestServer,
  createWorkspace,
  type Member,
  ORIGIN,
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

const manifest = () => server.manifestOf(owner.siteKey);
const publish = ({ id }: Campaign) => owner.publish(id);

describe('previews', () => {
  const ask = (token: string, site = owner.siteKey, origin = ORIGIN, campaign?: string) =>
    server.edge.inject({
      method: 'POST',
      url: '/preview',
      headers: { origin, 'content-type': 'text/plain' },
      payload: JSON.stringify({ site, token, campaign }),
    });
  const ticket = async () =>
    (await owner.ask('POST', `/sites/${owner.siteId}/previews`)).json<{ token: string }>().token;

  it('show every campaign as its draft stands, with its message, and change nothing', async () => {
    const [draft, rested] = [await createCampaign(owner), await createCampaign(owner)];
    await publish(rested);
    await owner.ask('POST', `/campaigns/${rested.id}/rest`);
    const answer = await ask(await ticket());
    const preview: Preview = previewSchema.parse(answer.json());
    expect(preview.campaigns.map(({ id, state }) => [id, state])).toEqual([
      [draft.id, 'draft'],
      [rested.id, 'resting'],
    ]);
    expect(Object.keys(preview.files)).toEqual([preview.manifest.campaigns[0]?.message]);
    expect((await manifest()).campaigns).toEqual([]);
    expect(answer.headers['cache-control']).toBe('no-store');
  });

  it('of one campaign show its draft among those that run, as visitors meet them', async () => {
    const [tried, running, resting] = [
      await createCampaign(owner),
      await createCampaign(owner),
      await createCampaign(owner),
    ];
    for (const one of [running, resting]) await publish(one);
    await owner.ask('POST', `/campaigns/${resting.id}/rest`);
    const { document, revision } = running;
    await owner.ask('PUT', `/campaigns/${running.id}/draft`, {
      revision,
      document: { ...document, message: { ...document.message, label: 'Not yet' } },
    });
    const answer = await ask(await ticket(), owner.siteKey, ORIGIN, tried.id);
    const preview: Preview = previewSchema.parse(answer.json());
    expect(preview.campaigns.map(({ id }) => id)).toEqual([tried.id, running.id]);
    expect(Object.values(preview.files).map(({ message }) => message.label)).not.toContain('Not yet');
    const rested: Preview = (await ask(await ticket(), owner.siteKey, ORIGIN, resting.id)).json();
    expect(rested.campaigns.map(({ id }) => id)).toEqual([running.id, resting.id]);
  });

  /** The same token saying something else, under its old signature. */
  const forged = (token: string, change: object): string => {
    const [claim = '', signature] = token.split('.');
    const said = { ...JSON.parse(Buffer.from(claim, 'base64url').toString()), ...change };
    return `${Buffer.from(JSON.stringify(said)).toString('base64url')}.${signature}`;
  };
  it.each<[what: string, spoil: (token: string) => string]>([
    ['nothing', () => ''],
    ['another signature', (token) => `${token.split('.')[0]}.${'A'.repeat(43)}`],
    ['a later end', (token) => forged(token, { untilMs: Date.now() + 1e9 })],
    ['another’s drafts', (token) => forged(token, { of: 'drafts' })],
  ])('need a token that is genuine: not %s', async (_what, spoil) => {
    expect((await ask(spoil(await ticket()))).statusCode).toBe(403);
  });

  it('hold for their own site and its own pages', async () => {
    const stranger = await createWorkspace(server);
    expect((await ask(await ticket(), stranger.siteKey)).statusCode).toBe(403);
    expect((await ask(await ticket(), owner.siteKey, 'https://elsewhere.example')).statusCode).toBe(403);
  });

  it('end', () => {
    let nowMs = Date.now();
    const tokens = createPreviewTokens(['secret'], () => nowMs);
    const { token, expiresAt } = tokens.issue('quillonfell2');
    nowMs = expiresAt.getTime() - 1;
    expect(tokens.read(token, 'quillonfell2')).toMatchObject({ site: 'quillonfell2' });
    expect(tokens.read(token, 'skerryline22')).toBeUndefined();
    nowMs++;
    expect(tokens.read(token, 'quillonfell2')).toBeUndefined();
    expect(createPreviewTokens(['another'], () => 0).read(token, 'quillonfell2')).toBeUndefined();
    for (const made of ['', '.', `${token}x`, token.replace(/^./, 'x')])
      expect(tokens.read(made, 'quillonfell2')).toBeUndefined();
  });

  describe('by a link', () => {
    const link = async (body: object, who = owner) =>
      who.ask('POST', `/sites/${owner.siteId}/preview-links`, { days: 7, isBare: false, ...body });
    const tokenOf = async (body: object) => (await link(body)).json<PreviewTicket>();

    it('show what the link is for, whatever else is asked for, until it ends', async () => {
      const [one, other] = [await createCampaign(owner), await createCampaign(owner)];
      const { token, expiresAt } = await tokenOf({ campaign: one.id });
      expect(Date.parse(expiresAt) - Date.now()).toBeCloseTo(7 * 86_400_000, -5);
      const preview = (await ask(token, owner.siteKey, ORIGIN, other.id)).json<Preview>();
      expect(preview.campaigns.map(({ id }) => id)).toEqual([one.id]);
      expect(preview.link).toEqual({ isBare: false });
      const whole = (await ask((await tokenOf({ campaign: null, isBare: true })).token)).json<Preview>();
      expect(whole.campaigns.map(({ id }) => id)).toEqual(expect.arrayContaining([one.id, other.id]));
      expect(whole.link).toEqual({ isBare: true });
    });

    it('are made by editors, for campaigns of the site, for days that are offered', async () => {
      const elsewhere = await createCampaign(await createWorkspace(server));
      expect((await link({ campaign: elsewhere.id })).statusCode).toBe(404);
      expect((await link({ campaign: null, days: 365 })).statusCode).toBe(422);
      expect((await link({ campaign: null }, await createWorkspace(server))).statusCode).toBe(404);
    });

    it('tell the studio nothing of what pages look like to others', async () => {
      const { token } = await tokenOf({ campaign: null });
      const told = await server.edge.inject({
        method: 'POST',
        url: '/page-sight',
        headers: { origin: ORIGIN, 'content-type': 'text/plain' },
        payload: JSON.stringify({ site: owner.siteKey, token, path: '/', html: '<html></html>' }),
      });
      expect(told.statusCode).toBe(403);
    });
  });
});
