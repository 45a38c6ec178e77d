import { readFileSync } from 'node:fs';
import type { CampaignDocument } from '@velarium/contract';
import { campaignDocumentSchema } from '@velarium/contract';
import { syllable } from 'syllable';
import { describe, expect, it } from 'vitest';
import { PLAIN_LOOK } from '../look/looks.ts';
import { newBlock, PLAIN_CLOSE, PLAIN_STYLE } from '../message/plain.ts';
import { allBlocks } from '../message/walk.ts';
import { startingDocument, TEMPLATES } from '../templates/templates.ts';
import { plainMessage, plainRule } from '../testing/arbitrary.ts';
import { designFindings } from './design.ts';
import type { DesignFinding } from './finding.ts';
import { documentFindings } from './launch.ts';
import { fleschEase, readingEase, syllables } from './reading-ease.ts';

const FIELD = { id: 'email', kind: 'email' as const, label: 'Mail', placeholder: '', required: true };

const launchFindings = (document: CampaignDocument) => documentFindings(document, () => PLAIN_LOOK);

describe('reading ease', () => {
  it('is Flesch’s formula', () => {
    // Source: worked through by hand from the formula of 1948: six words of one syllable in one sentence give 116.145.
    expect(fleschEase({ words: 6, sentences: 1, syllables: 6 })).toBeCloseTo(116.145, 3);
    expect(fleschEase({ words: 100, sentences: 4, syllables: 150 })).toBeCloseTo(54.56, 2);
  });
  it.each([
    ['star', 1],
    ['night', 1],
    ['little', 2],
    ['telescope', 3],
    ['observatory', 5],
    ['walked', 1],
    ['planted', 2],
    ['', 0],
    ['42', 0],
    ['I', 1],
    ['be', 1],
    ['a’', 1],
    ['hmm', 1],
  ])('%s has %d', (word, count) => {
    expect(syllables(word)).toBe(count);
  });
  it('counts syllables as a reference library does, nearly always', () => {
    // Reference library: syllable. The words are those of our own documents.
    const text = readFileSync(new URL('../../../../docs/laws.md', import.meta.url), 'utf8');
    const words = [...new Set((text.match(/\b[a-z]{3,}\b/g) ?? []).map((word) => word.toLowerCase()))];
    expect(words.length).toBeGreaterThan(500);
    const same = words.filter((word) => syllables(word) === syllable(word)).length;
    expect(same / words.length).toBeGreaterThan(0.94);
    const mean = (of: (word: string) => number) =>
      words.reduce((sum, word) => sum + of(word), 0) / words.length;
    // A hundredth of a syllable a word is less than one point of the formula.
    expect(Math.abs(mean(syllables) - mean(syllable))).toBeLessThan(0.03);
  });
  it.each([
    ['in Cyrillic', 'Луна взошла над горой и ночь стала светлой '.repeat(5)],
    [
      'in German',
      'Der Mond steht heute hoch über dem Berg und die Nacht wird klar bis zum Morgen '.repeat(3),
    ],
    ['in Japanese', '今夜は月がとても明るいです。'.repeat(12)],
  ])('says nothing of a text %s', (_what, text) => expect(readingEase(text)).toBeUndefined());
  it('says nothing of a few words', () => {
    expect(readingEase('The moon is up.')).toBeUndefined();
    const words = (count: number) =>
      Array.from({ length: count }, (_, n) => (n % 2 ? 'star' : 'the')).join(' ');
    expect(readingEase(words(19))).toBeUndefined();
    // Twenty words of one syllable in one sentence, by the formula.
    expect(readingEase(words(20))).toBeCloseTo(206.835 - 1.015 * 20 - 84.6, 9);
    expect(readingEase(`${words(10)}. ${words(10)}!`)).toBeCloseTo(206.835 - 1.015 * 10 - 84.6, 9);
    // Of twenty words three that English is full of are enough, and two are not.
    const few = (count: number) => [...Array(count).fill('the'), ...Array(20 - count).fill('star')].join(' ');
    expect([readingEase(few(3)) === undefined, readingEase(few(2)) === undefined]).toEqual([false, true]);
    expect(
      readingEase(
        'The moon is up. The dog runs out. We see a star. It is far. I am cold. You are here. We go in.',
      ),
    ).toBeGreaterThan(90);
  });
});

