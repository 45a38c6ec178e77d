import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import type { Campaign, Letters, Look, MessageFile } from '@velarium/contract';
import { PLAIN_LOOK } from '@velarium/core';
import subsetFont from 'subset-font';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { readWeights } from '../src/library/read-letters.ts';
import { SHIPPED_LETTERS, shippedFiles } from '../src/library/shipped-letters.ts';
import {
  addColleague,
  asForm,
  createCampaign,
  createTestServer,
  createWorkspace,
  type Member,
  ORIGIN,
  type TestServer,
  woff2,
} from './server.ts';

let server: TestServer;
let owner: Member;
const FILE = readFileSync(woff2('fraunces'));
beforeAll(async () => {
  server = await createTestServer();
});
beforeEach(async () => {
  owner = await createWorkspace(server);
});
afterAll(() => server.close());

const ABOUT = { name: 'House serif', like: 'serif', licence: 'OFL 1.1' };
const bring = (bytes: Buffer, about: Record<string, string> = ABOUT, who = owner) =>
  who.ask(
    'POST',
    `/sites/${owner.siteId}/letters?${new URLSearchParams(about)}`,
    ...asForm(bytes, 'house.woff2'),
  );
const listed = async () => (await owner.ask('GET', `/sites/${owner.siteId}/letters`)).json<Letters[]>();
/** Those that are the site's own. */
const list = async () => (await listed()).filter(({ from }) => from !== 'product');

describe('letters that are brought', () => {
  it('are kept with their name, their weights and by what right, and can be had whole', async () => {
    const made = await bring(FILE);
    expect(made.statusCode, made.body).toBe(201);
    const letters = made.json<Letters>();
    expect(letters).toEqual({
      ...ABOUT,
      id: expect.stringMatching(/^[0-9a-f]{16}$/),
      family: `velarium ${letters.id}`,
      // As its makers say (the font's `fvar` table).
      weights: [100, 900],
      from: 'team',
      bytes: FILE.length,
    });
    expect(await list()).toEqual([letters]);
    const file = await owner.ask('GET', `/sites/${owner.siteId}/letters/${letters.id}/file`);
    expect(file.rawPayload.equals(FILE)).toBe(true);
    expect(file.headers['content-type']).toBe('font/woff2');
    // Brought again they are the same.
    expect((await bring(FILE, { ...ABOUT, name: 'Better named' })).json<Letters>()).toEqual({
      ...letters,
      name: 'Better named',
    });
  });

  it('are apart from what a page loads, be it the same file', async () => {
    const { letters } = server.services.library;
    await letters.keepFound(owner.siteId, 'Fraunces', FILE, 'serif');
    const made = (await bring(FILE)).json<Letters>();
    await letters.keepFound(owner.siteId, 'Fraunces', FILE, 'serif');
    expect(await list()).toEqual([
      made,
      { ...made, name: 'Fraunces', family: 'Fraunces', licence: '', from: 'pages' },
    ]);
    expect((await owner.ask('DELETE', `/sites/${owner.siteId}/letters/${made.id}`)).statusCode).toBe(204);
    expect((await list()).map(({ family }) => family)).toEqual(['Fraunces']);
    // And of those found only the latest are kept.
    const plain = readFileSync(woff2('figtree'));
    for (let weight = 300; weight < 900; weight += 50)
      await letters.keepFound(
        owner.siteId,
        `Own ${weight}`,
        await subsetFont(plain, 'ab', { targetFormat: 'woff2', variationAxes: { wght: weight } }),
        'sans',
      );
    const kept = (await list()).map(({ family }) => family);
    expect(kept).toHaveLength(12);
    expect(kept).not.toContain('Fraunces');
  });

  it('of one weight say which', async () => {
    const bold = await subsetFont(FILE, 'abc', { targetFormat: 'woff2', variationAxes: { wght: 700 } });
    expect((await bring(bold)).json<Letters>().weights).toEqual([700, 700]);
  });

  const unfolded = Buffer.from(FILE);
  unfolded.writeUInt32BE(4_000_000_000, 16);
  const cut = FILE.subarray(0, 4000);
  it.each([
    [
      'what is no WOFF2',
      Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"/>'.padEnd(80)),
      /no WOFF2 file/,
    ],
    ['what is too short to be any', Buffer.from('wOF2'), /no WOFF2 file/],
    [
      'what only begins like it',
      Buffer.concat([Buffer.from('wOF2'), Buffer.alloc(400, 1)]),
      /unfolds|no letters can be read/,
    ],
    ['what is cut off', cut, /no letters can be read/],
    ['what unfolds beyond measure', unfolded, /unfolds to more than 20 MB/],
    ['what is too large', Buffer.concat([FILE, Buffer.alloc(1_000_000)]), /has [\d,]+ kB/],
  ])('%s is refused with the reason', async (_, bytes, words) => {
    const refused = await bring(bytes);
    expect([refused.statusCode, refused.json().detail]).toEqual([422, expect.stringMatching(words)]);
    expect(await list()).toEqual([]);
  });

  it.each([
    [{ ...ABOUT, name: ' ' }],
    [{ ...ABOUT, licence: '' }],
    [{ ...ABOUT, like: 'comic' }],
    [{ name: 'No more' }],
  ])('with %j they are not taken', async (about) => {
    expect((await bring(FILE, about)).statusCode).toBe(422);
  });

  it('are not for a viewer to bring, nor for another workspace to see or take away', async () => {
    const viewer = await addColleague(server, owner, 'viewer');
    expect((await bring(FILE, ABOUT, viewer)).statusCode).toBe(403);
    const { id } = (await bring(FILE)).json<Letters>();
    const other = await createWorkspace(server);
    for (const [method, rest] of [
      ['GET', ''],
      ['GET', `/${id}/file`],
      ['DELETE', `/${id}`],
    ] as const)
      expect((await other.ask(method, `/sites/${owner.siteId}/letters${rest}`)).statusCode).toBe(404);
    // Of one's own site either.
    expect((await other.ask('GET', `/sites/${other.siteId}/letters/${id}/file`)).statusCode).toBe(404);
  });
});

