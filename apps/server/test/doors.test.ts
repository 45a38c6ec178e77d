import { once } from 'node:events';
import { type AddressInfo, connect } from 'node:net';
import { problemSchema } from '@velarium/contract';
import type { FastifyInstance } from 'fastify';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { createStudioApp } from '../src/studio-app.ts';
import {
  BROWSER,
  createTestServer,
  createWorkspace,
  eventId,
  type Member,
  ORIGIN,
  PASSWORD,
  randomVisitor,
  sendEvents,
  type TestServer,
} from './server.ts';

let server: TestServer;
let owner: Member;
beforeAll(async () => {
  server = await createTestServer();
  owner = await createWorkspace(server);
});
afterAll(() => server.close());

/** Where an application listens, from now on. */
async function portOf(app: FastifyInstance): Promise<number> {
  if (!app.server.listening) await app.listen({ port: 0, host: '127.0.0.1' });
  return (app.server.address() as AddressInfo).port;
}

describe('requests that drip in are cut off', () => {
  it.each(['edge', 'studio'] as const)('at the %s, and others are answered meanwhile', async (which) => {
    const app = server[which];
    const port = await portOf(app);
    expect(app.server.requestTimeout).toBe(15_000);
    // The same watch, with less patience than a test has.
    app.server.requestTimeout = app.server.headersTimeout = 200;
    const path = which === 'edge' ? '/submit' : '/api/session';
    const drips = Array.from({ length: 20 }, () => {
      const socket = connect(port, '127.0.0.1').on('error', () => {});
      socket.write(
        `POST ${path} HTTP/1.1\r\nhost: x\r\ncontent-type: application/json\r\ncontent-length: 500\r\n\r\n{`,
      );
      const timer = setInterval(() => socket.write(' '), 50);
      return Promise.race([once(socket, 'close'), once(socket, 'data')]).finally(() => {
        clearInterval(timer);
        socket.destroy();
      });
    });
    const answered = await fetch(`http://127.0.0.1:${port}/tag/aaaaaaaaaaaa.js`);
    expect(answered.status).toBeLessThan(500);
    await Promise.all(drips);
  });
});

describe('what cannot be kept is refused at the door, never a fault of ours', () => {
  const NUL = '\0';
  const HALF = '\ud800';
  const campaign = '00000000-0000-4000-8000-000000000000';
  it.each([
    `/tag/${encodeURIComponent(NUL)}.js`,
    `/tag/aaaaaaaaaaa${encodeURIComponent(NUL)}/manifest.json`,
    `/tag/aaaaaaaaaaa%00/messages/${'a'.repeat(32)}.json`,
    '/tag/aaaaaaaaaaa%00/about',
    `/tag/aaaaaaaaaaa%00/counts/${campaign}`,
    '/pictures/%00/320',
    '/pictures/drawn/%00.svg',
  ])('GET %s', async (url) => {
    expect((await server.edge.inject({ url })).statusCode).toBe(404);
  });
  it.each([NUL, HALF])('whatever route of the studio it comes by (%j)', async (sign) => {
    const name = `a${sign}b`;
    const { siteId } = owner;
    const made = (
      await owner.ask('POST', `/sites/${siteId}/campaigns`, { name: 'Right', template: 'sky-letter' })
    ).json();
    const body = { name, origins: [ORIGIN], timeZone: 'UTC' };
    const asks: [Parameters<Member['ask']>[0], string, object?][] = [
      ['POST', '/session', { email: 'a@example.org', password: name }],
      ['POST', '/session', { email: `${sign}@example.org`, password: PASSWORD }],
      ['POST', '/invitations', { name, email: 'n@example.org', role: 'viewer' }],
      ['POST', '/forgotten', { email: `${sign}@example.org` }],
      ['PUT', `/sites/${siteId}/kept-answers`, { days: name }],
      ['GET', `/sites/${siteId}/answers?q=a%00b`],
      ['GET', `/sites/${siteId}/deliveries?q=a%00b`],
      ['POST', `/sites/${siteId}/do-not-write`, { text: name }],
      ['POST', '/sites', body],
      ['PUT', `/sites/${siteId}`, body],
      ['POST', `/sites/${siteId}/campaigns`, { name, template: 'sky-letter' }],
      ['PATCH', `/campaigns/${made.id}`, { name }],
      ['PATCH', `/campaigns/${made.id}`, { labels: [name] }],
      ['PUT', `/campaigns/${made.id}/draft`, { revision: 0, document: withLabel(made.document, name) }],
      ['POST', `/sites/${siteId}/groups`, { name, rules: [] }],
      ['POST', `/sites/${siteId}/groups`, { name: 'g', rules: [{ kind: 'contains', text: name }] }],
      [
        'POST',
        `/sites/${siteId}/pages`,
        { source: 'hand', pages: [{ path: `/${name}`, title: '', kind: null }] },
      ],
      [
        'POST',
        `/sites/${siteId}/pages`,
        { source: 'hand', pages: [{ path: '/a', title: name, kind: null }] },
      ],
      ['POST', `/sites/${siteId}/stays`, { paths: [`/${name}`], device: null }],
      ['DELETE', `/sites/${siteId}/pages?path=${sign === NUL ? '%00' : '/none'}`],
      ['GET', `/countries?address=${sign === NUL ? '%00' : 'none'}`],
    ];
    for (const [method, path, ask] of asks) {
      const { statusCode } = await owner.ask(method, path, ask);
      expect([method, path, statusCode, statusCode < 500]).toEqual([method, path, statusCode, true]);
    }
  });
  it('numbers past what a database holds are refused in words', async () => {
    const made = (
      await owner.ask('POST', `/sites/${owner.siteId}/campaigns`, { name: 'Right', template: 'sky-letter' })
    ).json();
    const answer = await owner.ask('PUT', `/campaigns/${made.id}/draft`, {
      revision: 2 ** 40,
      document: made.document,
    });
    expect([answer.statusCode, answer.json().code]).toEqual([422, 'invalid-input']);
  });
  it.each<[what: string, event: object]>([
    [
      'a basket less than nothing',
      { kind: 'left', told: { signedIn: null, basket: { items: 1, total: -1e308 }, attributes: {} } },
    ],
    ['a stay below nought', { kind: 'left', stay: [-5, 40] }],
    ['a page that is no address', { kind: 'pageview', page: 'javascript:alert(1)' }],
    ['an empty page', { kind: 'pageview', page: '' }],
  ])('%s is not stored', async (_what, event) => {
    expect((await sendEvents(server, owner, [event])).statusCode).toBe(422);
  });
  it('one call that cannot be stored takes none of the others with it', async () => {
    const [visitor, session] = [randomVisitor(), eventId()];
    const calls = Array.from({ length: 20 }, (_, n) =>
      sendEvents(
        server,
        owner,
        [{ kind: 'pageview', page: `/p${n}`, ...(n === 7 ? { version: 3_000_000 } : {}) }],
        {
          visitor,
          session,
        },
      ),
    );
    const codes = (await Promise.all(calls)).map(({ statusCode }) => statusCode);
    expect(codes.filter((code) => code === 204)).toHaveLength(19);
  });
});

