import type { Message, RichText } from '@velarium/contract';
import { messageSchema } from '@velarium/contract';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
// @ts-expect-error the package has no types
import { xliff2js } from 'xliff';
import { mergeDocuments } from '../merge/merge.ts';
import { newBlock, PLAIN_STYLE } from '../message/plain.ts';
import { tidyRichText } from '../message/tidy-text.ts';
import { field, first, heading, message as messageOf } from '../templates/build.ts';
import { changeTemplate } from '../templates/change-template.ts';
import { TEMPLATES } from '../templates/templates.ts';
import { chooseLanguage } from './choose-language.ts';
import { writingDirection } from './direction.ts';
import { languageFindings } from './language-findings.ts';
import { differingMarks, markedText, piecesOf, richTextOf } from './marked-text.ts';
import { changeMessageTexts, messageTexts } from './message-texts.ts';
import { ownWordsIn, SPOKEN, wordsNeeded } from './own-words-in.ts';
import {
  inLanguage,
  translatedTexts,
  translationState,
  type Written,
  withLanguage,
  withoutLanguage,
  withTranslated,
} from './translate.ts';
import { xliffOf } from './xliff.ts';

/** Greets by name, asks for an address, and sets two words apart. */
const CONTENT: RichText = [
  [{ text: 'Come ' }, { text: 'tonight', bold: true }, { text: ' or ' }, { text: 'later', link: '/when' }],
  [{ text: 'It is free.' }],
];
const GREETING: Message = messageOf('flyin', 'bottom-end', 'A letter', PLAIN_STYLE, [
  first(
    heading('title', 'Good evening, {{visitor.firstName|friend}}'),
    { ...newBlock('text'), content: CONTENT },
    { ...newBlock('form'), fields: [field('email', 'email', 'Your mail address')] },
  ),
]);
const english = withLanguage(GREETING, 'en');
const write = (message: Message, language: string, texts: Readonly<Record<string, string>>): Message =>
  withTranslated(
    message,
    message,
    language,
    Object.fromEntries(Object.entries(texts).map(([key, text]): [string, Written] => [key, { text }])),
  );
const welsh = write(withLanguage(english, 'cy'), 'cy', {
  'title.text': 'Noswaith dda, {{visitor.firstName|ffrind}}',
  'text.text': 'Dewch <1>heno</1> neu’n <2>hwyrach</2>\nMae am ddim.',
});

describe('which language is shown', () => {
  // RFC 4647, 3.4: what a range falls back to, written out there for zh-Hant-CN-x-private1-private2.
  it.each(['zh-Hant-CN-x-private1-private2', 'zh-Hant-CN-x-private1', 'zh-Hant-CN', 'zh-Hant', 'zh'])(
    'a range made shorter finds %s',
    (offered) => {
      expect(chooseLanguage(['zh-Hant-CN-x-private1-private2'], ['de', offered])).toBe(offered);
    },
  );
  it.each([
    [['zh-Hant-CN-x-private1-private2'], ['zh-Hant-CN-x', 'de'], undefined],
    [['de-CH', 'cy'], ['cy', 'de'], 'de'],
    [['CY-gb'], ['cy'], 'cy'],
    [['', 'fr', 'es-MX'], ['en', 'es'], 'es'],
    // Lookup never makes a range longer.
    [['pt'], ['pt-BR'], undefined],
    [[], ['en'], undefined],
  ])('%j among %j: %s', (wanted, offered, expected) => {
    expect(chooseLanguage(wanted, offered)).toBe(expected);
  });
});

// Unicode scripts written from right to left, and languages whose likely script (CLDR) says which they are.
it.each([
  ['ar', 'rtl'],
  ['he', 'rtl'],
  ['fa', 'rtl'],
  ['ur', 'rtl'],
  ['yi', 'rtl'],
  ['az-Arab', 'rtl'],
  ['az', 'ltr'],
  ['pa-Arab', 'rtl'],
  ['cy', 'ltr'],
  ['zh-Hant', 'ltr'],
])('%s runs %s', (language, direction) => {
  expect(writingDirection(language)).toBe(direction);
});

