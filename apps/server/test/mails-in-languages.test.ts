import type { Campaign, MailDraft } from '@velarium/contract';
import { withLanguage } from '@velarium/core';
import { describe, expect, it, test } from 'vitest';
import {
  answer,
  campaign,
  follow,
  form,
  mail,
  mailbox,
  owner,
  server,
  sharesDeliveries,
  soon,
} from './delivering.ts';

sharesDeliveries();

/** Publishes the campaign in English, Welsh and Arabic; answers with the file of one of them. */
async function fileIn(language: string): Promise<string> {
  const { revision, document } = (await owner.ask('GET', `/campaigns/${campaign.id}`)).json<Campaign>();
  const message = ['en', 'cy', 'ar'].reduce((made, one) => withLanguage(made, one), document.message);
  await owner.ask('PUT', `/campaigns/${campaign.id}/draft`, { revision, document: { ...document, message } });
  await owner.publish(campaign.id);
  const [live] = (await server.manifestOf(owner.siteKey)).campaigns;
  return live?.languages?.find(([one]) => one === language)?.[1] ?? '';
}
const subjects = () => mailbox.mails.map((one) => one.mail.subject);
const linkIn = (deed: 'confirm' | 'leave', at: number) =>
  new RegExp(`https://edge\\.example(/${deed}/[^"\\s]+)`).exec(String(mailbox.mails[at]?.mail.text))?.[1] ??
  '';
const press = (url: string) => server.edge.inject({ method: 'POST', url });
const plain = (subject: string): MailDraft => mail(subject, { heading: subject, button: null });

describe('somebody who answered in another language', () => {
  it('is asked, welcomed and told in it, by mails and by the pages behind their links', async () => {
    await follow({
      confirmation: {
        endsAfterDays: 7,
        remindAfterDays: null,
        mail: plain('Was that you?'),
        languages: { cy: plain('Ai chi oedd hwnna?') },
      },
      welcome: [
        { afterDays: 0, mail: plain('Welcome'), languages: { cy: plain('Croeso'), ar: plain('مرحبًا') } },
      ],
    });
    await answer('eira@example.org', { version: 2, message: await fileIn('cy') });
    await soon(() => expect(subjects()).toEqual(['Ai chi oedd hwnna?']));
    expect(mailbox.mails[0]?.mail.text).toContain('Ie, fi oedd hwnnw: https://edge.example/confirm/');
    expect(mailbox.mails[0]?.mail.html).toMatch(/<html[^>]* lang="cy"/);
    const link = linkIn('confirm', 0);
    const asked = await server.edge.inject({ url: link });
    expect(asked.body).toContain('<html lang="cy" dir="ltr">');
    expect(asked.body).toContain('<button>Ie, fi oedd hwnnw</button>');
    expect((await press(link)).body).toContain('Wedi’i gadarnhau');
    await soon(() => expect(subjects()).toEqual(['Ai chi oedd hwnna?', 'Croeso']));
    expect(mailbox.mails[1]?.mail.text).toContain('Dad-danysgrifio: https://edge.example/leave/');
    const left = await press(linkIn('leave', 1));
    expect(left.body).toContain('Wedi dad-danysgrifio');
  });

  it('gets the original laid out as that is written, and below it words of their own', async () => {
    await follow({ welcome: [{ afterDays: 0, mail: plain('Welcome') }] });
    await answer('layla@example.org', { version: 2, message: await fileIn('ar') });
    await soon(() => expect(subjects()).toEqual(['Welcome']));
    const html = String(mailbox.mails[0]?.mail.html);
    expect(html).toMatch(/lang="en" dir="ltr"/);
    expect(html).toMatch(/<span lang="ar" dir="rtl">[^<]*<a[^>]*>إلغاء الاشتراك/);
  });

  it('reads from right to left where it is written so', async () => {
    await follow({
      welcome: [{ afterDays: 0, mail: plain('Welcome'), languages: { ar: plain('مرحبًا') } }],
    });
    await answer('layla@example.org', { version: 2, message: await fileIn('ar') });
    await soon(() => expect(subjects()).toEqual(['مرحبًا']));
    const html = String(mailbox.mails[0]?.mail.html);
    expect(html).toMatch(/<html[^>]* dir="rtl"/);
    expect(html).toContain('text-align:right');
    expect(html).toContain('إلغاء الاشتراك');
    expect((await server.edge.inject({ url: linkIn('leave', 0) })).body).toContain(
      '<html lang="ar" dir="rtl">',
    );
  });

  test.each<[language: string, leave: string]>([
    ['cy', 'Dad-danysgrifio'],
    ['en', 'Unsubscribe'],
  ])(
    'gets the original where a mail is not written in it; what stands below it is in %s',
    async (language, leave) => {
      await follow({
        welcome: [{ afterDays: 0, mail: plain('Welcome'), languages: { ar: plain('مرحبًا') } }],
      });
      await answer('wren@example.org', { version: 2, message: await fileIn(language) });
      await soon(() => expect(subjects()).toEqual(['Welcome']));
      expect(mailbox.mails[0]?.mail.text).toContain(`${leave}: https://edge.example/leave/`);
    },
  );
});

it('a mail in no language, or without a subject, is refused with the place', async () => {
  const welcome = (languages: object) =>
    follow({ welcome: [{ afterDays: 0, mail: plain('Welcome'), languages }] } as never);
  for (const [languages, path] of [
    [{ Welsh: plain('Croeso') }, 'welcome.0.languages.Welsh'],
    [{ cy: { ...plain('x'), subject: ' ' } }, 'welcome.0.languages.cy.subject'],
  ] as const) {
    const refused = await welcome(languages);
    expect(refused.statusCode).toBe(422);
    expect(refused.json().fields[0].path).toContain(path);
  }
  expect((await welcome({ cy: plain('Croeso') })).statusCode).toBe(204);
  expect((await owner.ask('GET', `/campaigns/${campaign.id}/follow-ups/${form}`)).json()).toMatchObject({
    welcome: [{ languages: { cy: { subject: 'Croeso' } } }],
  });
});

it('a mail is looked at in the language it is written in', async () => {
  const preview = await owner.ask('POST', `/sites/${owner.siteId}/mail-previews`, {
    mail: plain('مرحبًا'),
    isConfirmation: true,
    language: 'ar',
    reader: 'ar',
  });
  expect(preview.json()).toMatchObject({ subject: 'مرحبًا', html: expect.stringContaining('نعم، كنت أنا') });
});
