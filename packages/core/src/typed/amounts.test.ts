import { describe, expect, it, test } from 'vitest';
import { documentSentence, sentenceText } from '../sentence/rule-sentence.ts';
import { siteWords, startOfWishes } from '../testing/site-words.ts';
import { readWishes } from './read-wishes.ts';
import { plainly } from './spoken.ts';

/** What the sentence says, and what was not understood. */
const read = (typed: string): [said: string, rest: readonly string[]] => {
  const { apply, rest } = readWishes(typed, siteWords());
  return [sentenceText(documentSentence(apply(startOfWishes))), rest];
};

describe('an amount as people say it', () => {
  test.each<[percent: number, ...shares: string[]]>([
    [25, '1/4', 'a quarter', 'one quarter'],
    [33, '1/3', 'a third', 'one third'],
    [50, '1/2', 'half', 'a half', 'the half', 'the middle'],
    [67, '2/3', 'two thirds'],
    [75, '3/4', 'three quarters', 'three-quarters'],
  ])('%i %% of a page', (percent, ...shares) => {
    for (const share of shares)
      expect([share, read(`after ${share} of the page`)[0]]).toEqual([
        share,
        expect.stringContaining(`opens after ${percent} % of the page`),
      ]);
  });
  test.each<[withheld: number, typed: string]>([
    [50, 'keep out half of the visitors'],
    [33, 'keep back a third of visitors'],
    [25, 'hold back a quarter of visitors'],
    [20, 'hold back a fifth of all visitors'],
    [10, 'leave out a tenth of visitors'],
    [50, 'for half of visitors'],
    [67, 'for a third of visitors'],
    [75, 'to a quarter of visitors'],
    [90, 'for a tenth of all visitors'],
    [70, 'for 30 % of visitors'],
    [75, '1 in 4 visitors'],
    [80, 'one in five visitors'],
    [60, '2 out of 5 visitors'],
  ])('held back from %i %%: %s', (withheld, typed) => {
    expect(read(typed)).toEqual([expect.stringContaining(`held back from ${withheld} % of visitors`), []]);
  });
  it('of which there is all, or more than all, or no whole per cent', () => {
    expect(read('4 in 4 visitors')[1]).toEqual([]);
    expect(read('4 in 4 visitors')[0]).not.toContain('held back');
    for (const typed of ['one in three visitors', '5 in 4 visitors'])
      expect(read(typed)[1]).toEqual([`${typed} (say which share, in whole %)`]);
  });
  test.each([
    ['half way down the page', 'opens after 50 % of the page'],
    ['half-way down the page', 'opens after 50 % of the page'],
    ['after an hour', 'opens after 3600 seconds'],
    ['after 500 ms', 'opens after 0.5 seconds'],
    ['after 1500 milliseconds', 'opens after 1.5 seconds'],
    ['after one hundred seconds', 'opens after 100 seconds'],
    ['thrice a week', 'at most 3 times every week'],
    ['on the 11th page', 'from the 11th page view of the session'],
    ['once every 2 hours 30 minutes', 'once every 150 minutes'],
    ['the least important', 'priority 1 of 9'],
    ['the most important message', 'priority 9 of 9'],
  ])('%s', (typed, said) => {
    expect(read(typed)).toEqual([expect.stringContaining(said), []]);
  });
  test.each([
    ['triggers', 13, ' or ', (n: number) => `after ${n} s`, 'after 13 s (at most 12)'],
    [
      'limits',
      9,
      ' and ',
      (n: number) => `at most ${n} times every ${n + 1} days`,
      'at most 9 times every 10 days (at most 8)',
    ],
  ] as const)('no more %s than a rule has room for', (_what, count, between, make, refused) => {
    const typed = Array.from({ length: count }, (_, n) => make(n + 1));
    expect(read(typed.join(between))[1]).toEqual([refused]);
    expect(read(typed.slice(0, -1).join(between))[1]).toEqual([]);
  });
  it('a limit beside none at all is not taken for either', () => {
    expect(read('as often as they come, once a day')[1]).toEqual([
      'once a day (something else was said before)',
    ]);
    expect(read('once a day, as often as they come')[1]).toEqual([
      'as often as they come (something else was said before)',
    ]);
  });
  it('a basket lies between two amounts, or there is none that does', () => {
    expect(read('basket between 20 and 60')).toEqual([
      expect.stringContaining('with a basket worth at least 20 and with a basket worth at most 60'),
      [],
    ]);
    expect(read('basket between 20 and 20')[1]).toEqual([]);
    expect(read('basket between 20 and 10')[1]).toEqual([
      'basket between 20 and 10 (it would be more than it is less than)',
    ]);
  });
});