const ready: CampaignDocument = {
  variants: [],
  message: plainMessage,
  rule: plainRule,
};
const reach = (change: Partial<CampaignDocument['rule']['reach']>): CampaignDocument => ({
  ...ready,
  rule: { ...ready.rule, reach: { ...ready.rule.reach, ...change } },
});
const blocks = (...list: CampaignDocument['message']['steps'][number]['blocks']): CampaignDocument => ({
  ...ready,
  message: { ...plainMessage, steps: [{ id: 'first', role: 'first', blocks: list }] },
});
const closing = (afterSeconds: number): CampaignDocument => {
  const form = { ...newBlock('form'), consentText: 'I agree.' };
  const { message, ...rest } = blocks(title, form);
  return { ...rest, message: { ...message, close: { ...PLAIN_CLOSE, afterSeconds } } };
};
const title = { ...newBlock('heading'), id: 't', text: 'Hello' };

describe('the checks before publishing', () => {
  it('find nothing on what is ready', () => {
    expect(launchFindings(ready)).toEqual([]);
  });

  it.each<[code: string, severity: 'stop' | 'warn', document: CampaignDocument]>([
    ['pages.nowhere', 'stop', reach({ pages: { include: [], exclude: [], follows: null } })],
    [
      'pages.nowhere',
      'stop',
      reach({ pages: { include: [{ kind: 'every' }], exclude: [{ kind: 'every' }], follows: null } }),
    ],
    [
      'pages.pattern',
      'stop',
      reach({ pages: { include: [{ kind: 'regex', pattern: '(' }], exclude: [], follows: null } }),
    ],
    ['devices.none', 'stop', reach({ devices: [] })],
    ['devices.interrupting', 'warn', reach({ devices: ['mobile'] })],
    ['message.empty', 'stop', blocks({ ...title, text: '  ' })],
    ['button.label', 'stop', blocks(title, { ...newBlock('button'), label: '', action: { kind: 'close' } })],
    ['button.address', 'warn', blocks(title, newBlock('button'))],
    ['form.consent', 'warn', blocks(title, newBlock('form'))],
    ['contrast', 'warn', { ...ready, message: { ...plainMessage, palette: { ink: '#8a8a8a' } } }],
    ['form.closes', 'warn', closing(30)],
  ])('%s: %s', (code, severity, document) => {
    expect(launchFindings(document)).toEqual([expect.objectContaining({ code, severity })]);
  });
});

