import type { ArrivedCampaign, Campaign, CampaignFile, Delivery, FollowUp } from '@velarium/contract';
import { describe, expect, it } from 'vitest';
import {
  answer,
  answers,
  campaign,
  connect,
  follow,
  form,
  hurry,
  mail,
  mailbox,
  outbox,
  owner,
  receiver,
  server,
  sharesDeliveries,
  site,
  soon,
} from './delivering.ts';
import { createWorkspace } from './server.ts';

sharesDeliveries();

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
  // A file takes it along too, but not whom the team that wrote it had told.
  await follow({
    welcome: [{ afterDays: 0, mail: mail('Welcome') }],
    notice: { to: ['desk@quillonfell.example'], rhythm: 'atOnce' },
  });
  const file = (await owner.ask('GET', `/campaigns/${campaign.id}/file`)).json<CampaignFile>();
  const stranger = await createWorkspace(server);
  const made = await stranger.ask('POST', `/sites/${stranger.siteId}/campaigns/file`, file);
  const { campaign: theirs, lost } = made.json<ArrivedCampaign>();
  const ofTheirs = await stranger.ask('GET', `/campaigns/${theirs.id}/follow-ups/${form}`);
  expect(ofTheirs.json()).toMatchObject({ welcome: [{ mail: { subject: 'Welcome' } }], notice: null });
  expect(lost).toEqual([expect.stringContaining('desk@quillonfell.example')]);
  expect(welcome?.mail).toMatchObject({ subject: 'Welcome', picture: null });
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
