import type { Connection, SaveConnection, ShownSecret } from '@velarium/contract';
import { type CloudEvent, HTTP } from 'cloudevents';
import { Webhook } from 'standardwebhooks';
import { describe, expect, it, test } from 'vitest';
import {
  answer,
  campaign,
  connect,
  mailbox,
  outbox,
  owner,
  receiver,
  renewReceiver,
  server,
  sharesDeliveries,
  site,
  soon,
} from './delivering.ts';
import { createReceiver } from './receivers.ts';
import { ORIGIN } from './server.ts';

sharesDeliveries();

describe('a connection', () => {
  // Checked with the reference libraries of both standards.
  it('gets CloudEvents 1.0, signed as Standard Webhooks say, with both secrets while one is changed', async () => {
    const { secret, connection } = await connect();
    await answer('lark@example.org');
    await soon(() => expect(receiver.calls).toHaveLength(1));
    const [call] = receiver.calls;
    const event = HTTP.toEvent({ headers: call?.headers as never, body: call?.body }) as CloudEvent<
      Record<string, unknown>
    >;
    expect(event.validate()).toBe(true);
    expect(event).toMatchObject({
      specversion: '1.0',
      type: 'example.velarium.answer.stored',
      source: ORIGIN,
    });
    expect(event.data).toMatchObject({ mail: 'lark@example.org', page: '/tours', campaign: 'Campaign' });
    const [delivery] = await outbox();
    expect(event.id).toBe(delivery?.id);
    const headers = call?.headers as Record<string, string>;
    expect(new Webhook(secret ?? '').verify(call?.body ?? '', headers)).toBeTruthy();
    expect(() => new Webhook(secret ?? '').verify(`${call?.body} `, headers)).toThrow();

    const renewed = (
      await owner.ask('POST', site(`connections/${connection.id}/secrets`))
    ).json<ShownSecret>();
    expect(renewed.connection.secrets).toBe(2);
    await answer('wren@example.org');
    await soon(() => expect(receiver.calls).toHaveLength(2));
    const later = receiver.calls[1];
    for (const one of [secret, renewed.secret])
      expect(
        new Webhook(one ?? '').verify(later?.body ?? '', later?.headers as Record<string, string>),
      ).toBeTruthy();
    // Never shown again.
    const listed = (await owner.ask('GET', site('connections'))).body;
    expect(listed).not.toContain('whsec_');
    expect((await server.db.query('SELECT sealed FROM connection'))[0].sealed).not.toContain('whsec');
  });

  it('shaped by hand gets each answer under its own name, and its secret header from the seal', async () => {
    const { connection } = await connect({
      kind: 'request',
      method: 'PUT',
      body: 'form',
      headers: [
        { name: 'x-key', value: 'dome-key-77', isSecret: true },
        { name: 'x-from', value: 'velarium', isSecret: false },
      ],
      names: [
        { from: 'email', to: 'contact[mail]' },
        { from: 'campaign', to: 'list' },
      ],
    } as Partial<SaveConnection>);
    await answer('lark+sky@example.org');
    await soon(() => expect(receiver.calls).toHaveLength(1));
    const [call] = receiver.calls;
    expect(call?.method).toBe('PUT');
    expect(call?.headers).toMatchObject({ 'x-key': 'dome-key-77', 'x-from': 'velarium' });
    expect([...new URLSearchParams(call?.body)]).toEqual([
      ['contact[mail]', 'lark+sky@example.org'],
      ['list', 'Campaign'],
    ]);
    const [delivery] = await outbox();
    const { sent } = (await owner.ask('GET', site(`deliveries/${delivery?.id}`))).json<{ sent: string }>();
    expect(sent).toContain('x-key: …');
    expect(sent).not.toContain('dome-key-77');
    // Saved again without the value, the secret stays.
    const saved = (await owner.ask('GET', site('connections'))).json<Connection[]>()[0] as Connection;
    await owner.ask('PUT', site(`connections/${connection.id}`), saved.settings);
    await answer('wren@example.org');
    await soon(() => expect(receiver.calls).toHaveLength(2));
    expect(receiver.calls[1]?.headers['x-key']).toBe('dome-key-77');
    // A secret that nobody can read is not had by sending it elsewhere.
    const elsewhere = { ...saved.settings, address: 'https://elsewhere.example/hook' };
    const moved = await owner.ask('PUT', site(`connections/${connection.id}`), elsewhere);
    expect(moved.json()).toMatchObject({ status: 422, code: 'secret-anew' });
    const tried = { settings: elsewhere, connection: connection.id };
    expect((await owner.ask('POST', site('connections/trials'), tried)).json()).toMatchObject({
      code: 'secret-anew',
    });
  });

  it('that comes later can be told of the answers there are, each once', async () => {
    for (const one of ['lark', 'wren', 'owl']) await answer(`${one}@example.org`);
    const { connection } = await connect();
    await answer('merlin@example.org');
    await soon(() => expect(receiver.calls).toHaveLength(1));
    const earlier = () => owner.ask('POST', site(`connections/${connection.id}/earlier`));
    expect((await earlier()).json()).toEqual({ count: 3 });
    expect((await earlier()).json()).toEqual({ count: 0 });
    await soon(() => expect(receiver.calls).toHaveLength(4));
    const told = receiver.calls.map(({ body }) => JSON.parse(body).data.mail).sort();
    expect(told).toEqual(['lark@example.org', 'merlin@example.org', 'owl@example.org', 'wren@example.org']);
    const deaf = await connect({ events: ['person.left'] });
    const refused = await owner.ask('POST', site(`connections/${deaf.connection.id}/earlier`));
    expect(refused.json()).toMatchObject({ code: 'not-of-answers' });
  });

  it('that fails is tried again later, under the same id', async () => {
    receiver.answer({ status: 503, headers: { 'retry-after': '3600' }, body: 'closed for the night' });
    await connect();
    await answer('lark@example.org');
    await soon(async () => expect((await outbox())[0]?.state).toBe('retrying'));
    const [failed] = await outbox();
    expect(failed?.words).toBe('It failed (503).');
    expect(Date.parse(failed?.dueAt ?? '') - Date.now()).toBeGreaterThan(3_500_000);
    const { tries } = (await owner.ask('GET', site(`deliveries/${failed?.id}`))).json();
    expect(tries).toMatchObject([{ isGood: false, status: 503, answer: 'closed for the night' }]);
    receiver.answer({ status: 200 });
    expect(
      (await owner.ask('POST', site('deliveries/moves'), { move: 'again', ids: [failed?.id] })).json(),
    ).toEqual({
      count: 1,
    });
    await soon(async () => expect((await outbox())[0]?.state).toBe('sent'));
    expect(new Set(receiver.calls.map(({ headers }) => headers['webhook-id']))).toEqual(
      new Set([failed?.id]),
    );
  });

  it('that wants nothing more (410) is put to rest, the owners are told, and what comes is held until it is on again', async () => {
    receiver.answer({ status: 410 });
    const { connection } = await connect();
    await answer('lark@example.org');
    await soon(async () =>
      expect((await owner.ask('GET', site('connections'))).json()).toMatchObject([{ state: 'resting' }]),
    );
    await soon(() =>
      expect(mailbox.mails.map((one) => one.mail.subject)).toEqual([
        'The connection “Records” was put to rest',
      ]),
    );
    await answer('wren@example.org');
    expect((await outbox('?state=held')).map(({ kind }) => kind)).toEqual(['event']);
    receiver.answer({ status: 200 });
    await owner.ask('POST', site(`connections/${connection.id}/state`), { state: 'on' });
    await soon(() => expect(receiver.calls).toHaveLength(2));
  });

  it('is not failing because what was for it had no reason any more', async () => {
    const { connection } = await connect();
    await owner.ask('POST', site(`connections/${connection.id}/state`), { state: 'resting' });
    const id = await answer('lark@example.org');
    await server.db.query('DELETE FROM lead WHERE id = $1', [id]);
    await owner.ask('POST', site(`connections/${connection.id}/state`), { state: 'on' });
    await soon(async () => expect((await outbox())[0]?.state).toBe('stopped'));
    const [row] = await server.db.query('SELECT failing_since FROM connection WHERE id = $1', [
      connection.id,
    ]);
    expect(row.failing_since).toBeNull();
  });

  it('that is asked too often is asked again when it says', async () => {
    const later = new Date(Date.now() + 7_200_000).toUTCString();
    receiver.answer({ status: 429, headers: { 'retry-after': later } });
    await connect();
    await answer('lark@example.org');
    await soon(async () => expect((await outbox())[0]?.words).toBe('It is asked too often (429).'));
    const dueMs = Date.parse((await outbox())[0]?.dueAt ?? '');
    expect(Math.abs(dueMs - Date.parse(later))).toBeLessThan(3000);
  });

  it('that answers with garbage is shown as it answered, as far as it can be kept', async () => {
    receiver.answer({ status: 500, body: `\0\ud800<script>${'x'.repeat(5000)}` });
    await connect();
    await answer('lark@example.org');
    await soon(async () => expect((await outbox())[0]?.state).toBe('retrying'));
    const [failed] = await outbox();
    const { tries } = (await owner.ask('GET', site(`deliveries/${failed?.id}`))).json();
    expect(tries[0].answer.length).toBeLessThanOrEqual(2048);
    expect(tries[0].answer).toContain('<script>');
  });

  test.each<[string, string, RegExp]>([
    [
      'an address in figures of a private network',
      'http://10.0.0.7/hook',
      /lies in a network that is not asked/,
    ],
    ['one of this machine, by IPv6', 'http://[::1]:9/hook', /lies in a network that is not asked/],
    ['a name that nobody has', 'http://nobody.invalid/hook', /could not be reached/],
  ])('is never asked at %s', async (_what, address, words) => {
    await connect({ address });
    await answer('lark@example.org');
    await soon(async () => expect((await outbox())[0]?.words).toMatch(words));
  });

  it('is not followed elsewhere', async () => {
    receiver.answer({ status: 302, headers: { location: 'http://127.0.0.1:1/' } });
    await connect();
    await answer('lark@example.org');
    await soon(async () =>
      expect((await outbox())[0]?.words).toBe('It leads elsewhere (302); redirects are not followed.'),
    );
  });

  it('that hangs costs no other anything', async () => {
    receiver.answer('hang');
    await connect();
    const quick = await createReceiver();
    await connect({ name: 'Quick', address: quick.address });
    for (let n = 0; n < 20; n++) await answer(`lark${n}@example.org`);
    await soon(() => expect(quick.calls).toHaveLength(20));
    await quick.close();
    // It would keep the worker of this file busy for ten seconds.
    await renewReceiver();
  });

  it('is told of chosen campaigns and events only', async () => {
    await connect({ campaigns: ['00000000-0000-4000-8000-000000000000'] });
    await connect({ events: ['campaign.rested'] });
    await answer('lark@example.org');
    expect(await outbox()).toEqual([]);
    await owner.ask('POST', `/campaigns/${campaign.id}/rest`);
    await soon(() =>
      expect(receiver.calls.map(({ body }) => JSON.parse(body).type)).toEqual([
        'example.velarium.campaign.rested',
      ]),
    );
  });

  it('is tried on the latest answer, with the real answer shown', async () => {
    receiver.answer({ status: 422, body: '{"wrong":"list"}' });
    await answer('lark@example.org');
    const settings = {
      kind: 'events',
      name: 'T',
      address: receiver.address,
      events: ['answer.stored'],
      campaigns: null,
    };
    const tried = (
      await owner.ask('POST', site('connections/trials'), { settings, connection: null })
    ).json();
    expect(tried).toMatchObject({ status: 422, words: 'It refused this (422).', answer: '{"wrong":"list"}' });
    expect(tried.sent).toContain('lark@example.org');
  });
});