describe('while designing', () => {
  const of = (...list: CampaignDocument['message']['steps'][number]['blocks']) => ({
    ...plainMessage,
    steps: [{ id: 'first', role: 'first' as const, blocks: list }],
  });
  const find = (
    message: CampaignDocument['message'],
    more: Partial<Parameters<typeof designFindings>[0]> = {},
  ): DesignFinding[] =>
    designFindings({ message, look: PLAIN_LOOK, devices: ['desktop', 'mobile'], ...more });
  const picture = { ...newBlock('picture'), picture: 'drawn:moon' };

  it.each<
    [code: string, message: CampaignDocument['message'], more?: Partial<Parameters<typeof designFindings>[0]>]
  >([
    ['picture.alt', of(title, picture)],
    ['picture.none', of(title, newBlock('picture'))],
    ['picture.heavy', of(title, { ...picture, alt: 'The moon' }), { weightOf: () => 900_000 }],
    ['form.consent', of(title, newBlock('form'))],
    ['film.address', of(title, newBlock('film'))],
    ['film.title', of(title, { ...newBlock('film'), address: 'https://film.example/x', title: ' ' })],
    ['form.label', of(title, { ...newBlock('form'), fields: [{ ...FIELD, label: ' ' }] })],
    ['button.step', of(title, { ...newBlock('button'), action: { kind: 'step', step: 'gone' } })],
    ['phone.words', of(title, { ...newBlock('text'), content: [[{ text: 'far '.repeat(80) }]] })],
    ['phone.covered', { ...of(title, { ...newBlock('space'), height: 400 }), format: 'popup' }],
    [
      'target.size',
      of(title, {
        ...newBlock('button'),
        action: { kind: 'close' },
        style: { all: {}, tablet: {}, mobile: { height: { unit: 'px', value: 20 } } },
      }),
    ],
    ['contrast', of({ ...title, style: { all: { colour: '#eeeeee' }, tablet: {}, mobile: {} } })],
    [
      'contrast.night',
      {
        ...of({ ...title, style: { all: { colour: '#1f2a3d' }, tablet: {}, mobile: {} } }),
        darkens: true,
      },
    ],
    ['close.picture', { ...of(title), close: { ...PLAIN_CLOSE, sign: 'picture' } }],
    ['way-out', { ...of(title), backdropCloses: false, close: { ...PLAIN_CLOSE, place: 'hidden' } }],
  ])('%s is found, and its mend mends it', (code, message, more) => {
    const found = find(message, more).filter((one) => one.code === code);
    expect(found).toHaveLength(1);
    const mend = found[0]?.mend;
    if (mend) expect(find(mend.apply(message), more).map((one) => one.code)).not.toContain(code);
  });

  it('a hidden field needs no label, and a film with a title none', () => {
    const form = {
      ...newBlock('form'),
      fields: [FIELD, { ...FIELD, id: 'from', kind: 'hidden' as const, label: '' }],
    };
    const film = { ...newBlock('film'), address: 'https://film.example/x', title: 'The dome' };
    const codes = find(of(title, form, film)).map(({ code }) => code);
    expect(codes).not.toContain('form.label');
    expect(codes).not.toContain('film.title');
  });
  it('says a contrast to one place', () => {
    const pale = { ...title, style: { all: { colour: '#767676' as const }, tablet: {}, mobile: {} } };
    const message = { ...of(pale), palette: { surface: '#f0f0f0' } };
    const [found] = find(message).filter(({ code }) => code === 'contrast');
    expect(found?.text).toMatch(/has a contrast of \d\.\d; /);
  });
  it('in a variant is told with its number', () => {
    const message = of({ ...title, text: ' ' });
    const variants = [{ id: 'b', weight: 1, message }];
    const [found] = launchFindings({ ...ready, variants }).filter(({ code }) => code === 'message.empty');
    expect(found?.text).toMatch(/^Variant 2: /);
  });
  it('a hidden close button is a way out only with another', () => {
    const hidden = {
      ...of(title),
      close: { ...PLAIN_CLOSE, place: 'hidden' as const },
      backdropCloses: false,
    };
    expect(find(hidden)[0]).toMatchObject({ code: 'way-out', severity: 'stop' });
    expect(find({ ...hidden, backdropCloses: true })).toEqual([]);
    const notOnPhones = { ...PLAIN_STYLE, mobile: { backdropCloses: false } };
    expect(find({ ...hidden, backdropCloses: true, style: notOnPhones })[0]?.code).toBe('way-out');
    const closing = { ...newBlock('button'), label: 'Close', action: { kind: 'close' as const } };
    expect(find({ ...hidden, ...{ steps: of(title, closing).steps } })).toEqual([]);
  });

  it('every mend of every template leaves fewer findings and keeps to the contract', () => {
    for (const { message } of TEMPLATES) {
      const bare = {
        ...message,
        palette: { ink: '#cccccc', surface: '#dddddd' },
        steps: message.steps.map((step) => ({
          ...step,
          blocks: allBlocks({ steps: [step] }).filter(({ kind }) => kind !== 'columns'),
        })),
      };
      for (const finding of find(bare)) {
        if (!finding.mend) continue;
        const mended = finding.mend.apply(bare);
        expect(find(mended).length).toBeLessThan(find(bare).length);
        expect(campaignDocumentSchema.shape.message.safeParse(mended).error).toBeUndefined();
      }
    }
  });
});

describe.each(TEMPLATES.map((template) => [template.name, template] as const))(
  'template %s',
  (_name, template) => {
    it('keeps to the contract', () => {
      expect(campaignDocumentSchema.parse(startingDocument(template))).toEqual(startingDocument(template));
    });
    it('lacks nothing but its pages', () => {
      // A strip of one line says its consent in words beside the field.
      const said = template.id === 'letter-strip' || template.id === 'short-survey' ? ['form.consent'] : [];
      expect(launchFindings(startingDocument(template)).map(({ code }) => code)).toEqual([
        'pages.nowhere',
        ...said,
      ]);
    });
  },
);
