import type {
  AnswerPage,
  Campaign,
  CampaignDocument,
  FilmFacts,
  FormBlock,
  Look,
  MessageFile,
  Picture,
  SavedBlock,
  Submit,
} from '@velarium/contract';
import { LOOKS, newBlock, PLAIN_LOOK } from '@velarium/core';
import Fastify from 'fastify';
import sharp from 'sharp';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import {
  addColleague,
  asForm,
  BROWSER,
  createCampaign,
  createTestServer,
  createWorkspace,
  eventId,
  type Member,
  ORIGIN,
  randomVisitor,
  sendEvents,
  somePng,
  type TestServer,
} from './server.ts';

let server: TestServer;
let owner: Member;
beforeAll(async () => {
  server = await createTestServer();
});
beforeEach(async () => {
  owner = await createWorkspace(server);
});
afterAll(() => server.close());

const site = (path: string) => `/sites/${owner.siteId}/${path}`;
const change = async (
  campaign: Campaign,
  by: (message: CampaignDocument['message']) => CampaignDocument['message'],
): Promise<Campaign> => {
  const now = (await owner.ask('GET', `/campaigns/${campaign.id}`)).json<Campaign>();
  const response = await owner.ask('PUT', `/campaigns/${campaign.id}/draft`, {
    revision: now.revision,
    document: { ...now.document, message: by(now.document.message) },
  });
  return response.json();
};
const withBlocks =
  (...blocks: CampaignDocument['message']['steps'][number]['blocks']) =>
  (message: CampaignDocument['message']) => ({
    ...message,
    steps: [{ id: 'first', role: 'first' as const, blocks }],
  });
const publish = (campaign: Campaign) => owner.publish(campaign.id);
/** What a page loads for the site's only campaign. */
async function served(): Promise<MessageFile> {
  const [live] = (await server.manifestOf(owner.siteKey)).campaigns;
  const url = `/tag/${owner.siteKey}/messages/${live?.message}.json`;
  return (await server.edge.inject({ url, headers: { origin: ORIGIN } })).json();
}
const upload = (bytes: Buffer, name = 'Ridge.png') =>
  owner.ask('POST', site('pictures'), ...asForm(bytes, name));

/** Sends answers as the tag does. */
const submit = (campaign: Campaign, answers: Partial<Submit>) =>
  server.edge.inject({
    method: 'POST',
    url: '/submit',
    headers: { origin: ORIGIN, 'content-type': 'text/plain', 'user-agent': BROWSER },
    payload: JSON.stringify({
      site: owner.siteKey,
      visitor: randomVisitor(),
      event: {
        ...{ id: eventId(), kind: 'converted', session: eventId(), page: '/tours', device: 'desktop' },
        ...{ campaign: campaign.id, version: 1 },
      },
      fields: {},
      consent: false,
      ...answers,
    }),
  });

describe('Looks', () => {
  const ember = LOOKS.find(({ id }) => id === 'ember')?.style ?? PLAIN_LOOK;
  it('change every published message that follows them, at once', async () => {
    await publish(await createCampaign(owner));
    expect((await served()).sheet).toContain(`--surface:${PLAIN_LOOK.palette.surface}`);
    const made = (await owner.ask('POST', site('looks'), { name: 'Ember', style: ember })).json<Look>();
    expect((await served()).sheet).not.toContain(ember.palette.surface);
    await owner.ask('POST', site(`looks/${made.id}/default`));
    expect((await served()).sheet).toContain(`--surface:${ember.palette.surface}`);
    const paler = { ...ember, palette: { ...ember.palette, surface: '#fefefe' } };
    await owner.ask('PUT', site(`looks/${made.id}`), { name: 'Ember', style: paler });
    expect((await served()).sheet).toContain('--surface:#fefefe');
  });
  it('of another site are none of this one’s', async () => {
    const other = await createWorkspace(server);
    const theirs = (
      await other.ask('POST', `/sites/${other.siteId}/looks`, { name: 'Theirs', style: ember })
    ).json<Look>();
    const campaign = await createCampaign(owner);
    const refusal = await change(campaign, (message) => ({ ...message, look: theirs.id }));
    expect(refusal).toMatchObject({ status: 422, title: 'No such Look' });
  });
  it('have each their own name, and the site’s own stays', async () => {
    const made = (await owner.ask('POST', site('looks'), { name: 'A', style: ember })).json<Look>();
    expect((await owner.ask('POST', site('looks'), { name: 'A', style: ember })).json()).toMatchObject({
      code: 'name-taken',
    });
    await owner.ask('POST', site(`looks/${made.id}/default`));
    expect((await owner.ask('DELETE', site(`looks/${made.id}`))).statusCode).toBe(409);
  });
});

