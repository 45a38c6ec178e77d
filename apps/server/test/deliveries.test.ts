import type {
  Answer,
  Campaign,
  Connection,
  Delivery,
  DeliveryPage,
  FollowUp,
  MailDraft,
  SaveConnection,
  ShownSecret,
} from '@velarium/contract';
import { type CloudEvent, HTTP } from 'cloudevents';
import { Webhook } from 'standardwebhooks';
import { afterAll, beforeAll, beforeEach, describe, expect, it, test, vi } from 'vitest';
import { createMailbox, createReceiver } from './receivers.ts';
import {
  BROWSER,
  createCampaign,
  createTestServer,
  createWorkspace,
  eventId,
  type Member,
  ORIGIN,
  randomVisitor,
  type TestServer,
} from './server.ts';

let server: TestServer;
let mailbox: Awaited<ReturnType<typeof createMailbox>>;
let receiver: Awaited<ReturnType<typeof createReceiver>>;
let sending: { stop(): Promise<void> };
let owner: Member;
let campaign: Campaign;
let form: string;

beforeAll(async () => {
  mailbox = await createMailbox();
  receiver = await createReceiver();
  server = await createTestServer({
    ownMailbox: { server: `127.0.0.1:${mailbox.port}`, from: 'letters@quillonfell.example' },
  });
  sending = server.services.deliveries.startSending();
});
afterAll(async () => {
  await sending.stop();
  await server.close();
  await mailbox.close();
  await receiver.close();
});
beforeEach(async () => {
  mailbox.mails.length = 0;
  mailbox.refuse(null);
  receiver.calls.length = 0;
  receiver.answer({ status: 202 });
  owner = await createWorkspace(server);
  campaign = await createCampaign(owner);
  await owner.ask('POST', `/campaigns/${campaign.id}/publish`, { revision: campaign.revision });
  form =
    campaign.document.message.steps.flatMap(({ blocks }) => blocks).find(({ kind }) => kind === 'form')?.id ??
    '';
});

const mail = (subject: string, more: Partial<MailDraft> = {}): MailDraft => ({
  subject,
  preview: 'Clear skies',
  heading: 'Hello {{answer.email|you}}',
  text: [[{ text: 'The dome is open on ' }, { text: 'Friday', bold: true }, { text: '.' }]],
  picture: null,
  button: { label: 'See the dates', address: 'https://quillonfell.example/dates' },
  ...more,
});

const follow = (followUp: Partial<FollowUp>) =>
  owner.ask('PUT', `/campaigns/${campaign.id}/follow-ups/${form}`, {
    confirmation: null,
    welcome: [],
    notice: null,
    ...followUp,
  });

async function answer(email: string, more: object = {}): Promise<string> {
  const id = eventId();
  const response = await server.edge.inject({
    method: 'POST',
    url: '/submit',
    headers: { origin: ORIGIN, 'content-type': 'text/plain', 'user-agent': BROWSER },
    payload: JSON.stringify({
      site: owner.siteKey,
      visitor: randomVisitor(),
      event: {
        id,
        kind: 'converted',
        session: eventId(),
        page: '/tours',
        device: 'desktop',
        campaign: campaign.id,
        version: 1,
      },
      showing: eventId(Date.now() - 20_000),
      fields: { email },
      consent: true,
      ...more,
    }),
  });
  expect(response.statusCode, response.body).toBe(204);
  return id;
}

const site = (path: string) => `/sites/${owner.siteId}/${path}`;
const outbox = async (query = ''): Promise<readonly Delivery[]> =>
  (await owner.ask('GET', site(`deliveries${query}`))).json<DeliveryPage>().deliveries;
const answers = async (query = ''): Promise<readonly Answer[]> =>
  (await owner.ask('GET', site(`answers${query}`))).json().answers;
/** As soon as something holds; the worker looks several times a second. */
const soon = (check: () => unknown) => vi.waitFor(check, { timeout: 8000, interval: 40 });
/** Lets the time come at which what failed is tried again. */
const hurry = () =>
  server.db.query(
    `UPDATE delivery SET due_at = now() WHERE site_id = $1 AND state IN ('waiting', 'retrying')`,
    [owner.siteId],
  );