describe('a message in a Look set in them', () => {
  async function served(): Promise<MessageFile> {
    const [live] = (await server.manifestOf(owner.siteKey)).campaigns;
    const url = `/tag/${owner.siteKey}/messages/${live?.message}.json`;
    return (await server.edge.inject({ url, headers: { origin: ORIGIN } })).json();
  }
  const setIn = async (font: string): Promise<Look> => {
    const style = { ...PLAIN_LOOK, fonts: { text: 'sans', heading: font } };
    const made = (
      await owner.ask('POST', `/sites/${owner.siteId}/looks`, { name: `In ${font}`.slice(0, 80), style })
    ).json<Look>();
    await owner.ask('POST', `/sites/${owner.siteId}/looks/${made.id}/default`);
    return made;
  };
  const loaded = (sheet: string) => /--letters:"([^"|]*)\|([^"|]*)\|([^"]*)"/.exec(sheet)?.slice(1);

  it('loads only those it is written with, from an address that names its content', async () => {
    const { id, family } = (await bring(FILE)).json<Letters>();
    await setIn(`"${family}", Georgia, serif`);
    // Without a form nobody writes anything that is not known.
    const campaign = await createCampaign(owner, 'corner-invitation');
    await owner.publish(campaign.id);
    const { parts, sheet } = await served();
    expect(parts).toContain('letters');
    expect(sheet).toMatch(new RegExp(`font:[^;]*"velarium [0-9a-f]{16}", "${family}", Georgia, serif`));
    const [name, weights, address = ''] = loaded(sheet) ?? [];
    // By a name of its own: another message may load other letters of the family.
    const file16 = /([0-9a-f]{16})[0-9a-f]{16}\.woff2/.exec(address)?.[1];
    expect([name, weights, address]).toEqual([
      `velarium ${file16}`,
      '100 900',
      expect.stringMatching(/^edge:\/letters\/[0-9a-f]{32}\.woff2$/),
    ]);
    const file = await server.edge.inject({ url: address.replace('edge:', '') });
    expect(file.statusCode).toBe(200);
    expect(file.headers).toMatchObject({
      'content-type': 'font/woff2',
      'access-control-allow-origin': '*',
      'cache-control': expect.stringContaining('immutable'),
    });
    expect(file.rawPayload.length).toBeLessThan(FILE.length / 2);
    expect(file.rawPayload.subarray(0, 4).toString('latin1')).toBe('wOF2');

    // While a Look is set in them they stay.
    const kept = await owner.ask('DELETE', `/sites/${owner.siteId}/letters/${id}`);
    expect([kept.statusCode, kept.json().code]).toEqual([409, 'letters-used']);
    await setIn('serif');
    expect((await served()).parts).not.toContain('letters');
    expect(loaded((await served()).sheet)).toBeUndefined();

    // Of what was live this is still asked for by pages that are open.
    await server.services.publishing.tidy();
    expect((await server.edge.inject({ url: address.replace('edge:', '') })).statusCode).toBe(200);
  });

  it('may be set in a family of the product, and loads what is written beyond its first file from the second', async () => {
    const shipped = (await listed()).filter(({ from }) => from === 'product');
    expect(shipped.map(({ like }) => like)).toEqual(['sans', 'round', 'sans', 'serif', 'narrow', 'mono']);
    for (const { id, weights, licence, family } of shipped) {
      expect(family).toBe(`velarium ${id}`);
      expect(licence).toMatch(/^[A-Z]/);
      const file = await owner.ask('GET', `/sites/${owner.siteId}/letters/${id}/file`);
      // As their makers say (the font's `fvar` table).
      expect(await readWeights(file.rawPayload)).toEqual(weights);
      expect((await owner.ask('DELETE', `/sites/${owner.siteId}/letters/${id}`)).statusCode).toBe(404);
    }
    await setIn(`"${shipped[0]?.family}", sans-serif`);
    const campaign = await createCampaign(owner, 'corner-invitation');
    await owner.publish(campaign.id);
    const filesOf = async () => {
      const [, all = ''] = /--letters:"([^"]*)"/.exec((await served()).sheet) ?? [];
      return all.split(',').map((one) => one.split('|'));
    };
    const [only, ...none] = await filesOf();
    expect(none).toEqual([]);
    // Welsh is written with letters that the first file has not got.
    const now = (await owner.ask('GET', `/campaigns/${campaign.id}`)).json<Campaign>();
    const words = JSON.stringify(now.document).replaceAll('"text":"', '"text":"Dŵr ');
    const saved = await owner.ask('PUT', `/campaigns/${campaign.id}/draft`, {
      document: JSON.parse(words),
      revision: now.revision,
    });
    expect(saved.statusCode, saved.body).toBe(200);
    await owner.publish(campaign.id);
    const [first, second] = await filesOf();
    expect(first?.[0]).not.toBe(only?.[0]);
    // By one name, so that what one has not got is looked for in the other.
    expect(second?.slice(0, 2)).toEqual(first?.slice(0, 2));
    const sizes = await Promise.all(
      [first, second].map(
        async (one) =>
          (await server.edge.inject({ url: `${one?.[2]}`.replace('edge:', '') })).rawPayload.length,
      ),
    );
    expect(Math.min(...sizes)).toBeGreaterThan(200);
    expect(Math.max(...sizes)).toBeLessThan(15_000);
  });

  it('knows where the first file of a family ends', () => {
    const { latin } = createRequire(import.meta.url)('@fontsource-variable/nunito/unicode.json');
    const ranges = (latin as string).split(',').map((one) => {
      const [from = 0, until = from] = one
        .slice(2)
        .split('-')
        .map((code) => Number.parseInt(code, 16));
      return [from, until] as const;
    });
    const inFirst = (code: number) => ranges.some(([from, until]) => from <= code && code <= until);
    const [family] = SHIPPED_LETTERS;
    for (const code of ranges.flatMap(([from, until]) => [from - 1, from, until, until + 1]))
      if (code >= 0)
        expect([code, shippedFiles(family?.id ?? '', String.fromCodePoint(code))?.length]).toEqual([
          code,
          inFirst(code) ? 1 : 2,
        ]);
  });

  it('does without letters that are gone, and a name of none is none', async () => {
    await setIn('"velarium 0123456789abcdef", Georgia, serif');
    const campaign = await createCampaign(owner);
    await owner.publish(campaign.id);
    expect(loaded((await served()).sheet)).toBeUndefined();
    for (const url of ['/letters/..%2f.woff2', `/letters/${'0'.repeat(32)}.woff2`])
      expect((await server.edge.inject({ url })).statusCode).toBe(404);
  });

  it.each(['Georgia;}body{display:none', 'url(https://elsewhere.example/x)', '"a\\"b"', ''])(
    'a Look is not set in %j',
    async (heading) => {
      const style = { ...PLAIN_LOOK, fonts: { text: 'sans', heading } };
      const refused = await owner.ask('POST', `/sites/${owner.siteId}/looks`, { name: 'Wrong', style });
      expect(refused.statusCode).toBe(422);
    },
  );
});
