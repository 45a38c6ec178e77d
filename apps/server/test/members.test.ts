import type { Invitation } from '@velarium/contract';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { linkTo, mailbox, owner, server, sharesDeliveries, tokenOf } from './delivering.ts';
import { addColleague, createTestServer, createWorkspace, PASSWORD, signIn } from './server.ts';

sharesDeliveries();
afterEach(() => vi.useRealTimers());

const NEW = 'a-word-nobody-else-has';
let asked = 0;
const ask = (method: 'GET' | 'POST', url: string, payload?: object) =>
  server.studio.inject({
    method,
    url: `/api${url}`,
    // Each from an address of its own (RFC 5737), or the limit on tries would count them together.
    remoteAddress: `198.51.100.${++asked % 256}`,
    ...(payload ? { payload } : {}),
  });
const invite = (email: string, name = 'Nell Corrow') =>
  owner.ask('POST', '/invitations', { name, email, role: 'editor' });
const pending = async () => (await owner.ask('GET', '/invitations')).json<Invitation[]>();

it('what goes to the team is in the Outbox, for owners alone', async () => {
  await invite('col@example.org');
  const list = async (of: string, who = owner) =>
    (await who.ask('GET', `/sites/${owner.siteId}/deliveries?of=${of}`)).json();
  expect((await list('site')).deliveries).toEqual([]);
  const [sent] = (await list('team')).deliveries;
  expect(sent).toMatchObject({ kind: 'invitation', recipient: 'col@example.org' });
  const tries = (of: string, who = owner) =>
    who.ask('GET', `/sites/${owner.siteId}/deliveries/${sent.id}?of=${of}`);
  expect((await tries('team')).statusCode).toBe(200);
  expect((await tries('site')).statusCode).toBe(404);
  const move = async (of: string, who = owner) =>
    (
      await who.ask('POST', `/sites/${owner.siteId}/deliveries/moves`, { of, move: 'stop', ids: [sent.id] })
    ).json();
  expect(await move('site')).toEqual({ count: 0 });
  const editor = await addColleague(server, owner, 'editor');
  expect((await list('team', editor)).status).toBe(403);
  expect((await tries('team', editor)).statusCode).toBe(403);
  expect((await move('team', editor)).status).toBe(403);
  const other = await createWorkspace(server);
  const foreign = await other.ask('GET', `/sites/${other.siteId}/deliveries/${sent.id}?of=team`);
  expect(foreign.statusCode).toBe(404);
});

describe('an invitation', () => {
  it('goes out by mail; by its link somebody joins once, with a password of their own', async () => {
    expect((await invite('nell@example.org')).statusCode).toBe(204);
    const link = await linkTo('nell@example.org');
    expect(link.pathname).toBe('/join');
    expect(await pending()).toMatchObject([
      { email: 'nell@example.org', role: 'editor', invitedBy: 'Owner' },
    ]);
    const token = tokenOf(link);
    expect((await ask('GET', `/joining/${token}`)).json()).toEqual({
      workspace: 'Workspace',
      name: 'Nell Corrow',
      email: 'nell@example.org',
      hasAccount: false,
    });
    expect((await ask('POST', `/joining/${token}`, { password: 'short' })).statusCode).toBe(422);
    expect((await ask('POST', `/joining/${token}`, { password: PASSWORD })).statusCode).toBe(204);
    const nell = await signIn(server, 'nell@example.org', owner);
    expect(nell.session.role).toBe('editor');
    expect(await pending()).toEqual([]);
    expect((await ask('POST', `/joining/${token}`, { password: NEW })).statusCode).toBe(410);
    // The link is not in the Outbox’s bytes.
    const rows: { sent: string }[] = await server.db.query(
      `SELECT sent FROM delivery WHERE recipient = 'nell@example.org'`,
    );
    expect(rows[0]?.sent.replace(/=\r?\n/g, '')).not.toContain(token.slice(0, 40));
  });

  it('asks whoever has an account for the password they have, also when they were taken out before', async () => {
    const editor = await addColleague(server, owner, 'editor');
    const { email } = editor.session.account;
    await owner.ask('DELETE', `/members/${editor.session.account.id}`);
    expect((await invite(email)).statusCode).toBe(204);
    const token = tokenOf(await linkTo(email));
    expect((await ask('GET', `/joining/${token}`)).json()).toMatchObject({ hasAccount: true });
    expect((await ask('POST', `/joining/${token}`, { password: NEW })).json()).toMatchObject({
      code: 'wrong-password',
    });
    expect((await ask('POST', `/joining/${token}`, { password: PASSWORD })).statusCode).toBe(204);
    expect((await signIn(server, email, owner)).session.role).toBe('editor');
  });

  it('can be sent again and withdrawn; it ends after two weeks', async () => {
    await invite('nell@example.org');
    await invite('nell@example.org', 'Nell C.');
    const token = tokenOf(await linkTo('nell@example.org', 2));
    expect(await pending()).toMatchObject([{ name: 'Nell C.' }]);
    vi.setSystemTime(Date.now() + 15 * 86_400_000);
    expect((await ask('GET', `/joining/${token}`)).statusCode).toBe(410);
    vi.useRealTimers();
    const other = await createWorkspace(server);
    const [{ id } = { id: '' }] = await pending();
    expect((await other.ask('DELETE', `/invitations/${id}`)).statusCode).toBe(404);
    expect((await owner.ask('DELETE', `/invitations/${id}`)).statusCode).toBe(204);
    expect((await ask('GET', `/joining/${token}`)).statusCode).toBe(410);
  });

  it('is not for a member, and not made by a link that was not signed', async () => {
    expect((await invite(owner.session.account.email)).json()).toMatchObject({ code: 'email-taken' });
    for (const token of ['x', '00000000-0000-4000-8000-000000000000.AAAA'])
      expect((await ask('POST', `/joining/${token}`, { password: NEW })).statusCode).toBe(410);
  });
});