describe('words set apart', () => {
  it('stand between numbers, and come back as they look and lead', () => {
    expect(markedText(CONTENT)).toBe('Come <1>tonight</1> or <2>later</2>\nIt is free.');
    expect(richTextOf('<2>Wedyn</2> neu <1>heno</1>', CONTENT)).toEqual([
      [{ text: 'Wedyn', link: '/when' }, { text: ' neu ' }, { text: 'heno', bold: true }],
    ]);
  });
  it('a mark the original has not got is plain words, and is named', () => {
    expect(richTextOf('a <3>b</3>', CONTENT)).toEqual([[{ text: 'a b' }]]);
    expect(differingMarks('a <3>b</3> <1>c</1>', markedText(CONTENT))).toEqual(['<3>', '<2>']);
  });
  it('a mark that is opened twice or never closed is plain words, however often', () => {
    expect(piecesOf('a <1>b <1>c</1> d')).toEqual([
      { text: 'a ' },
      { mark: '1', text: 'b <1>c' },
      { text: ' d' },
    ]);
    const many = '<1>'.repeat(6000);
    expect(piecesOf(many)).toEqual([{ text: many }]);
  });
  it('every rich text comes back whole, whatever stands in it', () => {
    const span = fc.record(
      {
        text: fc.oneof(
          fc.constantFrom('<1>', '</1>', '<2>a</2>', '\\<1>', '<', 'plain'),
          fc.string({ maxLength: 12 }),
        ),
        bold: fc.constant(true as const),
        link: fc.constantFrom('/a', '/b'),
      },
      { requiredKeys: ['text'] },
    );
    fc.assert(
      fc.property(fc.array(fc.array(span, { maxLength: 5 }), { minLength: 1, maxLength: 3 }), (some) => {
        // A stroke before a mark, and a line within a span, are what writing it down cannot tell.
        const content: RichText = some.map((paragraph) =>
          paragraph.map((one) => ({ ...one, text: one.text.replace(/[\\\n]/g, ' ') })),
        );
        expect(richTextOf(markedText(content), content)).toEqual(tidyRichText(content));
      }),
    );
  });
});

describe('texts of a message', () => {
  it('left as they are, leave every template as it is', () => {
    for (const { name, message } of TEMPLATES)
      expect([name, changeMessageTexts(message, (_key, text) => text)]).toEqual([name, message]);
  });
  it('are all changed in what visitors have, in every template', () => {
    for (const { message } of TEMPLATES) {
      const changed = changeMessageTexts(message, (_key, text) => (text ? `~${text}` : text));
      const texts = messageTexts(changed).map(({ text }) => text);
      expect(texts).toEqual(messageTexts(message).map(({ text }) => `~${text}`));
      expect(messageSchema.safeParse(changed).success).toBe(true);
      expect(new Set(messageTexts(message).map(({ key }) => key)).size).toBe(texts.length);
    }
  });
});

describe('texts that can be written in other languages', () => {
  const all: Message = messageOf('flyin', 'bottom-end', 'A letter', PLAIN_STYLE, [
    first(
      heading('title', 'Hello'),
      { ...newBlock('picture'), id: 'seen', alt: 'The ridge' },
      { ...newBlock('picture'), id: 'decoration', alt: 'Nothing', isDecoration: true },
      {
        ...newBlock('form'),
        id: 'form',
        consentText: 'I agree.',
        fields: [
          {
            ...field('tour', 'choice' as never, 'Which tour'),
            placeholder: 'Any',
            options: ['Night', 'Day'],
            errorText: 'Choose',
          },
          { ...field('where', 'hidden' as never, 'Where') },
        ],
      },
      { ...newBlock('countdown'), id: 'ends', whenOver: 'words', overText: 'Over' },
      { ...newBlock('countdown'), id: 'hides', whenOver: 'hide', overText: 'Over' },
      {
        ...newBlock('share'),
        id: 'share',
        ways: [{ id: 'mail', way: 'mail', label: 'By mail', address: '' }],
      },
    ),
  ]);
  it('are told by what they are and where they stand', () => {
    expect(messageTexts(all).map(({ key, what }) => [key, what])).toEqual([
      ['title.text', 'Heading'],
      ['seen.alt', 'What the picture shows'],
      ['form.tour.label', 'Field'],
      ['form.tour.placeholder', 'Which tour: Example in the field'],
      ['form.tour.option-1', 'Which tour: Choice 1'],
      ['form.tour.option-2', 'Which tour: Choice 2'],
      ['form.tour.error', 'Which tour: When the answer does not fit'],
      ['form.consent', 'Consent'],
      ['form.send', 'Button that sends'],
      ['ends.over', 'When it is over'],
      ['share.mail', 'A way to share'],
      ['.name', 'Name for screen readers'],
    ]);
    const worded = { ...all, close: { ...all.close, sign: 'word' as const, word: 'Close' } };
    expect(messageTexts(worded).at(-1)).toMatchObject({ key: '.close', what: 'Close button', text: 'Close' });
    expect(changeMessageTexts(worded, () => 'x').close.word).toBe('x');
    expect(changeMessageTexts(all, () => 'x').close.word).toBe(all.close.word);
  });
  it('are missing by number, and a consent by itself', () => {
    const begun = withLanguage(withLanguage(all, 'en'), 'cy');
    const told = (message: Message) =>
      Object.fromEntries(languageFindings(message).map(({ code, text }) => [code, text]));
    expect(told(begun)['language.consent']).toBe(
      'Who reads it in Welsh is asked for a consent in English. Write it under Languages.',
    );
    const every = Object.fromEntries(messageTexts(all).map(({ key, text }) => [key, `~${text}`]));
    const { 'title.text': _title, ...others } = every;
    expect(told(write(begun, 'cy', others))).toEqual({
      'language.missing': expect.stringMatching(
        /^1 text in Welsh is missing: read in English instead\. Write it /,
      ),
    });
    expect(languageFindings(write(begun, 'cy', every))).toEqual([]);
    expect(told(write(begun, 'cy', { ...every, 'title.text': 'Helo {{visitor.firstName}}' }))).toEqual({
      'language.differs':
        'Heading in Welsh: {{visitor.firstName}} is in only one of the two. Mend it under Languages.',
    });
    // Written as nothing it is taken away again.
    expect(write(write(begun, 'cy', every), 'cy', { 'title.text': ' ' })).toEqual(write(begun, 'cy', others));
  });
  it('of a message that says nothing of languages are nobody’s to write', () => {
    expect(translatedTexts(all, 'cy')).toEqual([]);
    expect(write(all, 'cy', { 'title.text': 'Helo' })).toBe(all);
    expect(inLanguage(all, 'cy')).toEqual({ message: all, language: undefined, words: undefined });
    const begun = withLanguage(withLanguage(all, 'en'), 'cy');
    expect(withLanguage(begun, 'cy')).toBe(begun);
    expect(withLanguage(begun, 'en')).toBe(begun);
  });
});