describe('one thing beside another', () => {
  test.each([
    // A “not” goes on over what is named with “or”, also where that begins anew.
    ['not in the shop or on contact', 'never on addresses that begin with /shop/ or /contact'],
    ...[
      'never in the shop or on contact',
      'nowhere in the shop or on contact',
      'hide it in the shop or on contact',
      'don’t show it in the shop or on contact',
      'excluding the shop or on contact',
      'but not in the shop or on contact',
      'not in the shop or never on contact',
    ].map((typed) => [typed, 'never on addresses that begin with /shop/ or /contact']),
    [
      'not in the shop or on contact or in the journal',
      'never on addresses that begin with /shop/, /contact or addresses that begin with /journal/',
    ],
    ['not on phones or in the shop', 'never on addresses that begin with /shop/'],
    ['no phones or on contact', 'never on /contact, on desktops and tablets only'],
    [
      'not for new visitors or from search',
      'for visitors not in their first session and without an arrival from search',
    ],
    ['never on phones or from France', 'on desktops and tablets only, for visitors not from France (fr)'],
    ['without a sign-in or from search', 'for visitors without a sign-in or with an arrival from search'],
    ['in the shop or on contact', 'only on addresses that begin with /shop/ and /contact'],
    ['not from France or from Norway', 'for visitors not from France (fr) and not from Norway (no)'],
    ['not on 24 December or on 25 December', 'but not on 24 December 2026 or on 25 December 2026,'],
    ['from search or on Android', 'with an arrival from search or on Android'],
    ['from search and on Android', 'with an arrival from search and on Android'],
    [
      'from search or mail and signed in',
      'for visitors (with a sign-in) and (with an arrival from search or with an arrival from mail)',
    ],
    ['on every device but phones', 'on desktops and tablets only'],
    ['/night-tours and its subpages', 'only on /night-tours and addresses that begin with /night-tours/'],
    ['everywhere', 'on every page'],
    ['10 seconds, shop', 'only on addresses that begin with /shop/'],
    ['phones, shop', 'only on addresses that begin with /shop/, on phones only'],
    ['show it, after 5 seconds', 'opens after 5 seconds'],
    ['hide it after 30 seconds', 'It closes by itself after 30 seconds'],
    ['with fewer than 1 things in the basket', 'with at most 0 things in the basket'],
    ['after 100 %', 'opens after 100 % of the page'],
    ['at most 100 times a day', 'at most 100 times every day'],
    ['in the USA', 'for visitors from the United States (us)'],
    ['speaking German', 'for visitors with the language German (de)'],
  ])('%s', (typed, said) => {
    expect(read(typed)).toEqual([expect.stringContaining(said), []]);
  });
  test.each([
    ['not in the shop or on the roof', ['on the roof']],
    ['not dance or sing', ['not dance or sing']],
    ['after 5 or 15', ['after 5 or 15']],
    ['please', ['please']],
    ['all pages with a map', ['all pages with a map']],
    ['only on su', ['only on su']],
    ['shop, 10 seconds', ['shop']],
    ['after 101 %', ['after 101 % (a page has 100 %)']],
    ['fade in over', ['fade in over']],
    ['button leads to ftp://x', ['button leads to ftp://x']],
    ['2 px mauve border', ['2 px mauve border']],
    [
      'after 5 seconds or at half the page and at 80 %',
      ['“and” before at 80 % (something else was said before)'],
    ],
    [
      'after 5 seconds and at half the page or at 80 %',
      ['“or” before at 80 % (something else was said before)'],
    ],
    ['for visitors with a sign-in, from search', ['from search (something else was said before)']],
    [
      'from search, for visitors with a sign-in',
      ['for visitors with a sign-in (something else was said before)'],
    ],
  ])('of %s is left: %j', (typed, rest) => {
    expect(read(typed)[1]).toEqual(rest);
  });
  it('no more conditions than an audience has room for', () => {
    const names =
      'France Norway Sweden Denmark Spain Italy Poland Finland Iceland Ireland Portugal Austria Greece'.split(
        ' ',
      );
    expect(read(`visitors from ${names.join(' or ')}`)[1]).toEqual(['Greece (at most 12)']);
    expect(read(`visitors from ${names.slice(1).join(' or ')}`)[1]).toEqual([]);
  });
});