describe('a password', () => {
  it('that was forgotten is set by a link, once; every sign-in ends with it', async () => {
    const { email } = owner.session.account;
    expect((await ask('POST', '/forgotten', { email })).statusCode).toBe(204);
    const link = await linkTo(email);
    expect(link.pathname).toBe('/password');
    const set = (password: string) => ask('POST', '/password', { token: tokenOf(link), password });
    expect((await set(NEW)).statusCode).toBe(204);
    expect((await owner.ask('GET', '/session')).statusCode).toBe(401);
    expect((await ask('POST', '/session', { email, password: PASSWORD })).statusCode).toBe(401);
    expect((await ask('POST', '/session', { email, password: NEW })).statusCode).toBe(200);
    expect((await set(PASSWORD)).statusCode).toBe(410);
  });

  it('link ends after two hours, and works for no other account', async () => {
    const { email, id } = owner.session.account;
    await ask('POST', '/forgotten', { email });
    const token = tokenOf(await linkTo(email));
    const other = await createWorkspace(server);
    const swapped = token.replace(id, other.session.account.id);
    expect((await ask('POST', '/password', { token: swapped, password: NEW })).statusCode).toBe(410);
    vi.setSystemTime(Date.now() + 3 * 3_600_000);
    expect((await ask('POST', '/password', { token, password: NEW })).statusCode).toBe(410);
  });

  it('is asked for without telling whether there is such an account', async () => {
    expect((await ask('POST', '/forgotten', { email: 'nobody@example.org' })).statusCode).toBe(204);
    expect(mailbox.mails).toEqual([]);
  });

  it('is changed by whoever knows the one there is', async () => {
    const wrong = await owner.ask('POST', '/account/password', { current: NEW, password: NEW });
    expect(wrong.json()).toMatchObject({ code: 'wrong-password' });
    expect(
      (await owner.ask('POST', '/account/password', { current: PASSWORD, password: NEW })).statusCode,
    ).toBe(204);
    expect((await owner.ask('GET', '/session')).statusCode).toBe(401);
  });
});

it('signing out everywhere ends every sign-in, here and elsewhere', async () => {
  const elsewhere = await signIn(server, owner.session.account.email, owner);
  expect((await elsewhere.ask('DELETE', '/sessions')).statusCode).toBe(204);
  expect((await owner.ask('GET', '/session')).statusCode).toBe(401);
  expect((await elsewhere.ask('GET', '/session')).statusCode).toBe(401);
});

it('an installation without an account is begun once, by whoever was told how', async () => {
  const fresh = await createTestServer();
  try {
    const link = (await fresh.services.members.beginning()) ?? '';
    const code = new URL(link).searchParams.get('code') ?? '';
    const body = { code, workspace: 'Fell', name: 'Mara', email: 'first@fell.example', password: PASSWORD };
    const begin = (change: object = {}) =>
      fresh.studio.inject({ method: 'POST', url: '/api/beginning', payload: { ...body, ...change } });
    expect((await begin({ code: 'x' })).statusCode).toBe(410);
    expect((await begin({ password: 'short' })).statusCode).toBe(422);
    const both = await Promise.all([begin(), begin({ email: 'second@fell.example' })]);
    expect(both.map(({ statusCode }) => statusCode).sort()).toEqual([204, 410]);
    expect(await fresh.services.members.beginning()).toBeUndefined();
    expect((await begin({ email: 'third@fell.example' })).statusCode).toBe(410);
    const owners = await fresh.db.query('SELECT role FROM membership');
    expect(owners).toEqual([{ role: 'owner' }]);
  } finally {
    await fresh.close();
  }
});