describe('a message in another language', () => {
  it('has what is written, and else what the original says', () => {
    const { message, language } = inLanguage(welsh, 'cy');
    expect(language).toBe('cy');
    expect(message).not.toHaveProperty('languages');
    expect(messageTexts(message).map(({ text }) => text)).toEqual([
      'Noswaith dda, {{visitor.firstName|ffrind}}',
      'Dewch <1>heno</1> neu’n <2>hwyrach</2>\nMae am ddim.',
      'Your mail address',
      'Send',
      'A letter',
    ]);
  });
  it('says of itself what is said in its language, and nothing needs saying in English', () => {
    expect(inLanguage(welsh, 'cy').words).toMatchObject({ close: 'Cau', fill: ownWordsIn('cy')?.fill });
    expect(inLanguage(welsh, 'en').words).toBeUndefined();
    expect(inLanguage(GREETING)).toEqual({ message: GREETING, language: undefined, words: undefined });
    const otherwise = write(write(welsh, 'cy', { '.words.close': 'Caewch' }), 'en', {
      '.words.close': 'Not now',
    });
    expect(inLanguage(otherwise, 'cy').words?.close).toBe('Caewch');
    expect(inLanguage(otherwise, 'en').words).toEqual({ close: 'Not now' });
  });
  it('runs as its language does', () => {
    expect(inLanguage(withLanguage(welsh, 'ar'), 'ar').message.direction).toBe('rtl');
    expect(inLanguage(welsh, 'cy').message.direction).toBe('ltr');
    expect(inLanguage({ ...welsh, direction: 'rtl' }, 'en').message.direction).toBe('rtl');
  });
  it('knows what is missing, and what is older than the original', () => {
    expect(translationState(welsh, 'cy')).toEqual({ missing: 3, older: 0, done: 8 });
    const changed = changeMessageTexts(welsh, (key, text) => (key === 'title.text' ? 'Good night' : text));
    const title = translatedTexts(changed, 'cy').find(({ key }) => key === 'title.text');
    expect(title).toMatchObject({
      state: 'older',
      was: 'Good evening, {{visitor.firstName|friend}}',
      differing: ['{{visitor.firstName}}'],
    });
    expect(languageFindings(changed).map(({ code }) => code)).toEqual([
      'language.missing',
      'language.older',
      'language.differs',
    ]);
    const told = Object.fromEntries(languageFindings(changed).map(({ code, text }) => [code, text]));
    expect(told['language.missing']).toMatch(/^3 texts in .* are missing: .* Write them /);
    expect(told['language.older']).toMatch(
      /^1 text in .* was written before the original changed. Look at it/,
    );
    // Written once more, it is for what the original says now.
    expect(translationState(write(changed, 'cy', { 'title.text': 'Nos da' }), 'cy').older).toBe(0);
  });
  it('in a language that Velarium does not speak, has to say of itself too', () => {
    const breton = withLanguage(welsh, 'br');
    const own = translatedTexts(breton, 'br').filter(({ key }) => key.startsWith('.words.'));
    expect(own.map(({ key, state }) => [key.replace('.words.', ''), state])).toEqual(
      ['close', 'fill', 'check', 'unsent', 'later', 'mail'].map((word) => [word, 'missing']),
    );
  });
  it('is taken away with its texts; the last one takes the original’s name along', () => {
    expect(withoutLanguage(welsh, 'cy')).toEqual(GREETING);
    expect(withoutLanguage(withLanguage(welsh, 'ar'), 'ar')).toEqual(welsh);
  });
  it('is never written at a name that no text has', () => {
    const written = JSON.parse(
      '{"__proto__":{"text":"x"},"constructor":{"text":"x"},"gone.text":{"text":"x"}}',
    );
    expect(withTranslated(welsh, welsh, 'cy', written)).toEqual(welsh);
  });
});