describe('days and hours as people say them', () => {
  test.each([
    ['Mon to Wed', 'on Mondays to Wednesdays,'],
    ['Sat to Mon', 'on Mondays, Saturdays and Sundays,'],
    ['Mon, Wed and Fri', 'on Mondays, Wednesdays and Fridays,'],
    ['on Tuesdays and Thursdays', 'on Tuesdays and Thursdays,'],
    ['not on Mondays', 'on Tuesdays to Sundays,'],
    ['never at weekends', 'on weekdays,'],
    ['except on Sundays', 'on Mondays to Saturdays,'],
    ['every day but Monday', 'on Tuesdays to Sundays,'],
    ['1 to 3 pm', 'between 13:00 and 15:00,'],
    ['9 to 5 pm', 'between 09:00 and 17:00,'],
    ['11 to 1 pm', 'between 11:00 and 13:00,'],
    ['12 to 3 pm', 'between 12:00 and 15:00,'],
    ['3 to 3 pm', 'between 03:00 and 15:00,'],
    ['13 to 1', 'between 13:00 and 01:00 the next day,'],
    ['9 to 12', 'between 09:00 and 12:00,'],
    ['12 am to 3 am', 'between 00:00 and 03:00,'],
    ['09 to 05', 'between 09:00 and 05:00 the next day,'],
    ['9 am to 11:30', 'between 09:00 and 11:30,'],
    ['17 to 17', 'between 17:00 and 17:00 the next day,'],
    ['in the evening 6 to 9', 'between 18:00 and 21:00,'],
    ['in the evening 6 to 12', 'between 18:00 and 24:00,'],
    ['afternoons 12 to 3', 'between 12:00 and 15:00,'],
    ['mornings 8 to 11', 'between 08:00 and 11:00,'],
    ['on Saturdays evening 6 to 9', 'on Saturdays, between 18:00 and 21:00,'],
    ['from 8 in the evening to 2 at night', 'between 20:00 and 02:00 the next day,'],
    ['between 12:30 at night and 5 at night', 'between 00:30 and 05:00,'],
    ['until 1 December at midnight', 'until 2 December 2026 at 00:00,'],
    ['not before 1 December at 9', 'from 1 December 2026 at 09:00,'],
    ['not before 1 December', 'from 1 December 2026 at 00:00,'],
    ['only before 24 December', 'until 24 December 2026 at 00:00,'],
    ['1 to 24 Dec', 'from 1 December 2026 at 00:00, until 25 December 2026 at 00:00,'],
    ['Dec 1 to 24', 'from 1 December 2026 at 00:00, until 25 December 2026 at 00:00,'],
    ['for 2 weeks from 1 December', 'from 1 December 2026 at 00:00, until 15 December 2026 at 00:00,'],
    ['for the next 3 days', 'from 26 November 2026 at 00:00, until 29 November 2026 at 00:00,'],
    ['not between 24 December and 26 December', 'but not from 24 December 2026 to 26 December 2026,'],
    ['closed on 24 December', 'but not on 24 December 2026,'],
    ['until the end of November', 'until 1 December 2026 at 00:00,'],
  ])('%s', (typed, said) => {
    expect(read(typed)).toEqual([expect.stringContaining(said), []]);
  });
  test.each([
    ['from 31 November', 'the calendar has no such day'],
    ['until 1 December at 27', 'a day has no such time'],
    ['from 1 December at 25', 'a day has no such time'],
    ['not on 31 November', 'the calendar has no such day'],
    ['not from 24 December to 31 November', 'the calendar has no such day'],
    ['not from 31 November to 24 December', 'the calendar has no such day'],
    ['not from 28 December to 24 December', 'out of range'],
    ['9 to 9', 'say am and pm, or count the hours to 24'],
    ['12 to 12', 'say am and pm, or count the hours to 24'],
    ['noon to 3', 'say am and pm, or count the hours to 24'],
  ])('%s cannot be had: %s', (typed, why) => {
    expect(read(typed)[1]).toEqual([`${typed} (${why})`]);
  });
  it('what ends as it begins is over before it begins', () => {
    expect(read('from 24 December, before 24 December')[1]).toEqual([
      'before 24 December (it would end before it begins)',
    ]);
    expect(read('from 24 December, before 25 December')[1]).toEqual([]);
  });
});

test.each([
  ['8 in the evening', '8 pm'],
  ['8:30 in the morning', '8:30 am'],
  ['5 at night', '5 am'],
  ['6 at night', '6 pm'],
  ['12 at night', 'midnight'],
  ['12:30 at night', '0:30'],
  ['12 in the afternoon', '12 pm'],
  ['13 in the afternoon', '13:00'],
  ['20:15 in the evening', '20:15'],
  ['1 hour 30 minutes', '90 minutes'],
  ['2 h and 5 min', '125 minutes'],
  ['1 min 30', '90 seconds'],
  ['2 and a half days', '2.5 days'],
])('%s is %s', (said, plain) => {
  expect(plainly(said)).toBe(plain);
});
