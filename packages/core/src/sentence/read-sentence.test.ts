import { campaignDocumentSchema } from '@velarium/contract';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { plainMessage, plainRule, someSentenceInput } from '../testing/arbitrary.ts';
import { readSentence } from './read-sentence.ts';
import { ruleSentence, type SentenceInput, sentenceText } from './rule-sentence.ts';

/** Names that are not ids, with quotation marks of their own. */
const names = { campaign: (id: string) => `The “${id}”`, group: (id: string) => `Pages, and ${id}` };
const ids = {
  campaign: (name: string) => /^The “(.+)”$/.exec(name)?.[1],
  group: (name: string) => /^Pages, and (.+)$/.exec(name)?.[1],
};
const say = (input: SentenceInput) => sentenceText(ruleSentence(input, names));

describe('every sentence the product writes is read back to the same rule', () => {
  it('whatever the rule', () => {
    fc.assert(
      fc.property(someSentenceInput, (input) => {
        const read = readSentence(say(input), ids);
        expect(read).toBeDefined();
        // No two different rules read the same (rule-sentence.test.ts), so equal sentences are equal rules.
        expect(read && say(read)).toBe(say(input));
        expect(campaignDocumentSchema.shape.rule.safeParse(read?.rule).success).toBe(
          campaignDocumentSchema.shape.rule.safeParse(input.rule).success,
        );
      }),
      { numRuns: 2000 },
    );
  });
  it('also with two hundred addresses that end in commas', () => {
    const include = Array.from({ length: 200 }, (_, n) => ({ kind: 'exact' as const, address: `/a${n},,` }));
    const rule = {
      ...plainRule,
      reach: { ...plainRule.reach, pages: { include, exclude: [], follows: null } },
    };
    const input: SentenceInput = { ...plainMessage, closing: plainMessage.close, variants: [], rule };
    expect(readSentence(say(input), ids)?.rule).toEqual(rule);
  });
  it.each([
    ['triggers', 'opens ', 'after 5 seconds, '],
    ['pages', 'opens at once only on ', '/a,,,, '],
    ['commas', 'opens at once only on /a', ','],
    [
      'conditions',
      'opens at once on every page, on every device, for visitors ',
      '(with a sign-in or with a sign-in) and ',
    ],
    ['marks', 'opens on the event “', '\\“'],
  ])('half a million letters of %s are none, and are not pondered', (_, begin, again) => {
    const text = `A modal in the centre ${begin}${again.repeat(500_000 / again.length)}`;
    expect(readSentence(text, ids)).toBeUndefined();
  });
  it.each([
    ['cut off', (text: string) => text.slice(0, -1)],
    ['with something before it', (text: string) => `So ${text}`],
    ['with a unit of its own', (text: string) => text.replace('5 seconds', '5 moments')],
    [
      'with a name nobody has',
      (text: string) => text.replace('on every page', 'only on the pages of the group “x”'),
    ],
  ])('but not one %s', (_, spoil) => {
    const input: SentenceInput = {
      ...plainMessage,
      closing: plainMessage.close,
      variants: [],
      rule: plainRule,
    };
    expect(readSentence(say(input), ids)).toBeDefined();
    expect(readSentence(spoil(say(input)), ids)).toBeUndefined();
  });
});
