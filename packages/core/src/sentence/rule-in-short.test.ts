import type { PageRule, Rule } from '@velarium/contract';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { plainRule, someSentenceInput } from '../testing/arbitrary.ts';
import { ruleInShort } from './rule-in-short.ts';
import { ruleSentence, sentenceText } from './rule-sentence.ts';

const exact = (...addresses: string[]): PageRule[] =>
  addresses.map((address) => ({ kind: 'exact', address }));
const inShort = (reach: Partial<Rule['reach']>) =>
  ruleInShort({
    format: 'flyin',
    anchor: 'bottom-end',
    rule: { ...plainRule, reach: { ...plainRule.reach, ...reach } },
  });
const pages = (include: PageRule[], exclude: PageRule[] = [], follows: string | null = null) =>
  inShort({ pages: { include, exclude, follows } });

describe('a rule in short', () => {
  it.each([
    [pages([{ kind: 'every' }]), 'on every page'],
    [pages(exact('/contact')), 'only on /contact'],
    [pages(exact('/a', '/b', '/c')), 'on /a and 2 more places'],
    [pages(exact('/a'), exact('/b', '/c')), 'on /a but 2 exceptions'],
    [pages([{ kind: 'every' }], exact('/b')), 'on every page but 1 exception'],
    [pages([]), 'on no page yet'],
    [pages(exact('/a', '/b')), 'on /a and 1 more place'],
    [pages(exact('/a'), [], 'c'), 'on /a and 1 more place'],
    [pages(exact('/a', '/b'), exact('/c'), 'c'), 'on /a and 2 more places but 1 exception'],
  ])('%s', (short, said) => {
    expect(short).toContain(`, ${said}, `);
  });
  it('says two conditions, and counts more', () => {
    const audience = (count: number) => ({
      audience: {
        match: 'all' as const,
        groups: [
          {
            not: false,
            match: 'all' as const,
            items: (['search', 'mail', 'social'] as const)
              .slice(0, count)
              .map((is) => ({ not: false, condition: { kind: 'source' as const, is } })),
          },
        ],
      },
    });
    expect(inShort(audience(1))).toContain('with an arrival from search');
    expect(inShort(audience(2))).toContain('with an arrival from mail');
    expect(inShort(audience(3))).toContain('for some visitors (3 conditions)');
  });
  it('leaves its place out where that is seen', () => {
    expect(ruleInShort({ format: 'bar', anchor: 'top', rule: plainRule }, undefined, true)).not.toContain(
      'bar',
    );
  });
  it('says nothing of devices where it is every one', () => {
    expect(pages([])).not.toContain('device');
    expect(inShort({ devices: ['mobile'] })).toContain(', on phones only, ');
  });
  it('is never longer than the whole sentence, and begins as it does', () => {
    fc.assert(
      fc.property(someSentenceInput, (input) => {
        const [short, whole] = [ruleInShort(input), sentenceText(ruleSentence(input))];
        expect(short.length).toBeLessThanOrEqual(whole.length);
        expect(whole.startsWith(short.split(', ')[0] ?? '')).toBe(true);
      }),
    );
  });
});