describe('what messages say of themselves', () => {
  const places = (text: string) => [...text.matchAll(/\{\w+\}/g)].map(([place]) => place).sort();
  it('comes in eight languages, whole in each', () => {
    expect([...SPOKEN].sort()).toEqual(['ar', 'cy', 'de', 'en', 'es', 'fr', 'he', 'pl']);
  });
  it.each(SPOKEN)('%s', (language) => {
    const [words, english] = [ownWordsIn(language), ownWordsIn('en')];
    if (!words || !english) throw new Error('expected words');
    expect(Object.keys(words).sort()).toEqual(Object.keys(english).sort());
    for (const [word, text] of Object.entries(words)) {
      expect(text.trim()).not.toBe('');
      expect([word, places(text)]).toEqual([word, places(english[word as keyof typeof english])]);
    }
    expect(words.numbers.split(' ')).toHaveLength(11);
    if (language !== 'en') expect(words.close).not.toBe(english.close);
  });
});

it('what goes out as XLIFF is read by another reader as it was written', async () => {
  const odd = write(welsh, 'cy', { '.name': 'A & B <i>"c"</i> \u0007' });
  const texts = translatedTexts(odd, 'cy');
  const file = xliffOf(texts, { original: 'en', language: 'cy', name: 'Letter "1" & more' });
  const read = (await xliff2js(file)) as {
    sourceLanguage: string;
    targetLanguage: string;
    resources: Record<string, Record<string, { source: unknown; target?: unknown; note?: string }>>;
  };
  expect([read.sourceLanguage, read.targetLanguage]).toEqual(['en', 'cy']);
  const units = read.resources.message ?? {};
  expect(Object.keys(units)).toEqual(texts.map(({ key }) => key));
  expect(units['title.text']).toMatchObject({
    source: 'Good evening, {{visitor.firstName|friend}}',
    target: 'Noswaith dda, {{visitor.firstName|ffrind}}',
  });
  expect(units['.name']?.target).toBe('A & B <i>"c"</i> ');
  // Words set apart are inline codes there.
  expect(JSON.stringify(units['text.text']?.target)).toContain('"contents":"heno"');
});

it('two who translate different texts, or into different languages, lose nothing of each other', () => {
  const both = withLanguage(withLanguage(GREETING, 'en'), 'cy');
  const base = withLanguage(both, 'de');
  const mine = write(write(base, 'cy', { 'title.text': 'Noswaith dda' }), 'de', { '.name': 'Ein Brief' });
  const theirs = write(base, 'cy', { 'text.text': 'Dewch heno' });
  const { merged, conflicts } = mergeDocuments(base, mine, theirs);
  expect(conflicts).toEqual([]);
  expect(merged).toEqual(write(mine, 'cy', { 'text.text': 'Dewch heno' }));
});

it('another template takes the translations of the words it takes', () => {
  const template = messageOf('bar', 'top', 'A strip', PLAIN_STYLE, [
    first(heading('strip-words', 'A strip')),
  ]);
  const { message } = changeTemplate(
    { ...write(welsh, 'cy', { '.name': 'Llythyr' }), direction: 'ltr' },
    template,
  );
  expect(message.direction).toBe('ltr');
  expect(translatedTexts(message, 'cy').filter(({ key }) => !key.startsWith('.words.'))).toMatchObject([
    { key: 'strip-words.text', state: 'done', translated: 'Noswaith dda, {{visitor.firstName|ffrind}}' },
    { key: '.name', state: 'done', translated: 'Llythyr' },
  ]);
});

it('only the words of its own that a message says are asked for', () => {
  const plain = messageOf('flyin', 'bottom-end', 'A word', PLAIN_STYLE, [
    first(heading('title', 'Good evening')),
  ]);
  expect(wordsNeeded(plain)).toEqual(['close']);
  expect(wordsNeeded(GREETING)).toEqual(['close', 'fill', 'check', 'unsent', 'later', 'mail']);
});