describe('pictures', () => {
  it('are made in several sizes and modern formats, and served in the best a browser takes', async () => {
    const picture = (await upload(await somePng())).json<Picture>();
    expect(picture).toMatchObject({
      name: 'Ridge.png',
      file: { width: 900, height: 600, widths: [320, 640, 900] },
    });
    expect(picture.weight).toBeGreaterThan(0);
    const get = (width: number, accept: string) =>
      server.edge.inject({ url: `/pictures/${picture.id}/${width}`, headers: { accept } });
    const [avif, webp] = [await get(640, 'image/avif,image/webp,*/*'), await get(640, 'image/webp,*/*')];
    expect(avif.headers).toMatchObject({ 'content-type': 'image/avif', vary: 'accept' });
    expect(webp.headers['content-type']).toBe('image/webp');
    expect(await sharp(webp.rawPayload).metadata()).toMatchObject({
      width: 640,
      height: 427,
      format: 'webp',
    });
    expect((await get(641, '*/*')).statusCode).toBe(404);
  });
  it('that are drawings become pixels: nothing in them is ever run', async () => {
    const svg = Buffer.from(
      '<svg xmlns="http://www.w3.org/2000/svg" width="400" height="300"><script>alert(1)</script><rect width="400" height="300" fill="#fff"/></svg>',
    );
    const picture = (await upload(svg, 'drawing.svg')).json<Picture>();
    const served = await server.edge.inject({ url: `/pictures/${picture.id}/${picture.file.widths[0]}` });
    expect(served.headers['content-type']).toBe('image/webp');
    expect(served.rawPayload.toString('latin1')).not.toContain('script');
  });
  it.each([
    ['text', Buffer.from('not a picture')],
    ['half a picture', undefined],
    ['nothing', Buffer.alloc(0)],
  ])('%s is refused in words and leaves nothing behind', async (_what, bytes) => {
    const half = (await somePng()).subarray(0, 300);
    const response = await upload(bytes ?? half);
    expect(response.statusCode).toBe(422);
    expect((await owner.ask('GET', site('pictures'))).json()).toEqual([]);
  });
  it('in use say by whom and cannot be removed; a picture of another site cannot be shown', async () => {
    const picture = (await upload(await somePng())).json<Picture>();
    const campaign = await createCampaign(owner);
    const shown = { ...newBlock('picture'), picture: picture.id, alt: 'The ridge' };
    await change(campaign, withBlocks({ ...newBlock('heading'), text: 'Look up' }, shown));
    expect((await owner.ask('GET', site('pictures'))).json()).toMatchObject([{ usedBy: ['Campaign'] }]);
    expect((await owner.ask('DELETE', site(`pictures/${picture.id}`))).json()).toMatchObject({
      code: 'in-use',
    });
    await publish(campaign);
    expect((await served()).pictures[picture.id]).toMatchObject({ width: 900 });

    owner = await createWorkspace(server);
    const foreign = await change(await createCampaign(owner), withBlocks(shown));
    expect(foreign).toMatchObject({ status: 422, title: 'No such picture' });
  });
  it('that come with Velarium are drawn for anybody', async () => {
    const moon = await server.edge.inject({ url: '/pictures/drawn/moon.svg' });
    expect(moon.headers['content-type']).toBe('image/svg+xml');
    expect(await sharp(moon.rawPayload).metadata()).toMatchObject({ width: 1200, height: 800 });
    expect((await server.edge.inject({ url: '/pictures/drawn/constructor.svg' })).statusCode).toBe(404);
  });
});

