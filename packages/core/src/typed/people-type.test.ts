import { describe, expect, it } from 'vitest';
import { documentSentence, sentenceText } from '../sentence/rule-sentence.ts';
import { siteWords, startOfWishes } from '../testing/site-words.ts';
import { readWishes } from './read-wishes.ts';

const WELCOME = '00000000-0000-4000-8000-00000000000c';
const words = siteWords({ campaigns: [{ id: WELCOME, name: 'Welcome code' }] });
const read = (typed: string) => {
  const { apply, rest } = readWishes(typed, words);
  const names = { campaign: () => 'Welcome code', group: () => 'Night tours' };
  return { said: sentenceText(documentSentence(apply(startOfWishes), names)), rest };
};

/** What people type, and what the sentence then says. */
const TYPED: readonly (readonly [typed: string, ...said: string[]])[] = [
  // Where.
  ['everywhere but home', 'on every page but not on /,'],
  ['everywhere except home and basket', 'on every page but not on / or /shop/basket,'],
  ['on every page but /contact', 'on every page but not on /contact,'],
  ['all pages except the shop', 'on every page but not on addresses that begin with /shop/,'],
  ['on the home page', 'only on /,'],
  ['on the whole site', 'on every page,'],
  ['only in the journal', 'only on addresses that begin with /journal/,'],
  ['under /journal/', 'only on addresses that begin with /journal/,'],
  ['on articles', 'only on pages of the kind “article”,'],
  [
    'on night tours but not on the basket',
    'only on the pages of the group “Night tours” but not on /shop/basket,',
  ],
  ['on pages containing aurora', 'only on addresses with “aurora” in them,'],
  ['on pages with ?ref=letter', 'only on addresses with the parameter “ref” being “letter”,'],
  ['on pages with .price', 'only on pages that hold “.price”,'],
  ['on membership and contact', 'only on /membership and /contact,'],
  ['never in the shop', 'never on addresses that begin with /shop/,'],
  // When.
  ['10 seconds without moving', 'opens after 10 seconds of inactivity'],
  ['when idle for half a minute', 'opens after 30 seconds of inactivity'],
  ['after 20 seconds of inactivity', 'opens after 20 seconds of inactivity'],
  ['at half of the page', 'opens after 50 % of the page'],
  ['at two thirds of the page', 'opens after 67 % of the page'],
  ['at three quarters of the page', 'opens after 75 % of the page'],
  ['halfway down the page', 'opens after 50 % of the page'],
  ['after a quarter of the page', 'opens after 25 % of the page'],
  ['at the bottom of the page', 'opens after 100 % of the page'],
  ['after scrolling 40 %', 'opens after 40 % of the page'],
  ['when they scroll past 60 percent', 'opens after 60 % of the page'],
  ['after 600 px', 'opens after 600 pixels of the page'],
  ['after a minute', 'opens after 60 seconds'],
  ['after half an hour on the site', 'opens after 1800 seconds in the session'],
  ['wait 5 seconds', 'opens after 5 seconds'],
  ['12s', 'opens after 12 seconds'],
  ['immediately', 'opens at once'],
  ['when the page has loaded', 'opens when the page has loaded'],
  ['on a click on .open', 'opens on a click on “.open”'],
  ['when .open is clicked', 'opens on a click on “.open”'],
  ['when they hover over #menu', 'opens on a hover over “#menu”'],
  ['when #prices comes into view', 'opens on reaching “#prices”'],
  ['on reaching #prices', 'opens on reaching “#prices”'],
  ['when they are about to leave', 'opens at a likely sign of leaving by mouse'],
  ['when leaving the page', 'opens at a likely sign of leaving by mouse'],
  ['on the back button', 'opens on the back gesture'],
  ['when they come back to the tab', 'opens on coming back to the tab'],
  ['after reading the article', 'opens at the end of the article'],
  ['on the third page', 'opens from the 3rd page view of the session onwards'],
  ['after two pages', 'opens from the 2nd page view of the session onwards'],
  ['from the fourth session on', 'opens from the 4th session onwards'],
  ['on the event basket', 'opens on the event “basket”'],
  ['after 20 seconds or half of the page', 'after 20 seconds or after 50 % of the page'],
  ['after 20 seconds and at half the page', 'after 20 seconds and after 50 % of the page (all of them)'],
  ['not before ten seconds', ', not before 10 seconds'],
  ['closes after 20 s', 'It closes by itself after 20 seconds'],
  // On what.
  ['desktop only', 'on desktops only'],
  ['no phones', 'on desktops and tablets only'],
  ['mobile only', 'on phones only'],
  ['for mobile visitors', 'on phones only'],
  ['on all devices except tablets', 'on desktops and phones only'],
  ['phones and tablets', 'on tablets and phones only'],
  // Who.
  ['for the fourth session', 'for visitors with exactly 4 sessions'],
  ['not signed in', 'for visitors without a sign-in'],
  ['who are signed in', 'for visitors with a sign-in'],
  ['from a search', 'for visitors with an arrival from search'],
  ['from search or social media', 'for visitors with an arrival from search or with an arrival from social'],
  ['coming from partner.example', 'for visitors with an arrival from the host “partner.example”'],
  ['not from the newsletter', 'for visitors without an arrival from mail'],
  ['direct visitors', 'for visitors with a direct arrival'],
  [
    'with three things in the basket worth 60',
    'for visitors with at least 3 things in the basket and with a basket worth at least 60',
  ],
  ['with an empty basket', 'for visitors with at most 0 things in the basket'],
  ['basket over 60', 'for visitors with a basket worth at least 60'],
  ['with more than two things in the basket', 'with at least 3 things in the basket'],
  ['with fewer than three things in the basket', 'with at most 2 things in the basket'],
  ['with a couple of things in the basket', 'with at least 2 things in the basket'],
  ['new visitors only', 'for visitors in their first session'],
  ['for returning visitors', 'for visitors with an earlier session'],
  ['in Norway', 'for visitors from Norway (no)'],
  ['not in Germany', 'for visitors not from Germany (de)'],
  ['speaking Welsh', 'for visitors with the language Welsh (cy)'],
  ['on Android', 'for visitors on Android'],
  ['with utm_campaign=autumn', 'with an arrival with “utm_campaign” being “autumn”'],
  ['landing on /membership', 'with a session begun on “/membership”'],
  ['who have not seen it', 'without an earlier showing of this campaign'],
  ['not signed in, from a search', 'for visitors without a sign-in and with an arrival from search'],
  // How often.
  ['once a day', 'once every day'],
  ['twice a week', 'at most 2 times every week'],
  ['no more than three times in all', 'at most 3 times per visitor'],
  ['only once', 'once per visitor'],
  ['once per visit', 'once per session'],
  ['daily', 'once every day'],
  ['once every two weeks', 'once every 2 weeks'],
  ['after a close not for a week', 'After a close it stays away for 1 week'],
  ['never again after signing up', 'after a conversion it never comes again'],
  ['after closing, wait 3 days', 'After a close it stays away for 3 days'],
  ['hold back 10 %', 'held back from 10 % of visitors'],
  ['priority 8', 'going before others with priority 8 of 9'],
  // In which days and hours.
  ['from tomorrow', 'from 27 November 2026 at 00:00, by the site’s clock'],
  ['until 24 December', 'until 25 December 2026 at 00:00, by the site’s clock'],
  ['from 1 December until 24 December', 'from 1 December 2026 at 00:00, until 25 December 2026 at 00:00,'],
  ['starting Monday at 9', 'from 30 November 2026 at 09:00,'],
  ['until 6 January', 'until 7 January 2027 at 00:00,'],
  ['until the end of the month', 'until 1 December 2026 at 00:00,'],
  ['on weekdays', 'on weekdays, by'],
  ['at weekends', 'on Saturdays and Sundays, by'],
  ['Monday to Wednesday', 'on Mondays to Wednesdays, by'],
  ['between 9 and 17', 'between 09:00 and 17:00, by'],
  ['from 6 pm to midnight', 'between 18:00 and 24:00, by'],
  ['not on 25 December', 'but not on 25 December 2026, by'],
  [
    'on weekdays between 9 and 17 until 24 December',
    'until 25 December 2026 at 00:00, on weekdays, between 09:00 and 17:00, by',
  ],
  // As what.
  ['as a bar at the top', 'A bar at the top opens'],
  ['fly-in in the lower left corner', 'A fly-in at the lower left opens'],
  // In other words: where.
  ['show after 7 seconds on the shop, but not on phones', 'only on addresses that begin with /shop/'],
  [
    'on any page under /journal except /journal/archive',
    'that begin with /journal/ but not on /journal/archive,',
  ],
  ['only on pages that begin with /tours/', 'only on addresses that begin with /tours/,'],
  ['on addresses ending with /thanks', 'only on addresses that match “/thanks$”,'],
  ['on pages ending in .html', 'only on addresses that match “\\\\.html$”,'],
  ['when the URL contains ?promo', 'only on addresses with the parameter “promo”,'],
  ['on pages of the group Night tours', 'only on the pages of the group “Night tours”,'],
  ['on the page called Membership', 'only on /membership,'],
  // When.
  ['as soon as the page is open', 'opens at once'],
  ['after one and a half minutes', 'opens after 90 seconds'],
  ['after a minute and a half', 'opens after 90 seconds'],
  ['after 2 min 30', 'opens after 150 seconds'],
  ['after twenty-five seconds', 'opens after 25 seconds'],
  ['when someone scrolls 30 percent or stays for 40 seconds', 'after 30 % of the page or after 40 seconds'],
  ['once they have been on the site for 3 minutes', 'opens after 180 seconds in the session'],
  ['when the reader reaches 80%', 'opens after 80 % of the page'],
  ['at 3/4 of the page', 'opens after 75 % of the page'],
  ['when they get to the middle of the page', 'opens after 50 % of the page'],
  ['once the visitor scrolls down to the bottom', 'opens after 100 % of the page'],
  ['when they have seen three pages', 'from the 3rd page view of the session onwards'],
  ['when the cursor goes to the close button', 'leaving by mouse'],
  ['when they try to close the tab', 'leaving by mouse'],
  ['when they press back', 'opens on the back gesture'],
  ['when nothing happens for a minute', 'opens after 60 seconds of inactivity'],
  ['if they do nothing for 15 seconds', 'opens after 15 seconds of inactivity'],
  ['when the button .book is clicked', 'opens on a click on “.book”'],
  ['when .prices becomes visible', 'opens on reaching “.prices”'],
  ['after the article has been read to the end', 'opens at the end of the article'],
  ['auto close after 15s', 'It closes by itself after 15 seconds'],
  // Who, and on what.
  ['for logged in members', 'on no page yet, on every device, for visitors with a sign-in'],
  ['for logged-out visitors', 'for visitors without a sign-in'],
  ['first visit only', 'for visitors in their first session'],
  ['everyone except new visitors', 'for visitors not in their first session'],
  ['visitors with 3 or more visits', 'for visitors with at least 3 sessions'],
  ['visitors from France and Belgium', 'for visitors from France (fr) or from Belgium (be)'],
  [
    'for visitors from Norway, Sweden and Denmark',
    'from Norway (no) or from Sweden (se) or from Denmark (dk)',
  ],
  ['not from France or Belgium', 'not from France (fr) and not from Belgium (be)'],
  ['everyone except people from France and Belgium', 'not from France (fr) and not from Belgium (be)'],
  [
    'from France or Belgium, not signed in',
    '(without a sign-in) and (from France (fr) or from Belgium (be))',
  ],
  ['UK only', 'for visitors from the United Kingdom (gb)'],
  ['visitors speaking English or Welsh', 'with the language English (en) or with the language Welsh (cy)'],
  ['German speakers', 'for visitors with the language German (de)'],
  ['cart worth more than 80', 'for visitors with a basket worth at least 80'],
  ['when the cart is not empty', 'for visitors with at least 1 thing in the basket'],
  ['who came via partner.example', 'with an arrival from the host “partner.example”'],
  ['if utm_source is letter', 'with an arrival with “utm_source” being “letter”'],
  [
    'who saw the Welcome code campaign',
    'for visitors with an earlier showing of the campaign “Welcome code”',
  ],
  ['never show it to someone who closed it', 'for visitors without an earlier close of this campaign'],
  ['who have not signed up', 'for visitors without an earlier conversion of this campaign'],
  ['tablets excluded', 'on desktops and phones only'],
  // How often.
  ['max 2 per day', 'at most 2 times every day'],
  ['2x a week', 'at most 2 times every week'],
  ['every month', 'once every month'],
  ['not more often than once a day', 'once every day'],
  ['no more than once a week per visitor', 'once every week'],
  ['don’t show again once closed', 'After a close it never comes again'],
  ['after they refuse, hide it', 'after a no it never comes again'],
  ['stop after three times without an answer', 'until 3 showings go unanswered'],
  ['show to 20% of visitors', 'held back from 80 % of visitors'],
  ['control group of 10 %', 'held back from 10 % of visitors'],
  ['with the highest priority', 'priority 9 of 9'],
  ['don’t show together with another message', 'giving way when another message has the floor'],
  // In which days and hours.
  ['only after 6 pm', 'between 18:00 and 24:00'],
  ['until 9:30 am', 'between 00:00 and 09:30'],
  ['every day except Sunday', 'on Mondays to Saturdays'],
  ['on 24 December', 'from 24 December 2026 at 00:00, until 25 December 2026 at 00:00'],
  ['on Black Friday', 'from 27 November 2026 at 00:00, until 28 November 2026 at 00:00'],
  ['until Christmas', 'until 26 December 2026 at 00:00'],
  ['between 1 and 24 December', 'from 1 December 2026 at 00:00, until 25 December 2026 at 00:00'],
  ['from 1.12. to 24.12.', 'from 1 December 2026 at 00:00, until 25 December 2026 at 00:00'],
  ['next week', 'from 30 November 2026 at 00:00, until 7 December 2026 at 00:00'],
  ['this weekend', 'from 28 November 2026 at 00:00, until 30 November 2026 at 00:00'],
  ['during December', 'from 1 December 2026 at 00:00, until 1 January 2027 at 00:00'],
  ['for two weeks', 'from 26 November 2026 at 00:00, until 10 December 2026 at 00:00'],
  ['ends on 31 December', 'until 1 January 2027 at 00:00'],
  // As what.
  ['bar at the bottom of the page', 'A bar at the bottom opens'],
  ['small box bottom left', 'A fly-in at the lower left opens'],
  ['full screen', 'A full-screen message opens'],
  ['slide in from the right', 'A slide-in from the right opens'],
  ['banner at the top', 'A bar at the top opens'],
  // Shorter still.
  ['after 1m30s', 'opens after 90 seconds'],
  ['when half of the page has been read', 'opens after 50 % of the page'],
  ['when they click .book or .buy', 'on a click on “.book” or on a click on “.buy”'],
  ['at exit', 'leaving by mouse'],
  ['when the user wants to leave the page', 'leaving by mouse'],
  ['idle for a minute or more', 'opens after 60 seconds of inactivity'],
  ['new users', 'for visitors in their first session'],
  ['users who are not logged in', 'for visitors without a sign-in'],
  ['customers with something in the cart', 'for visitors with at least 1 thing in the basket'],
  ['basket over £100', 'for visitors with a basket worth at least 100'],
  ['referred by partner.example', 'with an arrival from the host “partner.example”'],
  ['source: newsletter', 'for visitors with an arrival from mail'],
  ['outside the UK', 'for visitors not from the United Kingdom (gb)'],
  ['Windows or Linux', 'for visitors on Windows or on Linux'],
  ['once a week at most', 'once every week'],
  ['only in the mornings from 7 to 10', 'between 07:00 and 10:00'],
  ['until end of year', 'until 1 January 2027 at 00:00'],
  ['starts tomorrow', 'from 27 November 2026 at 00:00'],
  ['for a week from tomorrow', 'from 27 November 2026 at 00:00, until 4 December 2026 at 00:00'],
  ['except the basket and the contact page', 'never on /shop/basket or /contact,'],
  ['all articles', 'only on pages of the kind “article”,'],
  ['shop pages', 'only on addresses that begin with /shop/,'],
  ['on the start page', 'only on /,'],
  ['pages whose address contains aurora', 'only on addresses with “aurora” in them,'],
  // Several things at once.
  [
    'show a bar at the top of every page until 24 December',
    'A bar at the top opens after 8 seconds on every page, on every device, until 25 December 2026',
  ],
  [
    'fly-in bottom left after scrolling 60% of the page on the journal, only for visitors who came from a newsletter',
    'A fly-in at the lower left opens after 60 % of the page only on addresses that begin with /journal/, on every device, for visitors with an arrival from mail',
  ],
  [
    'as a full-screen message on leaving on desktops, never to those who already signed up',
    'A full-screen message opens at a likely sign of leaving by mouse on no page yet, on desktops only, for visitors without an earlier conversion of this campaign',
  ],
  [
    'pop-up in the middle, 10 seconds after arrival, for new visitors, at weekends',
    'A pop-up in the centre opens after 10 seconds',
    'for visitors in their first session, on Saturdays and Sundays',
  ],
  [
    'show between 9am and 5pm on weekdays, not on 25 and 26 December',
    'on weekdays, between 09:00 and 17:00, but not on 25 December 2026 or on 26 December 2026',
  ],
  [
    'for people with more than 2 items in their basket who are about to leave',
    'at a likely sign of leaving by mouse',
    'for visitors with at least 3 things in the basket',
  ],
  ['first-time visitors coming from search', 'in their first session and with an arrival from search'],
  ['only signed-out visitors, on the third page view', 'from the 3rd page view', 'without a sign-in'],
  ['after reading half the page or clicking .book', 'after 50 % of the page or on a click on “.book”'],
  ['only on mobile, when scrolling up quickly', 'on a quick scroll up by touch', 'on phones only'],
  ['at most 1 per session and 3 per week', 'once per session and at most 3 times every week'],
  [
    'only English-speaking visitors from the UK or Ireland',
    'with the language English (en)) and (from the United Kingdom (gb) or from Ireland (ie))',
  ],
  ['from Monday until Friday', 'from 30 November 2026 at 00:00, until 5 December 2026 at 00:00'],
  ['from 1 to 3 pm', 'between 13:00 and 15:00'],
  ['9 to 5 pm', 'between 09:00 and 17:00'],
  [
    'anywhere under /shop/ except /shop/basket and /shop/star-chart',
    'only on addresses that begin with /shop/ but not on /shop/basket or /shop/star-chart',
  ],
  ['on pages with .price or #map', 'pages that hold “.price” and pages that hold “#map”'],
  ['on the shop but only after 10 seconds', 'after 10 seconds only on addresses that begin with /shop/'],
  ['10 seconds, shop, no phones', 'only on addresses that begin with /shop/, on desktops and tablets only'],
  ['leaving, basket, desktop, daily', 'only on /shop/basket, on desktops only, once every day'],
  [
    'after 20 seconds on the journal, desktop only, not signed in, once a week until 24 December',
    'opens after 20 seconds only on addresses that begin with /journal/, on desktops only, for visitors without a sign-in, until 25 December 2026 at 00:00, by the site’s clock, once every week',
  ],
  [
    'bar at the bottom after 5 seconds everywhere but the basket for new visitors, once per session',
    'A bar at the bottom opens after 5 seconds on every page but not on /shop/basket, on every device, for visitors in their first session, once per session',
  ],
];

describe('what people type is understood whole', () => {
  it('is a hundred sentences and more', () => {
    expect(TYPED.length).toBeGreaterThan(100);
  });
  it.each(TYPED)('%s', (typed, ...expected) => {
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
    // What hangs on a piece that is not understood is not taken by itself: it could come to mean the opposite.
    ['never dance for those who closed it', ['never dance for those who closed it']],
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
