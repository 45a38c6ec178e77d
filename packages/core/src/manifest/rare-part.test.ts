import type { PageRule, Rule, SiteSettings } from '@velarium/contract';
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

it.each<[what: string, rules: Rule[], first: string[] | undefined, asking: number[]]>([
  ['by the pages of a campaign', [timed(on([here])), other], ['extras'], [0]],
  ['by those of several', [other, timed(on([below])), timed(on([here], [below]))], ['extras'], [1, 2]],
  ['by every page, for a campaign on every page', [timed(on([every])), other], undefined, []],
  ['by every page, for one of two', [timed(on([here])), timed(on([every])), other], undefined, []],
  ['by every page, where visitors are divided', [held(on([here])), other], undefined, []],
  ['by every page, without the extras', [held(on([here]))], undefined, []],
  ['by every page, for its own page rules', [on([{ kind: 'contains', text: 'a' }]), other], undefined, []],
  ['by every page, where a page tells what it is', [timed(on([articles]))], undefined, []],
  ['by every page, where the kind of browser decides', [on([here], [], forBrowser), other], undefined, []],
  ['by none', [on([here]), other], undefined, []],
])('the rarely used part is asked for %s', (_what, rules, first, asking) => {
  const manifest = compileRules(rules);
  expect(manifest.first).toEqual(first);
  expect(manifest.campaigns.flatMap(({ asksRare }, n) => (asksRare ? [n] : []))).toEqual(asking);
  // Tags of before read only this.
  expect(manifest.parts.includes('rare')).toBe(_what !== 'by none');
});

it.each<[what: string, settings: Partial<SiteSettings>]>([
  ['hands its visitors over', { sharedDomain: 'example.org' }],
  ['works in frames', { worksInFrames: true }],
  ['asks before it remembers', { privacy: { ...plainSettings.privacy, memory: 'asked' } }],
])('and by every page of a site that %s', (_what, settings) => {
  const manifest = compileRules([timed(on([here])), other], undefined, settings);
  expect(manifest.parts).toEqual(['extras', 'rare']);
  expect(manifest).not.toHaveProperty('first');
});
