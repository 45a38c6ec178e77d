import type { Manifest, PageRule, Rule, SiteSettings } from '@velarium/contract';
import { expect, it } from 'vitest';
import { plainRule, plainSettings } from '../testing/arbitrary.ts';
import { compileRules } from '../testing/compile-rules.ts';

const on = (
  include: PageRule[],
  exclude: PageRule[] = [],
  audience: Rule['reach']['audience'] = null,
): Rule => ({
  ...plainRule,
  reach: { ...plainRule.reach, audience, pages: { include, exclude, follows: null } },
});
/** On Mondays, for which the rarely used part is asked. */
const timed = (rule: Rule): Rule => ({
  ...rule,
  limits: {
    ...rule.limits,
    schedule: { zone: 'site', start: null, end: null, days: [1], hours: [], blackouts: [] },
  },
});
/** Withheld from a tenth, for which it is asked too. */
const held = (rule: Rule): Rule => ({ ...rule, limits: { ...rule.limits, holdout: 10 } });
const forBrowser: Rule['reach']['audience'] = {
  match: 'all',
  groups: [
    { not: false, match: 'all', items: [{ not: false, condition: { kind: 'browser', is: 'gecko' } }] },
  ],
};
const here: PageRule = { kind: 'exact', address: '/here' };
const below: PageRule = { kind: 'begins', address: '/below' };
const every: PageRule = { kind: 'every' };
const articles: PageRule = { kind: 'pageKind', name: 'article' };
/** For something else of the site the extras are needed, by which pages find out. */
const other = on([articles]);

/** On leaving, for which the extras are needed. */
const leaving = (rule: Rule): Rule => ({
  ...rule,
  moment: { ...rule.moment, triggers: [{ kind: 'exitMouse', certainty: 'likely' }] },
});
const elsewhere: PageRule = { kind: 'exact', address: '/elsewhere' };

/** What every page loads, where that is not all; and what each campaign has its pages ask for. */
const partsOf = (manifest: Manifest) => ({
  everywhere: manifest.everywhere,
  asks: manifest.campaigns.map(({ asks = [] }) => asks.join(' and ')),
});

it.each<[what: string, rules: Rule[], everywhere: string[] | undefined, asks: string[]]>([
  ['nothing, where time and exact pages are all', [on([here])], undefined, ['']],
  ['nothing for a folder', [on([below])], [], ['']],
  ['what its own moment needs', [leaving(on([here])), on([elsewhere])], [], ['extras', '']],
  ['what its own schedule needs', [timed(on([below]))], [], ['extras and rare']],
  ['what some leave out', [on([here], [articles])], [], ['extras']],
  ['the rare part, where others need the extras', [timed(on([here])), other], ['extras'], ['rare', '']],
  [
    'the rare part of several',
    [other, timed(on([below])), timed(on([here], [below]))],
    ['extras'],
    ['', 'rare', 'rare'],
  ],
  ['all at once, for one on every page', [timed(on([every])), other], undefined, ['', '']],
  ['all at once, for one of two', [timed(on([here])), timed(on([every])), other], undefined, ['', '', '']],
  ['all at once, where visitors are divided', [held(on([here])), other], undefined, ['', '']],
  ['the rare part at once, where visitors are divided', [held(on([here]))], undefined, ['']],
  ['all at once, for page rules of its own', [on([{ kind: 'contains', text: 'a' }])], undefined, ['']],
  ['all at once, where a page tells what it is', [timed(on([articles]))], undefined, ['']],
  ['all at once, by the kind of browser', [on([here], [], forBrowser)], undefined, ['']],
])('a page loads %s', (_what, rules, everywhere, asks) => {
  expect(partsOf(compileRules(rules))).toEqual({ everywhere, asks });
});

it('tags of before are told of all parts, and read folders with the extras', () => {
  expect(compileRules([timed(on([here]))]).parts).toEqual(['extras', 'rare']);
  expect(compileRules([on([below])]).parts).toEqual(['extras']);
  expect(compileRules([on([here])]).parts).toEqual([]);
});

it.each<[what: string, settings: Partial<SiteSettings>, everywhere: string[] | undefined]>([
  ['hands its visitors over', { sharedDomain: 'example.org' }, ['rare']],
  ['works in frames', { worksInFrames: true }, ['rare']],
  ['asks before it remembers', { privacy: { ...plainSettings.privacy, memory: 'asked' } }, ['rare']],
  ['records what pages tell', { recordedFacts: ['plan'] }, ['extras']],
])('every page of a site that %s loads what that needs', (_what, settings, everywhere) => {
  const manifest = compileRules([timed(on([here]))], undefined, settings);
  expect(manifest.parts).toEqual(['extras', 'rare']);
  expect(manifest.everywhere).toEqual(everywhere);
});