const connect = async (settings: Partial<SaveConnection> = {}): Promise<ShownSecret> =>
  (
    await owner.ask('POST', site('connections'), {
      kind: 'events',
      name: 'Records',
      address: receiver.address,
      events: ['answer.stored', 'person.confirmed', 'person.left', 'person.erased'],
      campaigns: null,
      ...settings,
    })
  ).json<ShownSecret>();

describe('a welcome mail', () => {
  it('goes out once, in both parts, with a way to leave by one press', async () => {
    await follow({ welcome: [{ afterDays: 0, mail: mail('Welcome, {{answer.email|friend}}') }] });
    await answer('Lark@Example.ORG');
    await soon(() => expect(mailbox.mails).toHaveLength(1));
    const [sent] = mailbox.mails;
    // RFC 5321, 2.4: the local part is the receiver's own, the domain has no case.
    expect(sent?.to).toEqual(['Lark@example.org']);
    expect(sent?.mail.subject).toBe('Welcome, Lark@Example.ORG');
    expect(sent?.mail.from?.text).toContain('letters@quillonfell.example');
    expect(sent?.mail.text).toContain('See the dates: https://quillonfell.example/dates');
    expect(sent?.mail.html).toContain('<b>Friday</b>');
    const [delivery] = await outbox();
    expect(sent?.mail.messageId).toBe(`<${delivery?.id}@quillonfell.example>`);
    expect(delivery).toMatchObject({ kind: 'welcome', state: 'sent', tries: 1 });
    // RFC 8058, 3.1: both headers, and a POST to the address does it.
    expect(sent?.mail.headers.get('list')).toMatchObject({
      unsubscribe: { url: expect.stringContaining('https://edge.example/leave/') },
      'unsubscribe-post': { name: 'List-Unsubscribe=One-Click' },
    });
    // What acts for somebody is not shown to the team.
    const { sent: shown } = (await owner.ask('GET', site(`deliveries/${delivery?.id}`))).json<{
      sent: string;
    }>();
    expect(shown).toContain('List-Unsubscribe');
    expect(shown.replaceAll(/=\r?\n/g, '')).not.toMatch(/leave\/[A-Za-z0-9_~-]{20}/);
  });

  it('fills its places with plain words, never with markup or another header', async () => {
    await follow({
      welcome: [
        { afterDays: 0, mail: mail('For {{answer.email}}', { heading: '{{answer.email}} & <you>' }) },
      ],
    });
    await answer("o'xo'@example.org");
    await soon(() => expect(mailbox.mails).toHaveLength(1));
    expect(mailbox.mails[0]?.mail.html).toContain('o&#39;xo&#39;@example.org &#38; &#60;you&#62;');
  });

  it('comes in a series, days apart, and stops when the person leaves', async () => {
    await follow({
      welcome: [
        { afterDays: 0, mail: mail('First') },
        { afterDays: 3, mail: mail('Second') },
      ],
    });
    await answer('lark@example.org');
    await soon(() => expect(mailbox.mails).toHaveLength(1));
    const waiting = (await outbox('?state=waiting'))[0] as Delivery;
    expect(Math.round((Date.parse(waiting.dueAt) - Date.now()) / 86_400_000)).toBe(3);

    const list = mailbox.mails[0]?.mail.headers.get('list') as unknown as
      | { unsubscribe: { url: string } }
      | undefined;
    const leave = new URL(list?.unsubscribe.url ?? '').pathname;
    // A scanner that follows links changes nothing.
    const page = await server.edge.inject({ url: leave });
    expect(page.body).toContain('<button>Unsubscribe</button>');
    expect((await answers())[0]?.person?.state).toBe('agreed');
    const done = await server.edge.inject({
      method: 'POST',
      url: leave,
      headers: { 'content-type': 'application/x-www-form-urlencoded' },
      payload: 'List-Unsubscribe=One-Click',
    });
    expect(done.statusCode).toBe(200);
    expect((await answers())[0]?.person?.state).toBe('left');
    expect(await outbox('?state=stopped')).toMatchObject([
      { id: waiting.id, words: 'They have unsubscribed.' },
    ]);

    // Nothing at all to somebody who left, whatever they answer.
    await answer('lark@EXAMPLE.org');
    await hurry();
    await new Promise((resolve) => setTimeout(resolve, 600));
    expect(mailbox.mails).toHaveLength(1);
  });
});

