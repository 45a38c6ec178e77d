import type { Block, Message } from '@velarium/contract';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { newBlock } from '../message/plain.ts';
import { TEMPLATES } from '../templates/templates.ts';
import { plainMessage } from '../testing/arbitrary.ts';
import { someMessage } from '../testing/arbitrary-message.ts';
import { textsOf } from './text-of.ts';
import { wordingFindings } from './wording.ts';

const holding = (...blocks: readonly object[]): Message => ({
  ...plainMessage,
  steps: [
    { id: 'first', role: 'first', blocks: blocks.map((block, n) => ({ ...block, id: `b${n}` })) as Block[] },
  ],
});
const text = (said: string) => ({ ...newBlock('text'), content: [[{ text: said }]] });
const heading = (said: string) => ({ ...newBlock('heading'), text: said });
const button = (label: string, tone = 'main') => ({ ...newBlock('button'), label, tone });
const mended = (message: Message): string[] => {
  const better = wordingFindings(message).reduce((old, { mend }) => mend?.apply(old) ?? old, message);
  return better.steps.flatMap(({ blocks }) => blocks.flatMap(textsOf));
};

describe('a rewording that can be taken', () => {
  it.each([
    [
      text('In order to see Saturn you are able to utilise our telescope.'),
      'To see Saturn you can use our telescope.',
    ],
    [text('Please note that the dome is closed on Monday.'), 'The dome is closed on Monday.'],
    [text('We write on a weekly basis, free of charge.'), 'We write every week, free.'],
    [heading('THE DOME IS OPEN TONIGHT'), 'The dome is open tonight'],
    // Of 26 words, one more than is left alone.
    [
      text(`${'word '.repeat(13).trim()}, and ${'word '.repeat(12).trim()}`),
      `${'word '.repeat(13).trim()}. Word ${'word '.repeat(11).trim()}`,
    ],
    [heading('Tonight!!!'), 'Tonight!'],
    [heading('Really?!?'), 'Really?'],
    [
      text(
        'On Friday the sky over the fell will be clear from early evening on until the moon comes up, and we open the dome at eight for everybody who has a place on the tour.',
      ),
      'On Friday the sky over the fell will be clear from early evening on until the moon comes up. We open the dome at eight for everybody who has a place on the tour.',
    ],
  ])('%#', (block, better) => {
    expect(mended(holding(block))).toEqual([better]);
  });
  it.each([
    ['as few as eight of them', 'ABCD EFGH', 'Abcd efgh'],
    ['seven of them', 'ABCD EFG', 'ABCD EFG'],
    ['one word', 'ABCDEFGHIJ', 'ABCDEFGHIJ'],
    ['one that is small', 'ABCDEFGH i', 'ABCDEFGH i'],
  ])('capitals throughout are taken for shouting in several words: %s', (_, said, better) => {
    expect(mended(holding(heading(said)))).toEqual([better]);
  });
  it('a long sentence is cut where it is nearest to halves', () => {
    const words = (count: number) => 'word '.repeat(count).trim();
    expect(mended(holding(text(`${words(4)}, and ${words(10)}, but ${words(14)}`)))).toEqual([
      `${words(4)}, and ${words(10)}. Word ${words(13)}`,
    ]);
    expect(mended(holding(text(`${words(14)}, but ${words(10)}, and ${words(4)}`)))).toEqual([
      `${words(14)}. Word ${words(9)}, and ${words(4)}`,
    ]);
  });
  it('a button is reworded as a heading is', () => {
    expect(mended(holding(button('PURCHASE YOUR PLACE!!')))).toEqual(['Buy your place!']);
  });
  it('shows no more of a text than tells which it is', () => {
    const shown = (letters: number) => {
      const long = `Prior to ${'x'.repeat(letters - 7)}`;
      return wordingFindings(holding(heading(long)))[0]?.text.match(/“(.*)”/)?.[1];
    };
    expect(shown(90)).toHaveLength(90);
    expect(shown(90)).not.toContain('…');
    expect(shown(91)).toHaveLength(90);
    expect(shown(91)).toMatch(/x…$/);
  });
  it('says what it would say', () => {
    const [finding] = wordingFindings(holding(heading('Prior to midnight')));
    expect(finding).toMatchObject({
      code: 'words.plainer',
      severity: 'hint',
      text: 'It can be said more plainly: “Before midnight”.',
    });
  });
  it('one thing is asked for', () => {
    const message = holding(button('Book'), button('Read more'), button('Later', 'quiet'));
    const [finding] = wordingFindings(message);
    expect(finding?.text).toBe(
      '2 buttons ask with the same weight, so none is the one to press. Let “Book” be it.',
    );
    const tones = finding?.mend?.apply(message).steps[0]?.blocks.map((one) => 'tone' in one && one.tone);
    expect(tones).toEqual(['main', 'quiet', 'quiet']);
  });
  it.each([
    ['names in capitals', heading('NASA ESA')],
    ['plain words', text('See Saturn tonight.')],
    ['a part of a word', text('Repurchased commencements')],
    ['a sentence of 25 words', text(`${'word '.repeat(12).trim()}, and ${'word '.repeat(12).trim()}`)],
    ['a long sentence without a joint', text('word '.repeat(40).trim())],
  ])('leaves %s alone', (_, block) => {
    expect(wordingFindings(holding(block))).toEqual([]);
  });
  it('once taken is not offered again', () => {
    fc.assert(
      fc.property(someMessage, (message) => {
        const better = wordingFindings(message).reduce((old, { mend }) => mend?.apply(old) ?? old, message);
        expect(wordingFindings(better)).toEqual([]);
      }),
      { numRuns: 200 },
    );
  });
  it('templates need none', () => {
    for (const { id, message } of TEMPLATES)
      expect(wordingFindings(message).map(({ code, text: said }) => `${id}: ${code} ${said}`)).toEqual([]);
  });
});