describe('saved blocks', () => {
  it('change wherever they are used, drafted or published, and stay while they are', async () => {
    const block = { ...{ ...newBlock('heading'), text: 'Look up' }, text: 'Kept words' };
    const saved = (await owner.ask('POST', site('blocks'), { name: 'Title', block })).json<SavedBlock>();
    const campaign = await createCampaign(owner);
    await change(campaign, withBlocks({ ...newBlock('saved'), id: 'here', saved: saved.id }));
    await publish(campaign);
    expect((await served()).message.steps[0]?.blocks).toMatchObject([
      { id: 'here', kind: 'heading', text: 'Kept words' },
    ]);
    await owner.ask('PUT', site(`blocks/${saved.id}`), {
      name: 'Title',
      block: { ...block, text: 'New words' },
    });
    expect((await served()).message.steps[0]?.blocks).toMatchObject([{ text: 'New words' }]);
    expect((await owner.ask('GET', site('blocks'))).json()).toMatchObject([{ usedBy: ['Campaign'] }]);
    expect((await owner.ask('DELETE', site(`blocks/${saved.id}`))).json()).toMatchObject({ code: 'in-use' });
  });
  it('with a form take its answers', async () => {
    const block = { ...newBlock('form'), consentText: '' };
    const saved = (await owner.ask('POST', site('blocks'), { name: 'Form', block })).json<SavedBlock>();
    const campaign = await createCampaign(owner);
    await change(
      campaign,
      withBlocks({ ...newBlock('heading'), text: 'Look up' }, { ...newBlock('saved'), saved: saved.id }),
    );
    await publish(campaign);
    const response = await submit(campaign, { fields: { email: 'reader@example.org' } });
    expect(response.statusCode).toBe(204);
    const counts = await server.edge.inject({ url: `/tag/${owner.siteKey}/counts/${campaign.id}` });
    expect(counts.json()).toEqual({ readers: 1, shares: 0, ways: {} });
    const shared = (part?: string) => ({ kind: 'shared', campaign: campaign.id, version: 1, part });
    await sendEvents(server, owner, [shared('mail'), shared('mail'), shared('copy'), shared()]);
    const again = await server.edge.inject({ url: `/tag/${owner.siteKey}/counts/${campaign.id}` });
    expect(again.json()).toEqual({ readers: 1, shares: 4, ways: { mail: 2, copy: 1 } });
  });
});

