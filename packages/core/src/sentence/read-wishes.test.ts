import { campaignDocumentSchema } from '@velarium/contract';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { startingDocument, TEMPLATES } from '../templates/templates.ts';
import { type PageNames, readWishes } from './read-wishes.ts';
import { documentSentence, sentenceText } from './rule-sentence.ts';

const names: PageNames = {
  pages: [
    { path: '/', title: 'Home' },
    { path: '/journal/aurora-over-the-fell', title: 'Aurora over the fell' },
    { path: '/journal/finding-saturn', title: 'Finding Saturn without a map' },
    { path: '/shop/basket', title: 'Basket' },
    { path: '/membership', title: 'Membership' },
  ],
  groups: [{ id: '00000000-0000-4000-8000-000000000001', name: 'Night tours' }],
  kinds: ['article'],
};
const template = TEMPLATES.find(({ id }) => id === 'corner-invitation') ?? TEMPLATES[0];
if (!template) throw new Error('expected a template');
const start = startingDocument(template);
const said = (text: string) =>
  sentenceText(
    documentSentence(readWishes(text, names).apply(start), {
      campaign: (id) => id,
      group: () => 'Night tours',
    }),
  );

describe('what is typed becomes the rule, and the sentence says it back', () => {
  it.each([
    [
      'after 20 seconds on journal, not on phones, once a week',
      [
        /opens after 20 seconds only on what begins with \/journal\//,
        /on desktop and tablet only/,
        /once every week/,
      ],
    ],
    ['at once everywhere', [/opens at once on every page/]],
    ['after 2 minutes or on leaving', [/after 120 seconds or at a likely sign of leaving by mouse/]],
    ['40 % and after 18 s, both', [/after 40 % of the page and after 18 seconds \(all of them\)/]],
    [
      '30 s of stillness on night tours',
      [/after 30 seconds of stillness only on the pages of the group “Night tours”/],
    ],
    ['on articles, once every 10 days', [/only on pages of the kind “article”/, /once every 10 days/]],
    ['on every page, never on basket', [/on every page but not on \/shop\/basket/]],
    ['only on phones, once per visitor', [/on phone only/, /once per visitor/]],
    [
      'on /a/b, closes by itself after 40 seconds',
      [/only on \/a\/b/, /It closes by itself after 40 seconds/],
    ],
    ['on saturn', [/only on \/journal\/finding-saturn/]],
    ['3 times a day', [/at most 3 times every day/]],
  ] as const)('%s', (text, expected) => {
    for (const words of expected) expect(said(text)).toMatch(words);
    expect(readWishes(text, names).rest).toEqual([]);
  });
  it.each([
    ['dance on the moon', ['dance', 'on the moon']],
    ['after 5 seconds, please', ['please']],
    ['', []],
  ])('of %j what is not understood is said: %j', (text, rest) => {
    expect(readWishes(text, names).rest).toEqual(rest);
  });
  it('whatever is typed, the campaign stays one', () => {
    const words = fc.constantFrom(
      'after',
      '20',
      's',
      'on',
      'not',
      'phones',
      'journal',
      'once',
      'a',
      'week',
      '%',
      ',',
      'only',
      '/x',
      'every',
      'leaving',
    );
    fc.assert(
      fc.property(
        fc.oneof(
          fc.string(),
          fc.array(words, { maxLength: 12 }).map((list) => list.join(' ')),
        ),
        (text) => {
          const { apply, isUnderstood } = readWishes(text, names);
          const document = apply(start);
          expect(campaignDocumentSchema.safeParse(document).error?.issues ?? []).toEqual([]);
          if (!isUnderstood) expect(document).toBe(start);
        },
      ),
      { numRuns: 2000 },
    );
  });
});