it('whoever goes away before the answer takes nothing down', async () => {
  const site = `/tag/${owner.siteKey}`;
  const port = await portOf(server.edge);
  const paths = [
    `${site}/manifest.json`,
    `${site}.js`,
    `${site}/messages/${'0'.repeat(32)}.json`,
    '/nowhere',
  ];
  await Promise.all(
    Array.from({ length: 200 }, async (_, n) => {
      const socket = connect(port, '127.0.0.1');
      await once(socket, 'connect');
      socket.write(`GET ${paths[n % paths.length]} HTTP/1.1\r\nhost: edge\r\n\r\n`);
      // Some of them at once, some while it is being answered.
      if (n % 3 > 0) await new Promise((resolve) => setTimeout(resolve, n % 3));
      socket.resetAndDestroy();
    }),
  );
  const answer = await fetch(`http://127.0.0.1:${port}${site}/manifest.json`);
  expect(answer.status).toBe(200);
});

describe('headers', () => {
  it('nothing of the edge is taken for another type than the one it is sent as', async () => {
    for (const url of [
      `/tag/${owner.siteKey}.js`,
      `/tag/${owner.siteKey}/manifest.json`,
      '/nowhere',
      '/pictures/drawn/none.svg',
    ]) {
      const { headers } = await server.edge.inject({ url, headers: { 'user-agent': BROWSER } });
      expect([url, headers['x-content-type-options']]).toEqual([url, 'nosniff']);
    }
  });
  it.each([
    ['known', '/nowhere'],
    ['an address', '/%zz'],
    ['whole', '/tag/%E0%A4%A'],
    ['short enough', `/tag/${'a'.repeat(500)}.js`],
  ])(
    'an address that is not %s is answered with a problem as any other, at both doors, and not said back',
    async (_words, url) => {
      for (const app of [server.edge, server.studio]) {
        const answer = await app.inject({ url: app === server.edge ? url : `/api${url}` });
        const problem = problemSchema.parse(answer.json());
        expect([answer.headers['content-type'], problem.status]).toEqual([
          'application/problem+json; charset=utf-8',
          answer.statusCode,
        ]);
        expect(answer.body).not.toContain(url.slice(0, 100));
        expect(answer.headers['x-content-type-options']).toBe('nosniff');
      }
    },
  );
  it('nothing of the API is kept on the way', async () => {
    for (const path of ['/session', '/members', '/sites', `/sites/${owner.siteId}/campaigns`])
      expect((await owner.ask('GET', path)).headers['cache-control']).toBe('no-store');
  });
});

describe('behind a proxy', () => {
  it('one person’s wrong passwords lock out nobody else, and nobody says where they come from by themselves', async () => {
    const studio = await createStudioApp({
      services: server.services,
      secrets: ['x'.repeat(40)],
      edgeOrigin: 'https://edge.example',
      country: { of: () => null, networks: 0, header: null },
      isBehindTls: false,
      // A documentation network (RFC 5737).
      trustedProxies: '192.0.2.0/24',
      logLevel: 'silent',
    });
    const attempt = (from: string, through: string) =>
      studio.inject({
        method: 'POST',
        url: '/api/session',
        remoteAddress: through,
        headers: { 'x-forwarded-for': from },
        payload: { email: owner.session.account.email, password: 'wrong' },
      });
    for (let n = 0; n < 10; n++) await attempt('203.0.113.7', '192.0.2.1');
    expect((await attempt('203.0.113.7', '192.0.2.1')).statusCode).toBe(429);
    expect((await attempt('203.0.113.8', '192.0.2.1')).statusCode).toBe(401);
    for (let n = 0; n < 10; n++) await attempt(`203.0.113.${20 + n}`, '198.51.100.9');
    expect((await attempt('203.0.113.40', '198.51.100.9')).statusCode).toBe(429);
    await studio.close();
  });
});

function withLabel(document: { message: object }, label: string): object {
  return { ...document, message: { ...document.message, label } };
}
