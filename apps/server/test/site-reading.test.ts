import { readFileSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import type { Letters, Look, LookRead, Site } from '@velarium/contract';
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { createTestServer, createWorkspace, type Member, type TestServer, woff2 } from './server.ts';

let server: TestServer;
let owner: Member;
beforeAll(async () => {
  server = await createTestServer();
});
beforeEach(async () => {
  owner = await createWorkspace(server);
});
afterAll(() => server.close());

describe('a site’s own pages', () => {
  let web: Server;
  beforeEach(async () => {
    const files: Record<string, string> = {
      '/': '<!doctype html><title>T</title><link rel="stylesheet" href="/own.css"><style>h1{font-family:Georgia,serif}</style>',
      '/own.css':
        ':root{--sea:oklch(51.975% 0.17686 142.495)}body{background:#fdfaf3 url(x.png);background:ivory;color:rgb(16 32 48);font:18px/1.5 system-ui}@media (prefers-color-scheme:dark){body{background:#000}}@media print{body{color:#999}}.btn{background:var(--sea);border-radius:12px}a{color:',
      '/bare': '<!doctype html><title>Bare</title><p>Words',
    };
    web = createServer((request, response) => {
      const body = files[request.url ?? ''];
      response.writeHead(body === undefined ? 404 : 200).end(body);
    }).listen(0, '127.0.0.1');
    await new Promise((resolve) => web.once('listening', resolve));
    const origin = `http://127.0.0.1:${(web.address() as AddressInfo).port}`;
    await owner.ask('PUT', `/sites/${owner.siteId}`, { name: 'Site', origins: [origin], timeZone: 'UTC' });
  });
  afterEach(() => void web.close());
  const read = (path: string) => owner.ask('POST', `/sites/${owner.siteId}/looks/reading`, { path });

  it('give a Look, read from their sheets as they hold by day on a screen, broken ends and all', async () => {
    const { style, read: said } = (await read('/')).json<LookRead>();
    expect(style).toMatchObject({
      // Source: CSS Color Module Level 4, named colours and its example of green in OKLCH (from memory).
      palette: { surface: '#fffff0', ink: '#102030', accent: '#008000' },
      fonts: { text: 'sans', heading: 'Georgia, serif' },
      textSize: 18,
      corners: { control: 12 },
    });
    expect(said).toContain('accent');
  });
  it('say what letters they are set in, and those they load are kept for the studio to show', async () => {
    const letters = readFileSync(woff2('figtree'));
    web.removeAllListeners('request');
    web.on('request', ({ url }, response) => {
      if (url === '/f/own.woff2') return response.writeHead(200).end(letters);
      if (url === '/f/broken.woff2') return response.writeHead(200).end('wOF2 and then nothing');
      if (url === '/css/site.css')
        return response
          .writeHead(200)
          .end(`@font-face{font-family:"Own Plain";src:local(x),url(../f/own.woff2) format("woff2");font-weight:300 900}
                @font-face{font-family:"Own Plain";font-style:italic;src:url(../f/italic.woff2)}
                @font-face{font-family:'Own Serif';src:url("/f/broken.woff2")}
                @font-face{font-family:Unused;src:url(/f/own.woff2)}
                body{font:16px/1.5 'Own Plain',sans-serif}h1{font-family:"Own Serif",serif}`);
      response.writeHead(200).end('<link rel="stylesheet" href="/css/site.css"><p>Words');
    });
    const { style } = (await read('/')).json<LookRead>();
    expect(style.fonts).toEqual({ text: '"Own Plain", sans-serif', heading: '"Own Serif", serif' });
    const kept = (await owner.ask('GET', `/sites/${owner.siteId}/letters`)).json<Letters[]>();
    expect(kept.filter(({ from }) => from !== 'product')).toMatchObject([
      { family: 'Own Plain', like: 'sans', weights: [300, 900], from: 'pages' },
    ]);
    const file = await owner.ask('GET', `/sites/${owner.siteId}/letters/${kept[0]?.id}/file`);
    expect(file.rawPayload.equals(letters)).toBe(true);
  });
  it('give what can be read of them where a sheet is made to be read for ever', async () => {
    web.removeAllListeners('request');
    web.on('request', (request, response) => {
      if (request.url === '/deep.css') return response.end('a{'.repeat(200_000));
      if (request.url === '/long.css') return response.end(`h1{color:${'-'.repeat(400_000)}}`);
      if (request.url === '/own.css') return response.end('body{color:#123456;background:#fedcba}');
      return response.end(
        ['deep', 'long', 'own'].map((name) => `<link rel="stylesheet" href="/${name}.css">`).join(''),
      );
    });
    const beganMs = performance.now();
    const { style } = (await read('/')).json<LookRead>();
    expect(style.palette).toMatchObject({ ink: '#123456' });
    // Its limit is three seconds; a machine may stand still.
    expect(performance.now() - beganMs).toBeLessThan(20_000);
  });
  it.each([
    ['/bare', 'name neither colours nor letters'],
    ['/gone', 'answered with status 404'],
  ])('give none where %s %s', async (path, words) => {
    const refused = await read(path);
    expect([refused.statusCode, refused.json().detail]).toEqual([422, expect.stringContaining(words)]);
  });
  it('have the policy that header and head of the home page say, all of it', async () => {
    web.removeAllListeners('request');
    web.on('request', (_, response) =>
      response
        .writeHead(200, { 'content-security-policy': "default-src 'self', img-src *" })
        .end('<meta http-equiv="Content-Security-Policy" content="connect-src https:"><p>Words'),
    );
    expect((await owner.ask('GET', `/sites/${owner.siteId}/policy`)).json()).toEqual({
      policies: ["default-src 'self'", 'img-src *', 'connect-src https:'],
    });
    web.close();
    web.closeAllConnections();
    expect((await owner.ask('GET', `/sites/${owner.siteId}/policy`)).json()).toEqual({ policies: null });
  });
  it('are looked at for elements, as their source has them', async () => {
    const asked = await owner.ask('POST', `/sites/${owner.siteId}/elements`, {
      paths: ['/', '/bare', '/gone'],
      selectors: ['p', 'link[rel=stylesheet]', '.open', '>>>'],
    });
    expect(asked.json()).toEqual([
      { selector: 'p', pages: ['/bare'], of: 2 },
      { selector: 'link[rel=stylesheet]', pages: ['/'], of: 2 },
      { selector: '.open', pages: [], of: 2 },
      { selector: '>>>', pages: [], of: 2 },
    ]);
    const none = await owner.ask('POST', `/sites/${owner.siteId}/elements`, { paths: ['/'], selectors: [] });
    expect(none.statusCode).toBe(422);
  });
  it('are not needed: every new site begins with Looks, one of them its own', async () => {
    const made = await owner.ask('POST', '/sites', {
      name: 'Another',
      origins: ['https://another.example'],
      timeZone: 'UTC',
    });
    const looks = (await owner.ask('GET', `/sites/${made.json<Site>().id}/looks`)).json<Look[]>();
    expect(looks.length).toBeGreaterThan(3);
    expect(looks.filter(({ isDefault }) => isDefault)).toHaveLength(1);
  });
});
