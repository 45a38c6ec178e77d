import type { Why } from '@velarium/contract';
import { afterAll, beforeAll, beforeEach, expect, it } from 'vitest';
import {
  addColleague,
  createCampaign,
  createTestServer,
  createWorkspace,
  type Member,
  ORIGIN,
  type TestServer,
} from './server.ts';

let server: TestServer;
let owner: Member;
let campaign: string;
beforeAll(async () => {
  server = await createTestServer();
});
afterAll(() => server.close());
beforeEach(async () => {
  owner = await createWorkspace(server);
  ({ id: campaign } = await createCampaign(owner));
  await owner.publish(campaign);
});

const codeOf = async () => {
  const { codes } = (await owner.ask('POST', `/campaigns/${campaign}/why`)).json<Why>();
  return codes[0]?.code ?? '';
};
const call = (url: string, payload: object) =>
  server.edge.inject({
    method: 'POST',
    url,
    headers: { origin: ORIGIN, 'content-type': 'text/plain' },
    payload: JSON.stringify(payload),
  });
const open = (token: string, site = owner.siteKey) => call('/preview', { site, token });
const line = () => ({ campaign, name: 'Letter', mark: '– Not shown', why: 'It was closed.' });
const tell = (code: string, more: object = {}) =>
  call('/why', { site: owner.siteKey, code, page: '/about', lines: [line()], ...more });
const reports = async () => (await owner.ask('GET', `/campaigns/${campaign}/why`)).json<Why>().reports;

it('a code opens what visitors meet, with the campaign that is asked after', async () => {
  const answer = await open(await codeOf());
  expect(answer.json()).toMatchObject({
    why: { campaign },
    link: null,
    manifest: { campaigns: [{ id: campaign }] },
  });
});

it('a code of another site, an invented one and one that has ended open nothing and take nothing', async () => {
  const code = await codeOf();
  const other = await createWorkspace(server);
  expect((await open(code, other.siteKey)).statusCode).toBe(403);
  expect((await call('/why', { site: other.siteKey, code, page: '/', lines: [line()] })).statusCode).toBe(
    403,
  );
  expect((await open('aaaaaa')).statusCode).toBe(403);
  expect((await tell('aaaaaa')).statusCode).toBe(403);
  await server.db.query(`UPDATE why_code SET expires_at = now() - interval '1 second' WHERE code = $1`, [
    code,
  ]);
  expect((await open(code)).statusCode).toBe(403);
  expect((await tell(code)).statusCode).toBe(403);
  expect(await reports()).toEqual([]);
});

it('what is sent is kept as it was said, and no more of it than anybody would send by hand', async () => {
  const code = await codeOf();
  expect((await tell(code, { lines: [{ ...line(), why: '<b>\u0000x' }] })).statusCode).toBe(204);
  for (let n = 1; n < 20; n++) expect((await tell(code)).statusCode).toBe(204);
  expect((await tell(code)).statusCode).toBe(429);
  const sent = await reports();
  expect(sent).toHaveLength(20);
  expect(sent.at(-1)).toMatchObject({
    page: '/about',
    code,
    lines: [{ campaign, why: expect.stringMatching(/^<b>.?x$/) }],
  });
});

it.each([
  [{ lines: [] }],
  [{ lines: Array.from({ length: 201 }, () => ({ campaign: '', name: '', mark: '', why: '' })) }],
  [{ page: 'about' }],
  [{ lines: [{ campaign: 'x', name: '', mark: '', why: '' }] }],
  [{ visitor: 'a'.repeat(32) }],
])('what no panel says is refused: %#', async (more) => {
  expect((await tell(await codeOf(), more)).statusCode).toBe(422);
});

it('a viewer sees what was sent and makes no code', async () => {
  const viewer = await addColleague(server, owner, 'viewer');
  expect((await viewer.ask('GET', `/campaigns/${campaign}/why`)).statusCode).toBe(200);
  expect((await viewer.ask('POST', `/campaigns/${campaign}/why`)).statusCode).toBe(403);
});
