import { describe, expect, it, test, vi } from 'vitest';
import {
  answer,
  answers,
  connect,
  follow,
  hurry,
  mail,
  mailbox,
  outbox,
  owner,
  receiver,
  server,
  sharesDeliveries,
  soon,
} from './delivering.ts';

sharesDeliveries();

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

  it('lets everything follow that waited for it, whichever form was answered first', async () => {
    await follow({ confirmation, welcome: [{ afterDays: 0, mail: mail('Welcome') }] });
    const first = await answer('wren@example.org');
    const second = await answer('wren@example.org');
    await soon(() => expect(mailbox.mails).toHaveLength(2));
    await server.edge.inject({ method: 'POST', url: linkOf(1) });
    await soon(() => expect(mailbox.mails).toHaveLength(4));
    const welcomed: { lead_id: string }[] = await server.db.query(
      `SELECT lead_id FROM delivery WHERE kind = 'welcome' AND site_id = $1`,
      [owner.siteId],
    );
    expect(welcomed.map(({ lead_id }) => lead_id).sort()).toEqual([first, second].sort());
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