describe('a form', () => {
  const form = { ...newBlock('form'), consentText: '' } as FormBlock;
  const publishForm = async (of: Partial<FormBlock>) => {
    const campaign = await createCampaign(owner);
    await change(campaign, withBlocks({ ...newBlock('heading'), text: 'Look up' }, { ...form, ...of }));
    await publish(campaign);
    return campaign;
  };
  const photo = {
    id: 'photo',
    kind: 'file',
    label: 'Your picture',
    placeholder: '',
    required: true,
  } as const;

  it('takes a picture, draws it anew without its camera and place, and gives it to the team alone', async () => {
    const campaign = await publishForm({ fields: [photo] });
    const sent = await sharp(await somePng())
      .withExif({ IFD0: { Make: 'Quillon camera' } })
      .jpeg()
      .toBuffer();
    const answer = await submit(campaign, {
      fields: { photo: 'Ridge.jpg' },
      files: { photo: sent.toString('base64') },
    });
    expect(answer.statusCode).toBe(204);
    const [lead] = (await owner.ask('GET', site('answers'))).json<AnswerPage>().answers;
    expect(lead?.fields).toMatchObject([{ label: 'Your picture', value: 'Ridge.jpg' }]);
    const path = `attachments/${lead?.fields[0]?.attachment}`;
    const kept = await owner.ask('GET', site(path));
    expect(kept.headers['content-disposition']).toMatch(/^attachment/);
    const { format, exif, width } = await sharp(kept.rawPayload).metadata();
    expect({ format, exif, width }).toEqual({ format: 'webp', exif: undefined, width: 900 });
    const other = await createWorkspace(server);
    expect((await other.ask('GET', `/sites/${owner.siteId}/${path}`)).statusCode).toBe(404);
    expect((await other.ask('GET', `/sites/${other.siteId}/${path}`)).statusCode).toBe(404);
  });
  it.each<[what: string, files: Record<string, string>]>([
    ['nothing', {}],
    ['a page', { photo: Buffer.from('<script>alert(1)</script>').toString('base64') }],
    [
      'a drawing, which could run',
      { photo: Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"/>').toString('base64') },
    ],
  ])('refuses %s in place of a picture, and keeps nothing', async (_what, files) => {
    const campaign = await publishForm({ fields: [photo] });
    const answer = await submit(campaign, { fields: { photo: 'x.png' }, files });
    expect(answer.json()).toMatchObject({ status: 422, fields: [{ path: 'fields.photo' }] });
    expect((await owner.ask('GET', site('answers'))).json<AnswerPage>().answers).toEqual([]);
  });
  it.each([
    ['2+3=five', 204],
    ['2+3=6', 422],
    ['9+9=18', 422],
    ['', 422],
  ])('that asks a sum answers %j with %i', async (sum, status) => {
    const campaign = await publishForm({ asksSum: true });
    expect((await submit(campaign, { fields: { email: 'a@example.org' }, sum })).statusCode).toBe(status);
  });
});

describe('who has a campaign open', () => {
  it('is told to the others until they leave or are not heard of for a while', async () => {
    const campaign = await createCampaign(owner);
    const path = `/campaigns/${campaign.id}/presence`;
    const editor = await addColleague(server, owner, 'editor');
    expect((await owner.ask('PUT', path)).json()).toEqual({ others: [], revision: campaign.revision });
    expect((await editor.ask('PUT', path)).json()).toMatchObject({ others: [{ name: 'Owner' }] });
    expect((await owner.ask('PUT', path)).json()).toMatchObject({ others: [{ name: 'Editor' }] });
    await editor.ask('DELETE', path);
    expect((await owner.ask('PUT', path)).json()).toEqual({ others: [], revision: campaign.revision });
    await editor.ask('PUT', path);
    await server.db.query(`UPDATE presence SET seen_at = now() - interval '26 seconds'`);
    expect((await owner.ask('PUT', path)).json()).toEqual({ others: [], revision: campaign.revision });
    const stranger = await createWorkspace(server);
    expect((await stranger.ask('PUT', path)).statusCode).toBe(404);
  });
});

it('a finished message is a template for the next campaign', async () => {
  const { document } = await createCampaign(owner);
  const message = { ...document.message, label: 'Our own' };
  const kept = (await owner.ask('POST', site('templates'), { name: 'Ours', message })).json<{ id: string }>();
  const made = (
    await owner.ask('POST', site('campaigns'), { name: 'Next', template: kept.id })
  ).json<Campaign>();
  expect(made.document.message).toEqual(message);
  expect((await owner.ask('DELETE', site(`templates/${kept.id}`))).statusCode).toBe(204);
  expect((await owner.ask('POST', site('campaigns'), { name: 'Next', template: kept.id })).statusCode).toBe(
    422,
  );
});

describe('a film is what its host tells', () => {
  const host = Fastify();
  let origin = '';
  const page = (offer: string) =>
    `<!doctype html><title>x</title><link type="application/json+oembed" rel="alternate" href="${offer}">`;
  let answer: unknown;
  beforeAll(async () => {
    host.get('/film', (_, reply) => reply.type('text/html').send(page('/said')));
    host.get('/away', (_, reply) => reply.type('text/html').send(page('http://10.0.0.1/said')));
    host.get('/short', (request, reply) => reply.redirect(`http://localhost:${request.port}/film`, 302));
    host.get('/inward', (_, reply) => reply.redirect('http://10.0.0.1/film', 302));
    host.get('/plain', (_, reply) => reply.type('text/html').send('<p>A page like another'));
    host.get('/said', () => answer);
    host.get('/still.png', async (_, reply) => reply.type('image/png').send(await somePng()));
    origin = await host.listen({ host: '127.0.0.1', port: 0 });
  });
  afterAll(() => host.close());
  const ask = (address: string) => owner.ask('POST', site('films'), { address });
  // The answer of oEmbed 1.0, 2.3.4.2, with our names in it.
  const video = {
    version: '1.0',
    type: 'video',
    title: 'The dome opens',
    width: '640',
    height: 360,
    html: '<iframe width="640" src="https://frames.example/7?a=1&amp;b=2"></iframe>',
  };

  it('its title, frame, shape and still', async () => {
    answer = { ...video, thumbnail_url: `${origin}/still.png` };
    const told = (await ask(`${origin}/film?list=a#t=30`)).json<FilmFacts>();
    expect(told).toEqual({
      address: 'https://frames.example/7?a=1&b=2#t=30',
      title: 'The dome opens',
      picture: expect.any(String),
      ratio: 178,
    });
    const pictures = (await owner.ask('GET', site('pictures'))).json<Picture[]>();
    expect(pictures.find(({ id }) => id === told.picture)?.name).toBe('The dome opens');
  });
  it('by its short address, which leads to another origin', async () => {
    answer = video;
    expect((await ask(`${origin}/short`)).json<FilmFacts>().title).toBe('The dome opens');
  });
  it('a frame that is a script, a still that is none and a missing size are left out', async () => {
    answer = {
      ...video,
      width: null,
      html: '<iframe src="javascript:alert(1)"></iframe>',
      thumbnail_url: `${origin}/plain`,
    };
    expect((await ask(`${origin}/film`)).json()).toEqual({
      address: `${origin}/film`,
      title: 'The dome opens',
      picture: null,
      ratio: null,
    });
  });
  it.each([
    ['offers no description', '/plain', undefined],
    ['is no film', '/film', { ...video, type: 'photo' }],
    ['is no film', '/film', 'dance'],
    ['in a network that is not asked', '/away', undefined],
    ['in a network that is not asked', '/inward', undefined],
    ['answered with status 404', '/nowhere', undefined],
  ])('is refused in words where its page %s', async (words, path, said) => {
    answer = said;
    const refused = await ask(origin + path);
    expect(refused.statusCode).toBe(422);
    expect(refused.json().detail).toContain(words);
  });
  it.each(['http://10.1.2.3/film', 'http://169.254.169.254/', 'http://[::1]/film', 'http://0.0.0.0/'])(
    'nothing private is asked: %s',
    async (address) => {
      expect((await ask(address)).json().detail).toContain('in a network that is not asked');
    },
  );
});