describe('confirmation', () => {
  const confirmation = {
    endsAfterDays: 7,
    remindAfterDays: 2,
    mail: mail('Was that you?', { button: null }),
  };
  const linkOf = (at: number) =>
    /https:\/\/edge\.example(\/confirm\/[^"\s]+)/.exec(String(mailbox.mails[at]?.mail.text))?.[1] ?? '';

  it('is all that is sent until its button is pressed; then the rest follows', async () => {
    await connect();
    await follow({ confirmation, welcome: [{ afterDays: 0, mail: mail('Welcome') }] });
    await answer('wren@example.org');
    await soon(() => expect(mailbox.mails.map((one) => one.mail.subject)).toEqual(['Was that you?']));
    expect((await answers())[0]?.person?.state).toBe('waiting');

    const link = linkOf(0);
    const page = await server.edge.inject({ url: link });
    expect(page.headers['content-security-policy']).toContain("default-src 'none'");
    expect(page.headers['referrer-policy']).toBe('no-referrer');
    expect((await answers())[0]?.person?.state).toBe('waiting');
    const pressed = await server.edge.inject({ method: 'POST', url: link });
    expect(pressed.body).toContain('Confirmed');
    await soon(() =>
      expect(mailbox.mails.map((one) => one.mail.subject)).toEqual(['Was that you?', 'Welcome']),
    );
    expect((await answers())[0]?.person?.state).toBe('confirmed');
    expect(await outbox('?kind=reminder')).toMatchObject([
      { state: 'stopped', words: 'They have confirmed.' },
    ]);
    await soon(() =>
      expect(receiver.calls.map(({ body }) => JSON.parse(body).type)).toEqual([
        'example.velarium.answer.stored',
        'example.velarium.person.confirmed',
      ]),
    );
    // For one use: again it says so and sends nothing.
    expect((await server.edge.inject({ method: 'POST', url: link })).body).toContain('Confirmed already');
    await new Promise((resolve) => setTimeout(resolve, 400));
    expect(mailbox.mails).toHaveLength(2);
    // Asked once, for good.
    await answer('wren@example.org');
    await soon(() => expect(mailbox.mails).toHaveLength(3));
    expect(mailbox.mails[2]?.mail.subject).toBe('Welcome');
  });

  it('reminds once, and its link ends', async () => {
    await follow({ confirmation });
    await answer('wren@example.org');
    await soon(() => expect(mailbox.mails).toHaveLength(1));
    await hurry();
    await soon(() => expect(mailbox.mails).toHaveLength(2));
    expect(linkOf(1)).toMatch(/^\/confirm\//);
    vi.setSystemTime(Date.now() + 8 * 86_400_000);
    try {
      expect((await server.edge.inject({ method: 'POST', url: linkOf(0) })).body).toContain(
        'This link has ended',
      );
    } finally {
      vi.useRealTimers();
    }
    expect((await answers())[0]?.person?.state).toBe('waiting');
  });

  test.each([
    ['/confirm/nothing'],
    ['/confirm/confirm~00000000-0000-4000-8000-000000000000~zzzz.AAAA'],
    ['/leave/leave~00000000-0000-4000-8000-000000000000.AAAA'],
  ])('%s, which we did not sign, does nothing', async (address) => {
    expect((await server.edge.inject({ method: 'POST', url: address })).statusCode).toBe(404);
  });

  it('takes no link of one kind for the other', async () => {
    await follow({ confirmation });
    await answer('wren@example.org');
    await soon(() => expect(mailbox.mails).toHaveLength(1));
    const forged = linkOf(0).replace('/confirm/', '/leave/');
    expect((await server.edge.inject({ method: 'POST', url: forged })).statusCode).toBe(404);
  });
});

describe('a notice to the team', () => {
  it('goes to every mailbox at once, with the person to reply to', async () => {
    await follow({
      notice: { to: ['desk@quillonfell.example', 'dome@quillonfell.example'], rhythm: 'atOnce' },
    });
    await answer('lark@example.org');
    await soon(() => expect(mailbox.mails).toHaveLength(1));
    const [sent] = mailbox.mails;
    expect(sent?.to).toEqual(['desk@quillonfell.example', 'dome@quillonfell.example']);
    expect(sent?.mail.replyTo?.text).toBe('lark@example.org');
    expect(sent?.mail.text).toContain('Your mail address: lark@example.org');
    expect(sent?.mail.headers.get('list')).toBeUndefined();
  });

  it('or once a day, with all of them', async () => {
    await follow({ notice: { to: ['desk@quillonfell.example'], rhythm: 'daily' } });
    await answer('lark@example.org');
    await answer('wren@example.org');
    const [digest] = await outbox();
    expect(await outbox()).toHaveLength(1);
    // Seven in the morning of the site's own next day.
    expect(digest).toMatchObject({ kind: 'digest', state: 'waiting' });
    const hour = new Intl.DateTimeFormat('en-GB', { timeStyle: 'short', timeZone: 'Europe/London' });
    expect(hour.format(new Date(digest?.dueAt ?? 0))).toBe('07:00');
    await hurry();
    await soon(() => expect(mailbox.mails).toHaveLength(1));
    expect(mailbox.mails[0]?.mail.subject).toMatch(/^2 answers to “Campaign” on /);
    expect(mailbox.mails[0]?.mail.text).toMatch(/lark@example\.org[\s\S]*wren@example\.org/);
  });
});

it('what went out because of answers is forgotten with them when they are kept no longer', async () => {
  await connect();
  await follow({
    welcome: [{ afterDays: 0, mail: mail('Welcome') }],
    notice: { to: ['desk@quillonfell.example'], rhythm: 'daily' },
  });
  await answer('merlin@example.org');
  await soon(() => expect(mailbox.mails).toHaveLength(1));
  await hurry();
  await soon(() => expect(mailbox.mails).toHaveLength(2));
  const list = mailbox.mails[0]?.mail.headers.get('list') as unknown as
    | { unsubscribe: { url: string } }
    | undefined;
  await server.edge.inject({ method: 'POST', url: new URL(list?.unsubscribe.url ?? '').pathname });
  await soon(() => expect(receiver.calls).toHaveLength(2));
  await soon(async () => expect(await outbox('?state=waiting')).toEqual([]));
  await owner.ask('PUT', site('kept-answers'), { days: 30 });
  const traces = async () => {
    const found: string[] = [];
    for (const table of ['lead', 'person', 'delivery', 'delivery_try'])
      if ((await server.db.query(`SELECT 1 FROM ${table} t WHERE t::text ILIKE '%merlin%'`)).length > 0)
        found.push(table);
    return found;
  };
  expect(await traces()).toEqual(['lead', 'person', 'delivery']);
  const { people, deliveries } = server.services;
  await people.tidy(deliveries.forgetOld);
  expect(await traces()).toEqual(['lead', 'person', 'delivery']);
  await server.db.query(
    `UPDATE lead SET submitted_at = submitted_at - interval '31 days' WHERE site_id = $1`,
    [owner.siteId],
  );
  await server.db.query(
    `UPDATE delivery SET payload = payload || jsonb_build_object('from', now() - interval '32 days', 'until', now() - interval '30 days')
      WHERE kind = 'digest' AND site_id = $1`,
    [owner.siteId],
  );
  await people.tidy(deliveries.forgetOld);
  expect(await traces()).toEqual([]);
  // Who left is not written to again, though nobody knows any more who that was.
  expect(await people.isNeverWrittenTo(server.db.manager, owner.siteId, 'merlin@example.org')).toBe(true);
  expect((await outbox()).map(({ kind }) => kind)).toEqual(['digest']);
});

it('what follows an answer goes with a copy of the campaign, to another site without its pictures', async () => {
  const picture = { id: '00000000-0000-4000-8000-000000000001', alt: 'The dome {at night}' };
  await follow({ welcome: [{ afterDays: 0, mail: mail('Welcome', { picture }) }] });
  const of = async (id: string): Promise<FollowUp> =>
    (await owner.ask('GET', `/campaigns/${id}/follow-ups/${form}`)).json();
  const copy = (await owner.ask('POST', `/campaigns/${campaign.id}/duplicate`)).json<Campaign>();
  expect((await of(copy.id)).welcome).toEqual((await of(campaign.id)).welcome);
  const other = (
    await owner.ask('POST', '/sites', { name: 'Other', origins: ['https://other.example'], timeZone: 'UTC' })
  ).json<{ id: string }>();
  const arrived = (
    await owner.ask('POST', `/campaigns/${campaign.id}/copy`, { siteId: other.id, isTrial: false })
  ).json<{ campaign: Campaign }>();
  const [welcome] = (await of(arrived.campaign.id)).welcome;
  expect(welcome?.mail).toMatchObject({ subject: 'Welcome', picture: null });
});

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
    await receiver.close();
    receiver = await createReceiver();
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

describe('mail that is not taken', () => {
  it('for now is tried again; for good is given up, in words', async () => {
    await follow({ welcome: [{ afterDays: 0, mail: mail('Welcome') }] });
    mailbox.refuse(451, 'come back later');
    await answer('lark@example.org');
    await soon(async () =>
      expect((await outbox())[0]).toMatchObject({
        state: 'retrying',
        words: expect.stringContaining('come back later'),
      }),
    );
    mailbox.refuse(550, 'no such mailbox');
    await hurry();
    await soon(async () =>
      expect((await outbox())[0]).toMatchObject({
        state: 'givenUp',
        words: expect.stringContaining('no such mailbox'),
      }),
    );
  });
});

describe('sending of one’s own', () => {
  const settings = () => ({
    host: '127.0.0.1',
    port: mailbox.port,
    security: 'none',
    user: '',
    password: 'hush-hush-dome',
    fromName: 'Quillon Fell',
    fromAddress: 'dome@quillonfell.example',
  });
  it('is used, its password sealed and never shown again', async () => {
    expect((await owner.ask('POST', '/sending/trials', settings())).json()).toEqual({
      isGood: true,
      words: '127.0.0.1 takes mail.',
    });
    const saved = await owner.ask('PUT', '/sending', settings());
    expect(saved.json()).toMatchObject({ hasPassword: true, settings: { password: null } });
    expect(saved.body).not.toContain('hush');
    expect(JSON.stringify(await server.db.query('SELECT * FROM sending'))).not.toContain('hush');
    await follow({ welcome: [{ afterDays: 0, mail: mail('Welcome') }] });
    await answer('lark@example.org');
    await soon(() =>
      expect(mailbox.mails[0]?.mail.from?.text).toBe('"Quillon Fell" <dome@quillonfell.example>'),
    );
  });
  it('keeps its password for the server it was given for', async () => {
    await owner.ask('PUT', '/sending', settings());
    const kept = { ...settings(), password: null };
    expect((await owner.ask('PUT', '/sending', kept)).json()).toMatchObject({ hasPassword: true });
    const elsewhere = { ...kept, host: 'mail.elsewhere.example' };
    for (const [method, path] of [
      ['PUT', '/sending'],
      ['POST', '/sending/trials'],
    ] as const)
      expect((await owner.ask(method, path, elsewhere)).json()).toMatchObject({
        status: 422,
        code: 'secret-anew',
      });
  });
  it('says what is wrong in words', async () => {
    const closed = { ...settings(), port: 9 };
    const { isGood, words } = (await owner.ask('POST', '/sending/trials', closed)).json();
    expect(isGood).toBe(false);
    expect(words).toMatch(/^127\.0\.0\.1, port 9, could not be reached/);
  });
  it('is the owner’s alone, and none of another workspace’s', async () => {
    await owner.ask('PUT', '/sending', settings());
    const other = await createWorkspace(server);
    expect((await other.ask('GET', '/sending')).json()).toMatchObject({ settings: null });
    for (const path of ['deliveries', 'connections'])
      expect((await other.ask('GET', `/sites/${owner.siteId}/${path}`)).statusCode).toBe(404);
    expect((await other.ask('GET', `/campaigns/${campaign.id}/follow-ups/${form}`)).statusCode).toBe(404);
  });
});
