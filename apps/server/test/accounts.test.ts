import type { Role } from '@velarium/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import {
  addColleague,
  createTestServer,
  createWorkspace,
  type Member,
  PASSWORD,
  signIn,
  type TestServer,
} from './server.ts';

let server: TestServer;
let owner: Member;
beforeAll(async () => {
  server = await createTestServer();
  owner = await createWorkspace(server);
});
afterAll(() => server.close());

const tryToSignIn = (email: string, password: string, remoteAddress = '192.0.2.1') =>
  server.studio.inject({ method: 'POST', url: '/api/session', payload: { email, password }, remoteAddress });

describe('signing in', () => {
  it('sets a cookie that scripts cannot read and other sites cannot send', async () => {
    const response = await tryToSignIn(owner.session.account.email, PASSWORD, '192.0.2.10');
    expect(response.statusCode).toBe(200);
    expect(response.cookies[0]).toMatchObject({
      name: 'velarium_session',
      httpOnly: true,
      sameSite: 'Strict',
      path: '/',
    });
  });

  it('answers the same for a wrong password and an unknown address, as problem details', async () => {
    const wrong = await tryToSignIn(owner.session.account.email, 'not the word', '192.0.2.11');
    const unknown = await tryToSignIn('nobody@example.org', 'not the word', '192.0.2.11');
    expect(wrong.statusCode).toBe(401);
    expect(wrong.headers['content-type']).toBe('application/problem+json; charset=utf-8');
    expect(wrong.json()).toEqual(unknown.json());
    expect(wrong.json()).toMatchObject({ code: 'sign-in-failed', status: 401 });
  });

  it('is limited to ten tries a minute', async () => {
    const codes: number[] = [];
    for (let tries = 0; tries < 11; tries++)
      codes.push((await tryToSignIn('nobody@example.org', 'x', '192.0.2.12')).statusCode);
    expect(codes).toEqual([...Array(10).fill(401), 429]);
  });

  it('stores the password as argon2id and the session only as a hash', async () => {
    const [account] = await server.db.query('SELECT password_hash FROM account WHERE email = $1', [
      owner.session.account.email,
    ]);
    expect(account.password_hash).toMatch(/^\$argon2id\$/);
    const response = await tryToSignIn(owner.session.account.email, PASSWORD, '192.0.2.13');
    const sessionId = decodeURIComponent(response.cookies[0]?.value ?? '').split('.')[0];
    const rows = await server.db.query('SELECT id FROM login_session');
    expect(rows.map(({ id }: { id: string }) => id)).not.toContain(sessionId);
  });

  it('names the field and the mend of bad input', async () => {
    const response = await tryToSignIn('nobody', '', '192.0.2.14');
    expect(response.statusCode).toBe(422);
    expect(response.json().fields).toEqual([
      { path: 'email', message: 'write it as name@example.org' },
      { path: 'password', message: 'write your password' },
    ]);
  });

  it('ends with signing out', async () => {
    const member = await signIn(server, owner.session.account.email, owner);
    expect((await member.ask('GET', '/session')).statusCode).toBe(200);
    expect((await member.ask('DELETE', '/session')).statusCode).toBe(204);
    expect((await member.ask('GET', '/session')).json()).toMatchObject({ code: 'signed-out' });
  });
});

it('what changes anything needs the session’s CSRF token', async () => {
  const body = { name: 'Stolen', template: 'sky-letter' };
  const without = await owner.ask('POST', `/sites/${owner.siteId}/campaigns`, body, { 'x-csrf-token': '' });
  expect(without.statusCode).toBe(403);
  expect(without.json()).toMatchObject({ code: 'csrf' });
  const other = await createWorkspace(server);
  const borrowed = await owner.ask('POST', `/sites/${owner.siteId}/campaigns`, body, {
    'x-csrf-token': other.session.csrfToken,
  });
  expect(borrowed.statusCode).toBe(403);
});

describe('roles', () => {
  const add = (role: Role): Promise<Member> => addColleague(server, owner, role);

  it.each([
    ['viewer', 'reads', 'GET', '/sites/SITE/campaigns', undefined, 200],
    ['viewer', 'does not make', 'POST', '/sites/SITE/campaigns', { name: 'A', template: 'sky-letter' }, 403],
    [
      'viewer',
      'does not see to the team',
      'POST',
      '/invitations',
      { name: 'A', email: 'a@example.org', role: 'owner' },
      403,
    ],
    ['editor', 'makes', 'POST', '/sites/SITE/campaigns', { name: 'A', template: 'sky-letter' }, 201],
    [
      'editor',
      'does not see to the team',
      'POST',
      '/invitations',
      { name: 'A', email: 'b@example.org', role: 'owner' },
      403,
    ],
  ] as const)('%s %s', async (role, _what, method, path, body, status) => {
    const member = await add(role);
    const response = await member.ask(method, path.replace('SITE', owner.siteId), body);
    expect(response.statusCode).toBe(status);
  });

  it('a change of role holds at the next request', async () => {
    const member = await add('editor');
    await owner.ask('PATCH', `/members/${member.session.account.id}`, { role: 'viewer' });
    const response = await member.ask('POST', `/sites/${owner.siteId}/campaigns`, {
      name: 'A',
      template: 'sky-letter',
    });
    expect(response.json()).toMatchObject({ code: 'forbidden' });
  });

  it('who is taken out is signed out', async () => {
    const member = await add('editor');
    await owner.ask('DELETE', `/members/${member.session.account.id}`);
    expect((await member.ask('GET', '/session')).statusCode).toBe(401);
  });

  it('the last owner stays', async () => {
    const alone = await createWorkspace(server);
    const down = await alone.ask('PATCH', `/members/${alone.session.account.id}`, { role: 'viewer' });
    const out = await alone.ask('DELETE', `/members/${alone.session.account.id}`);
    expect([down.json().code, out.json().code]).toEqual(['last-owner', 'last-owner']);
  });
});
