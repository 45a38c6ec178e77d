import type { SeenPage } from '@velarium/contract';
import { LIMITS } from '@velarium/contract/values';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { createTestServer, createWorkspace, type Member, ORIGIN, type TestServer } from './server.ts';

let server: TestServer;
let owner: Member;
let token: string;
beforeAll(async () => {
  server = await createTestServer();
});
afterAll(() => server.close());
beforeEach(async () => {
  owner = await createWorkspace(server);
  token = (await owner.ask('POST', `/sites/${owner.siteId}/previews`)).json<{ token: string }>().token;
});

/** A page tells what it looks like, as the tag does in the browser of somebody the studio sent there. */
const tell = (sight: object = {}, origin = ORIGIN) =>
  server.edge.inject({
    method: 'POST',
    url: '/page-sight',
    headers: { origin, 'content-type': 'text/plain' },
    payload: JSON.stringify({
      site: owner.siteKey,
      token,
      path: '/guide?utm_source=letter',
      html: '<html><body><h1>Drawn</h1></body></html>',
      ...sight,
    }),
  });
const seen = async (who = owner) =>
  (await who.ask('GET', `/sites/${owner.siteId}/sights`)).json<SeenPage[]>();
const open = (path: string, who = owner) =>
  who.ask('GET', `/sites/${owner.siteId}/sight?${new URLSearchParams({ path })}`);

describe('a page as it was seen in a browser', () => {
  it('is kept under its path and opened as it looked, where its own addresses lead as they did', async () => {
    expect((await tell()).statusCode).toBe(204);
    expect(await seen()).toMatchObject([{ path: '/guide', routes: 0 }]);
    const { body, headers } = await open('/guide');
    expect(body).toContain('<h1>Drawn</h1>');
    expect(body).toMatch(
      /^<!doctype html><base href="https:\/\/quillonfell\.example\/guide\?utm_source=letter">/,
    );
    expect(headers['content-type']).toContain('text/html');
  });

  it('runs nothing and is nobody’s, wherever it is opened', async () => {
    await tell({ html: '<html><body><script>alert(1)</script></body></html>' });
    const policy = String((await open('/guide')).headers['content-security-policy']).split('; ');
    // CSP 3: without allow-scripts and allow-same-origin.
    expect(policy).toContain('sandbox');
    expect(policy).toContain("default-src 'none'");
    expect(policy.some((directive) => directive.startsWith('script-src'))).toBe(false);
  });

  it('is what was seen last', async () => {
    await tell();
    await tell({ html: '<html><body>Anew</body></html>' });
    expect(await seen()).toHaveLength(1);
    expect((await open('/guide')).body).toContain('Anew');
  });

  it('says how many addresses behind a # it leads to, each once', async () => {
    const links = ['#/start', '#!/use', '#/start', '#top', '/else#/x'].map((to) => `<a href="${to}">x</a>`);
    await tell({ html: `<html><body>${links.join('')}</body></html>` });
    expect(await seen()).toMatchObject([{ routes: 2 }]);
  });

  it('is kept for sixty pages, the latest', async () => {
    for (let n = 0; n < 62; n++) await tell({ path: `/page-${n}` });
    const pages = (await seen()).map(({ path }) => path);
    expect(pages).toHaveLength(60);
    expect(pages[0]).toBe('/page-61');
    expect(pages).not.toContain('/page-0');
  });

  it('is not taken from whoever was not sent by the studio', async () => {
    expect((await tell({ token: `${token}x` })).statusCode).toBe(403);
    expect((await tell({}, 'https://elsewhere.example')).statusCode).toBe(403);
    expect((await tell({ path: 'guide' })).statusCode).toBe(422);
    expect((await tell({ html: 'x'.repeat(LIMITS.sightLetters + 1) })).statusCode).toBe(422);
    expect((await tell({ html: 'nul \0 and half a pair \ud800' })).statusCode).toBe(204);
    expect(await seen()).toHaveLength(1);
  });

  it('is another workspace’s not', async () => {
    await tell();
    const other = await createWorkspace(server);
    expect((await open('/guide', other)).statusCode).toBe(404);
    expect((await other.ask('GET', `/sites/${owner.siteId}/sights`)).statusCode).toBe(404);
    expect((await open('/never')).statusCode).toBe(404);
  });
});
