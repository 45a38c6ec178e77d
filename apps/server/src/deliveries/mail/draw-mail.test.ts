import type { MailDraft } from '@velarium/contract';
import { PLAIN_LOOK } from '@velarium/core';
import fc from 'fast-check';
import { DomUtils, parseDocument } from 'htmlparser2';
import { describe, expect, it } from 'vitest';
import { drawMail, type MailSetting } from './draw-mail.ts';
import { CONFIRM_PLACE, fillPlaces, LEAVE_PLACE } from './fill-places.ts';

const setting: MailSetting = {
  look: PLAIN_LOOK,
  language: 'en',
  siteName: 'Quillon Fell',
  siteOrigin: 'https://quillonfell.example',
  pictureAddress: 'https://edge.example/pictures/1/640',
  footer: {
    language: 'en',
    words: 'You asked for it.',
    leave: { label: 'Unsubscribe', address: LEAVE_PLACE },
  },
  action: null,
};
const draft = (words: string): MailDraft => ({
  subject: words,
  preview: words,
  heading: words,
  text: [[{ text: words }, { text: words, bold: true, link: 'https://quillonfell.example/' }]],
  picture: { id: '00000000-0000-4000-8000-000000000001', alt: words },
  button: { label: words, address: `https://quillonfell.example/${encodeURIComponent(words)}` },
});

/** Every element with its attributes' names; words cannot add to either. */
const shapeOf = (html: string): string =>
  DomUtils.getElementsByTagName('*', parseDocument(html))
    .map(({ name, attribs }) => `${name} ${Object.keys(attribs).sort().join(' ')}`)
    .join('\n');

const HOSTILE = [
  '<script>alert(1)</script>',
  '"><img src=x onerror=alert(1)>',
  "' onmouseover='alert(1)",
  '</mj-text></mj-column><mj-raw><script>alert(1)</script></mj-raw>',
  '<mj-include path="/etc/passwd" />',
  '<!-- --> ]]> &lt;script&gt;',
  '&#60;script&#62;alert(1)&#60;/script&#62;',
  '{{answer.name}}',
  'שלום, עולם',
  'ends with \\',
];

describe('words in a mail are words', () => {
  it.each(HOSTILE)('%s', async (words) => {
    const plain = await drawMail(draft('Words'), setting);
    const drawn = await drawMail(draft(words), setting);
    expect(shapeOf(drawn.html)).toBe(shapeOf(plain.html));
    // In both parts they read as they were written.
    const heading = DomUtils.textContent(parseDocument(drawn.html).children).replace(/\s+/g, ' ');
    expect(heading).toContain(words.replace(/\s+/g, ' '));
    expect(drawn.text).toContain(words);
  });

  it('also those that somebody sent, in any place and in no other header', async () => {
    const mail = draft('For {{answer.name|friend}}');
    const plain = fillPlaces(mail.subject, await drawMail(mail, setting), [], {
      leave: 'https://edge.example/leave/x',
    });
    expect(plain.subject).toBe('For friend');
    await fc.assert(
      fc.asyncProperty(
        fc.oneof(fc.constantFrom(...HOSTILE), fc.string({ unit: 'binary' })),
        async (value) => {
          const filled = fillPlaces(
            mail.subject,
            await drawMail(mail, setting),
            [{ id: 'name', kind: 'name', label: 'Name', value }],
            { leave: 'https://edge.example/leave/x' },
          );
          expect(filled.subject).not.toMatch(/[\r\n]/);
          expect(shapeOf(filled.html)).toBe(shapeOf(plain.html));
        },
      ),
      { numRuns: 40 },
    );
  });
});

it('carries its links, each to its own address', async () => {
  const drawn = await drawMail(
    { ...draft('Words'), text: [[{ text: 'tours', link: '/night-tours' }]] },
    { ...setting, action: { label: 'Yes', address: CONFIRM_PLACE } },
  );
  const { html, text } = fillPlaces('x', drawn, [], {
    confirm: 'https://edge.example/confirm/a~b.c-d_e',
    leave: 'https://edge.example/leave/x',
  });
  const links = DomUtils.getElementsByTagName('a', parseDocument(html)).map(({ attribs }) => attribs.href);
  expect(new Set(links)).toEqual(
    new Set([
      'https://quillonfell.example/night-tours',
      'https://edge.example/confirm/a~b.c-d_e',
      'https://edge.example/leave/x',
    ]),
  );
  expect(text).toContain('Yes: https://edge.example/confirm/a~b.c-d_e');
});
