import { expect, it } from 'vitest';
import { linkTo, owner, server, sharesDeliveries, tokenOf } from './delivering.ts';
import { createWorkspace, PASSWORD, signIn } from './server.ts';

sharesDeliveries();

const NEW = 'a-word-nobody-else-has';
let asked = 0;
const post = (url: string, payload: object) =>
  server.studio.inject({
    method: 'POST',
    url: `/api${url}`,
    payload,
    remoteAddress: `198.51.100.${++asked % 256}`,
  });

/** Does something while whatever is asked meanwhile waits for a table; what was asked goes on afterwards. */
async function whileHeld<Asked>(
  table: string,
  { ask, meanwhile }: { readonly ask: () => Promise<Asked>; readonly meanwhile: () => Promise<unknown> },
): Promise<Asked> {
  const runner = server.db.createQueryRunner();
  await runner.startTransaction();
  try {
    await runner.query(`LOCK TABLE ${table} IN ACCESS EXCLUSIVE MODE`);
    const answer = ask();
    await expect
      .poll(async () => {
        const [row] = await server.db.query(
          'SELECT count(*)::integer AS waiting FROM pg_locks WHERE NOT granted AND relation = $1::regclass',
          [table],
        );
        return row.waiting;
      })
      .toBe(1);
    await meanwhile();
    await runner.commitTransaction();
    return await answer;
  } finally {
    await runner.release();
  }
}

it('a sign-in that ends while something is asked with it stays ended', async () => {
  const asking = await whileHeld('membership', {
    ask: () => owner.ask('GET', '/session'),
    // As signing out does, which must itself ask who that is.
    meanwhile: () => server.db.query('DELETE FROM login_session'),
  });
  expect(asking.statusCode).toBe(200);
  expect((await owner.ask('GET', '/session')).statusCode).toBe(401);
});

it('everywhere means also where something is asked, or a password looked at, at that moment', async () => {
  const { email, id } = owner.session.account;
  const { accounts } = server.services;
  const hash = (await accounts.passwordHashOf(id)) as string;
  const entering = await whileHeld('membership', {
    ask: () => post('/session', { email, password: PASSWORD }),
    meanwhile: () => accounts.replacePassword(id, hash, NEW),
  });
  expect(entering.statusCode).toBe(401);
  expect((await post('/session', { email, password: NEW })).statusCode).toBe(200);

  const other = await createWorkspace(server);
  const again = await signIn(server, other.session.account.email, other);
  await whileHeld('membership', {
    ask: () => again.ask('GET', '/session'),
    meanwhile: () => accounts.signOutEverywhere(other.session.account.id),
  });
  for (const one of [other, again]) expect((await one.ask('GET', '/session')).statusCode).toBe(401);
  expect((await signIn(server, other.session.account.email, other)).session.role).toBe('owner');
});

it('is written down once a day, and lasts fourteen days from the last on which it was used', async () => {
  // Somebody who has asked for nothing yet.
  const member = await createWorkspace(server);
  const last = async () => {
    const [row] = await server.db.query(
      'SELECT data, expires_at AS ends FROM login_session ORDER BY ends DESC',
    );
    return row as { data: { usedOn: string }; ends: Date };
  };
  await server.db.query('DELETE FROM login_session WHERE data ->> $1 <> $2', [
    'accountId',
    member.session.account.id,
  ]);
  expect((await member.ask('GET', '/session')).cookies).toHaveLength(1);
  const begun = await last();
  const again = await member.ask('GET', '/session');
  expect([again.statusCode, again.cookies]).toEqual([200, []]);
  expect(await last()).toEqual(begun);
  // A day later.
  await server.db.query(
    `UPDATE login_session SET data = jsonb_set(data, '{usedOn}', '"2026-01-05"'), expires_at = now() + interval '13 days'`,
  );
  expect((await member.ask('GET', '/session')).cookies).toHaveLength(1);
  const { data, ends } = await last();
  expect(data.usedOn).toBe(new Date().toISOString().slice(0, 10));
  expect(ends.getTime() - Date.now()).toBeGreaterThan(13.9 * 86_400_000);
});

it('an invitation that is taken back while its link is followed makes nobody a member', async () => {
  await owner.ask('POST', '/invitations', { name: 'Nell', email: 'nell@example.org', role: 'editor' });
  const token = tokenOf(await linkTo('nell@example.org'));
  const joining = await whileHeld('account', {
    ask: () => post(`/joining/${token}`, { password: PASSWORD }),
    meanwhile: () => server.db.query(`DELETE FROM invitation WHERE email = 'nell@example.org'`),
  });
  expect(joining.statusCode).toBe(410);
  expect(await server.services.accounts.findByEmail('nell@example.org')).toBeUndefined();
});

it('a link for a new password that is followed twice at once sets one', async () => {
  const { email } = owner.session.account;
  await post('/forgotten', { email });
  const token = tokenOf(await linkTo(email));
  const answers = await Promise.all(
    [NEW, `${NEW}-2`].map((password) => post('/password', { token, password })),
  );
  expect(answers.map(({ statusCode }) => statusCode).sort()).toEqual([204, 410]);
  const set = [NEW, `${NEW}-2`][answers.findIndex(({ statusCode }) => statusCode === 204)];
  expect((await post('/session', { email, password: set })).statusCode).toBe(200);
});
