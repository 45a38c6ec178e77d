import { describe, expect, it } from 'vitest';
import { newBlock } from '../message/plain.ts';
import { ordinal, quantity } from '../sentence/words.ts';
import { agoWords } from './ago-words.ts';
import { textOfStep, textsOf, wordCount } from './text-of.ts';

const MINUTE_MS = 60_000;

it.each([
  [0, 'just now'],
  [0.49, 'just now'],
  [1, '1 minute ago'],
  [119, '119 minutes ago'],
  [120, '2 hours ago'],
  [47 * 60, '47 hours ago'],
  [48 * 60, '2 days ago'],
  [71 * 60, '3 days ago'],
])('%d minutes back are %j', (minutes, words) => {
  expect(agoWords(0, minutes * MINUTE_MS)).toBe(words);
});

it.each([
  [1, '1st'],
  [2, '2nd'],
  [3, '3rd'],
  [4, '4th'],
  [11, '11th'],
  [12, '12th'],
  [13, '13th'],
  [14, '14th'],
  [21, '21st'],
  [111, '111th'],
  [122, '122nd'],
  [113, '113th'],
])('the %i. is the %s', (count, words) => {
  expect(ordinal(count)).toBe(words);
});
it.each([
  [0, '0 pages'],
  [1, '1 page'],
  [1.5, '1.5 pages'],
  [2, '2 pages'],
])('%d: %s', (count, words) => {
  expect(quantity(count, 'page')).toBe(words);
});

describe('what a visitor reads of a block', () => {
  const block = <Kind extends Parameters<typeof newBlock>[0]>(kind: Kind, more: object = {}) =>
    ({ ...newBlock(kind), id: 'one', ...more }) as Parameters<typeof textsOf>[0];
  it.each([
    [block('heading', { text: 'Up' }), ['Up']],
    [block('text', { content: [[{ text: 'a' }, { text: 'b' }], [{ text: 'c' }]] }), ['ab', 'c']],
    [block('picture', { alt: 'not read' }), []],
    [block('button', { label: 'Go' }), ['Go']],
    [block('code', { code: 'X1', copyLabel: 'Copy' }), ['X1', 'Copy']],
    [block('countdown', { whenOver: 'words', overText: 'Over' }), ['Over']],
    [block('countdown', { whenOver: 'hide', overText: 'Over' }), ['']],
    [block('count', { text: '{{count}} read' }), ['{{count}} read']],
    [block('film', { title: 'Film' }), ['Film']],
    [block('frame', { title: 'Page' }), ['Page']],
    [block('html', { markup: '<b>Own</b> words' }), [' Own  words']],
    [block('divider'), []],
  ])('%#', (one, texts) => {
    expect(textsOf(one)).toEqual(texts);
  });
  it('of a form its labels, consent and button; of a share its ways', () => {
    const form = block('form', { consentText: 'I agree', submitLabel: 'Send' });
    expect(textsOf(form).slice(-2)).toEqual(['I agree', 'Send']);
    const ways = [
      { id: 'a', way: 'mail', label: 'Mail', address: '' },
      { id: 'b', way: 'copy', label: 'Copy', address: '' },
    ];
    expect(textsOf(block('share', { ways }))).toEqual(['Mail', 'Copy']);
  });
  it('of a step all that is not empty, and how many words', () => {
    const blocks = [
      block('heading', { text: 'Look up' }),
      block('heading', { text: ' ' }),
      block('button', { label: 'I’ll go' }),
    ];
    const text = textOfStep({ id: 'first', role: 'first', blocks });
    expect(text).toBe('Look up\nI’ll go');
    expect(wordCount(text)).toBe(4);
    expect(wordCount('')).toBe(0);
  });
});
