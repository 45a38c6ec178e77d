import { campaignDocumentSchema } from '@velarium/contract';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { documentSentence, sentenceText } from '../sentence/rule-sentence.ts';
import { plainMessage, plainRule } from '../testing/arbitrary.ts';
import { siteWords, startOfWishes } from '../testing/site-words.ts';
import { readWishes } from './read-wishes.ts';

const names = siteWords();
const start = startOfWishes;
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
        /opens after 20 seconds only on addresses that begin with \/journal\//,
        /on desktops and tablets only/,
        /once every week/,
      ],
    ],
    ['at once everywhere', [/opens at once on every page/]],
    ['after 2 minutes or on leaving', [/after 120 seconds or at a likely sign of leaving by mouse/]],
    ['40 % and after 18 s, both', [/after 40 % of the page and after 18 seconds \(all of them\)/]],
    [
      '30 s of stillness on night tours',
      [/after 30 seconds of inactivity only on the pages of the group “Night tours”/],
    ],
    ['on articles, once every 10 days', [/only on pages of the kind “article”/, /once every 10 days/]],
    ['on every page, never on basket', [/on every page but not on \/shop\/basket/]],
    ['only on phones, once per visitor', [/on phones only/, /once per visitor/]],
    [
      'on /a/b, closes by itself after 40 seconds',
      [/only on \/a\/b/, /It closes by itself after 40 seconds/],
    ],
    ['on saturn', [/only on \/journal\/finding-saturn/]],
    ['3 times a day', [/at most 3 times every day/]],
    ['not on tablets or phones', [/on desktops only/]],
    ['on phones and tablets', [/on tablets and phones only/]],
    ['on phones, on tablets', [/on tablets and phones only/]],
    ['only on /a and /b', [/only on \/a and \/b,/]],
    [
      'on /a, /b or journal but not on /c',
      [/only on \/a, \/b and addresses that begin with \/journal\/ but not on \/c,/],
    ],
    ['on /tours/*', [/only on addresses like \/tours\/\*,/]],
    ['on /**?m=modal', [/only on addresses like \/\*\*\?m=modal,/]],
    ['on sun and moon', [/only on \/sun,/]],
    [
      'after 20 s and on leaving',
      [/after 20 seconds and at a likely sign of leaving by mouse \(all of them\)/],
    ],
    ['once per session and once a week', [/once per session and once every week/]],
    ['after 1 hour', [/after 3600 seconds/]],
    ['on the event “basket” with “total” at least 60', [/on the event “basket” with “total” at least 60/]],
    [
      'for visitors with a sign-in and without a first session',
      [/for visitors with a sign-in and not in their first session/],
    ],
    ['after a close it stays away for 3 days', [/After a close it stays away for 3 days/]],
    ['a bar at the top', [/^A bar at the top opens/]],
  ] as const)('%s', (text, expected) => {
    for (const words of expected) expect(said(text)).toMatch(words);
    expect(readWishes(text, names).rest).toEqual([]);
  });
  it.each([
    ['dance on the roof', ['dance on the roof']],
    ['after 5 seconds, please', ['please']],
    ['', []],
    ['after 90 minutes', ['after 90 minutes (at most 60 minutes)']],
    ['after 120 %', ['after 120 % (a page has 100 %)']],
    ['after 12.5 %', ['after 12.5 % (out of range)']],
    ['after 0.25 seconds', ['after 0.25 seconds (out of range)']],
    ['closes after 1 second', ['closes after 1 second (whole seconds, from 2 seconds to an hour)']],
    ['once every 0 days', ['once every 0 days (out of range)']],
    ['5000 times a day', ['5000 times a day (out of range)']],
    ['every time, once a week', ['once a week (something else was said before)']],
    ['both, any', ['any (something else was said before)']],
    ['once a week on /a b', ['on /a b']],
    ['not on phones or the roof', ['the roof']],
  ])('of %j what is not understood is said: %j', (text, rest) => {
    expect(readWishes(text, names).rest).toEqual(rest);
  });
  it('a whole sentence of the product’s own, pasted, is the whole rule', () => {
    const other = { ...start, rule: plainRule, message: { ...plainMessage, close: start.message.close } };
    const text = sentenceText(documentSentence(other));
    const { apply, rest, isUnderstood } = readWishes(`  ${text}\n`, names);
    expect(isUnderstood).toBe(true);
    expect(sentenceText(documentSentence(apply(start)))).toBe(text);
    expect(apply(start).rule).toEqual(plainRule);
    expect(rest).toEqual([]);
  });
  it('a sentence with versions there are not says so', () => {
    const text = sentenceText(
      documentSentence({ ...start, variants: [{ id: 'b', weight: 30, message: start.message }] }),
    );
    expect(readWishes(text, names).rest).toEqual(['tried in 2 variants (a 70 %, b 30 %) (1 are there)']);
    expect(readWishes(text, { ...names, variants: ['b'] }).rest).toEqual([]);
  });
  it.each([
    ['with the lowest priority', 1],
    ['priority 4', 4],
    ['before all others', 9],
  ])('%s is a rank', (text, priority) => {
    expect(readWishes(text, names).apply(start).rule.limits.priority).toBe(priority);
  });
  it('what is typed beyond the four hundredth letter is named, not dropped', () => {
    const { rest } = readWishes(`once a week, ${'dance '.repeat(80)}at the very end`, names);
    expect(rest.join(' ')).toContain('at the very end');
  });
  it('keeps what was left out of pages when others are named', () => {
    const first = readWishes('on every page, never on /c', names).apply(start);
    expect(readWishes('on /a', names).apply(first).rule.reach.pages.exclude).toEqual([
      { kind: 'exact', address: '/c' },
    ]);
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
      'until',
      '24',
      'December',
      'in',
      'Norway',
      'background',
      'red',
      'heading',
      'larger',
      'wide',
      'button',
      'basket',
      'except',
      'who',
      'closed',
      'it',
      'cart',
      'Christmas',
      'and',
      'or',
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
