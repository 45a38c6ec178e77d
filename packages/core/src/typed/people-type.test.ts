import { describe, expect, it } from 'vitest';
import { documentSentence, sentenceText } from '../sentence/rule-sentence.ts';
import { siteWords, startOfWishes } from '../testing/site-words.ts';
import { TYPED_BY_STRANGERS } from '../testing/typed-by-strangers.ts';
import { TYPED } from '../testing/typed-rules.ts';
import { readWishes } from './read-wishes.ts';

const WELCOME = '00000000-0000-4000-8000-00000000000c';
const words = siteWords({ campaigns: [{ id: WELCOME, name: 'Welcome code' }] });
const read = (typed: string) => {
  const { apply, rest } = readWishes(typed, words);
  const names = { campaign: () => 'Welcome code', group: () => 'Night tours' };
  return { said: sentenceText(documentSentence(apply(startOfWishes), names)), rest };
};

describe('what people type is understood whole', () => {
  it('is a hundred sentences and more', () => {
    expect(TYPED.length).toBeGreaterThan(100);
  });
  it.each([...TYPED, ...TYPED_BY_STRANGERS])('%s', (typed, ...expected) => {
    const { said, rest } = read(typed);
    expect(rest).toEqual([]);
    for (const phrase of expected) expect(said).toContain(phrase);
  });
  it.each([
    ['until 31 November', ['until 31 November (the calendar has no such day)']],
    ['between 9 and 27', ['between 9 and 27 (a day has no such time)']],
    ['priority 12', ['priority 12 (from 1 to 9)']],
    ['hold back 99 %', ['hold back 99 % (out of range)']],
    ['on the event', ['on the event']],
    ['in Atlantis', ['in Atlantis']],
    ['from 1 December to 31 February', ['from 1 December to 31 February (the calendar has no such day)']],
    ['everywhere but the roof', ['the roof']],
    ['from tomorrow, from Friday week', ['from Friday week']],
    ['after 5 or 15 seconds', ['after 5 or 15 seconds']],
    ['shop', ['shop']],
    ['until 1 December, from 24 December', ['from 24 December (it would end before it begins)']],
    ['during business hours', ['during business hours (say from when until when)']],
    ['on 24 and 31 December', ['on 24 and 31 December (one day, or from one day to another)']],
    ['after two screens', ['after two screens (say how far in % of the page or in pixels)']],
    [
      'after 5 s on desktops, after 15 s on phones',
      ['after 15 s on phones (a rule has one moment for all devices; a variant or a copy can have another)'],
    ],
    [
      'after half the page, after 5 s on phones',
      ['after 5 s on phones (a rule has one moment for all devices; a variant or a copy can have another)'],
    ],
    [
      'after 5 s on phones, after 9 s',
      ['after 9 s (a rule has one moment for all devices; a variant or a copy can have another)'],
    ],
    ['after 20 seconds or at half of the page on phones', []],
    [
      '500 px wide on desktops',
      ['500 px wide on desktops (a design is for all devices; phones and tablets can differ)'],
    ],
    ['9 to 5', ['9 to 5 (say am and pm, or count the hours to 24)']],
    ['9:00 to 5:30', ['9:00 to 5:30 (say am and pm, or count the hours to 24)']],
    ['9 am to 5', ['9 am to 5 (say am and pm, or count the hours to 24)']],
    ['Noon to 3', ['Noon to 3 (say am and pm, or count the hours to 24)']],
    ['13 to 3', []],
    ['1 pm to 5', ['1 pm to 5 (say am and pm, or count the hours to 24)']],
    ['only for Norwegians', ['only for Norwegians (say from where they are, or which language they speak)']],
    [
      'if they came from Quillon',
      [
        'if they came from Quillon (say “from a search”, “from social media”, or the address, as in “from example.com”)',
      ],
    ],
    [
      'when they hover over the map',
      [
        'when they hover over the map (name it as its page does, as in “#map”, or by its words, in quotation marks)',
      ],
    ],
    [
      'half of the article',
      ['half of the article (say how much of the page, or “at the end of the article”)'],
    ],
    ['after a short delay', ['after a short delay (say after how many seconds)']],
    ['at least 10 seconds', ['at least 10 seconds (say “after” so long, or “not before”)']],
    ['with low priority', ['with low priority (say which priority, from 1, the lowest, to 9)']],
    [
      'let other messages go first',
      ['let other messages go first (say which priority, from 1, the lowest, to 9)'],
    ],
    ['on large screens only', ['on large screens only (say desktops, tablets or phones)']],
    ['1 in 7 visitors', ['1 in 7 visitors (say which share, in whole %)']],
    ['more padding', ['more padding (say how much, as in “padding 24”)']],
    ['visitors from Scandinavia', ['visitors from Scandinavia (say which countries)']],
    ['for guests', ['for guests (say “visitors”, or “not signed in”)']],
    // Of two things nothing is taken by halves.
    ['for new members', ['for new members']],
    ['returning guests', ['returning guests']],
    ['guests from Norway', ['guests from Norway (say “visitors”, or “not signed in”)']],
    ['for known visitors', ['for known visitors (say “returning”, or “signed in”)']],
    ['unknown visitors only', ['unknown visitors only (say “new”, or “not signed in”)']],
    [
      'after they have closed it twice',
      ['after they have closed it twice (say how often it may show; closes are not counted one by one)'],
    ],
    [
      'title: Clear skies tonight, after 9 s',
      ['title: Clear skies tonight (put its words in quotation marks)'],
    ],
    [
      'wait at least 2 minutes between any two messages',
      ['wait at least 2 minutes between any two messages (a site says that for all its campaigns, in Site)'],
    ],
    ['50/50 test', ['50/50 test (an experiment is begun in the Workbench, under Experiment)']],
    ['without a close button', ['without a close button (there is always a way out)']],
    ['dim the page behind', ['dim the page behind (say by how many %)']],
    [
      'on pages whose title contains aurora',
      ['on pages whose title contains aurora (say what their addresses have in common, or what they hold)'],
    ],
    [
      'with a basket worth between 60 and 20',
      ['with a basket worth between 60 and 20 (it would be more than it is less than)'],
    ],
    ['at night from 10 to 6', ['at night from 10 to 6 (say am and pm, or count the hours to 24)']],
    [
      'as soon as the visitor scrolls',
      ['as soon as the visitor scrolls (say how far, in % of the page or in pixels)'],
    ],
    [
      'when the footer is visible',
      [
        'when the footer is visible (name it as its page does, as in “#map”, or by its words, in quotation marks)',
      ],
    ],
    ['narrower', ['narrower (say how wide and how high, as in “420 wide”)']],
    ['all pages with a dancing bear', ['all pages with a dancing bear']],
    ['after 5 seconds on every page except the roof', ['on every page except the roof']],
    // What hangs on a piece that is not understood is not taken by itself: it could come to mean the opposite.
    ['never dance for those who closed it', ['never dance for those who closed it']],
    ['leave them alone for five days', ['leave them alone for five days']],
    ['dance after 5 seconds on phones, once a day', ['dance after 5 seconds on phones']],
    ['who haven’t been here for 60 days', ['who haven’t been here for 60 days']],
    ['not on the roof or from France', ['not on the roof or from France']],
  ])('of %j what is not understood is said: %j', (typed, rest) => {
    expect(read(typed).rest).toEqual(rest);
  });
  it('what cannot be had says why, also where nothing else was understood', () => {
    const { isUnderstood, reasons } = readWishes('on Saturday mornings, dance', words);
    expect(isUnderstood).toBe(false);
    expect(reasons).toEqual(['on Saturday mornings (say from when until when)']);
  });
  it('nothing stays of a piece that is not understood whole', () => {
    const before = sentenceText(documentSentence(startOfWishes));
    expect(read('from 1 December to 31 February').said).toBe(before);
  });
});
