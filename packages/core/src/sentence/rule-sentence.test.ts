import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { someSentenceInput } from '../testing/arbitrary.ts';
import { ruleSentence, type SentenceInput, sentenceText } from './rule-sentence.ts';

const base: SentenceInput = {
  format: 'modal',
  anchor: 'center',
  rule: {
    moment: { triggers: [{ id: 'time', kind: 'time', seconds: 12 }] },
    reach: { pages: { include: [{ kind: 'every' }], exclude: [] }, devices: ['desktop', 'tablet', 'mobile'] },
    limits: { caps: [{ max: 1, per: 'session' }], afterClose: 'session', afterConversion: 'ever' },
  },
};
const exact = (...addresses: string[]) => addresses.map((address) => ({ kind: 'exact' as const, address }));
type Change = (input: SentenceInput) => SentenceInput;
const limits =
  (change: Partial<SentenceInput['rule']['limits']>): Change =>
  (input) => ({
    ...input,
    rule: { ...input.rule, limits: { ...input.rule.limits, ...change } },
  });
const pages =
  (include: ReturnType<typeof exact> | [{ kind: 'every' }], exclude: ReturnType<typeof exact> = []): Change =>
  (input) => ({
    ...input,
    rule: { ...input.rule, reach: { ...input.rule.reach, pages: { include, exclude } } },
  });
const seconds =
  (value: number): Change =>
  (input) => ({
    ...input,
    rule: { ...input.rule, moment: { triggers: [{ id: 'time', kind: 'time', seconds: value }] } },
  });
const devices =
  (...list: ('desktop' | 'tablet' | 'mobile')[]): Change =>
  (input) => ({
    ...input,
    rule: { ...input.rule, reach: { ...input.rule.reach, devices: list } },
  });

it('says a whole rule in one sentence', () => {
  expect(sentenceText(ruleSentence(base))).toBe(
    'A modal in the centre opens after 12 seconds on every page, on every device, once per session. ' +
      'After a close it stays away for the rest of the session; after a conversion it never comes again.',
  );
});

describe('each phrase is correct in number and commas', () => {
  it.each<[part: string, change: Change, words: string]>([
    ['an empty delay', seconds(0), 'opens at once on'],
    ['one second', seconds(1), 'after 1 second on'],
    ['half seconds', seconds(1.5), 'after 1.5 seconds on'],
    ['one page', pages(exact('/a')), 'only on /a,'],
    ['two pages', pages(exact('/a', '/b')), 'only on /a and /b,'],
    ['three pages', pages(exact('/a', '/b', '/c')), 'only on /a, /b and /c,'],
    ['everywhere but', pages([{ kind: 'every' }], exact('/a', '/b')), 'on every page but not on /a and /b,'],
    ['nowhere', pages([] as never), 'on no page yet,'],
    ['one device', devices('mobile'), 'on phone only,'],
    ['two devices, in a fixed order', devices('tablet', 'desktop'), 'on desktop and tablet only,'],
    ['no device', devices(), 'on no device yet,'],
    ['no cap', limits({ caps: [] }), 'every time a page is opened.'],
    ['per visitor', limits({ caps: [{ max: 1, per: 'ever' }] }), 'once per visitor.'],
    ['every day', limits({ caps: [{ max: 1, per: { count: 1, unit: 'days' } }] }), 'once every day.'],
    [
      'every ten days',
      limits({ caps: [{ max: 1, per: { count: 10, unit: 'days' } }] }),
      'once every 10 days.',
    ],
    [
      'several caps',
      limits({
        caps: [
          { max: 1, per: 'session' },
          { max: 3, per: { count: 1, unit: 'weeks' } },
        ],
      }),
      'once per session and at most 3 times every week.',
    ],
    [
      'a pause of one hour',
      limits({ afterClose: { count: 1, unit: 'hours' } }),
      'After a close it stays away for 1 hour;',
    ],
    ['no pause', limits({ afterClose: 'none' }), 'After a close it may come again;'],
  ])('%s', (_part, change, words) => {
    expect(sentenceText(ruleSentence(change(base)))).toContain(words);
  });
});

it('no two different rules have the same sentence', () => {
  // Devices are a set: their order is no difference.
  const meaning = (input: SentenceInput) =>
    JSON.stringify({
      ...input,
      rule: { ...input.rule, reach: { ...input.rule.reach, devices: [...input.rule.reach.devices].sort() } },
    });
  const seen = new Map<string, string>();
  fc.assert(
    fc.property(someSentenceInput, (input) => {
      const text = sentenceText(ruleSentence(input));
      const known = seen.get(text);
      if (known !== undefined) expect(known).toBe(meaning(input));
      seen.set(text, meaning(input));
    }),
    { numRuns: 5000 },
  );
});

it('every part of a rule has exactly one phrase', () => {
  fc.assert(
    fc.property(someSentenceInput, (input) => {
      const parts = ruleSentence(input).flatMap(({ part }) => (part ? [part] : []));
      expect(parts).toEqual(['place', 'moment', 'pages', 'devices', 'caps', 'afterClose', 'afterConversion']);
    }),
  );
});
