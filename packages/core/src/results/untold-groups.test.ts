import type { PageGroup } from '@velarium/contract';
import { describe, expect, it } from 'vitest';
import { plainSettings } from '../testing/arbitrary.ts';
import { partsByGroup } from './parts-by-group.ts';
import { untoldOfGroups } from './untold-groups.ts';

const site = {
  settings: { ...plainSettings, pageParameters: ['Offer'] },
  origins: ['https://fell.example', 'https://shop.fell.example'],
};
type GroupRule = PageGroup['rules'][number];
const group = (...rules: GroupRule[]) => ({
  id: '00000000-0000-4000-8000-000000000001',
  name: 'Offers',
  rules,
});
const untold = (rule: GroupRule) => untoldOfGroups([group(rule)], site);

describe('what results by page group cannot tell', () => {
  it.each<[why: string, rule: GroupRule]>([
    ['what a page holds', { kind: 'holds', selector: '.price' }],
    ['“from” is', { kind: 'parameter', name: 'from', value: null }],
    ['“from” and “to” are', { kind: 'exact', address: '/tours?from=1&offer=2&to' }],
    ['“from” is', { kind: 'wildcard', pattern: '/tours/*?from=*' }],
    ['“from” is', { kind: 'contains', text: 'from=partner' }],
    ['“from” is', { kind: 'contains', text: '/tours?from' }],
    ['“from” and “to” are', { kind: 'regex', pattern: '^/tours?x.*from=.*to=[0-9]' }],
    ['only the path is kept', { kind: 'begins', address: 'https://shop.fell.example/' }],
    ['only the path is kept', { kind: 'wildcard', pattern: 'https://*.fell.example/**' }],
  ])('%s', (why, rule) => {
    const [sentence, ...others] = untold(rule);
    expect(sentence).toMatch(new RegExp(`^“Offers”, .+: .*${why}`));
    expect(others).toEqual([]);
  });
  it.each<GroupRule>([
    { kind: 'every' },
    { kind: 'parameter', name: 'offer', value: 'early' },
    { kind: 'exact', address: '/tours?offer=early' },
    { kind: 'exact', address: 'https://Fell.example/tours' },
    { kind: 'begins', address: 'https://fell.example' },
    { kind: 'exact', address: '/tours?offer=early#from=here' },
    { kind: 'contains', text: '?offer=early' },
    { kind: 'regex', pattern: '/tours?(offer=early)?' },
    { kind: 'contains', text: 'tours' },
    { kind: 'regex', pattern: '^/tours' },
    { kind: 'pageKind', name: 'article' },
  ])('is nothing of %j', (rule) => {
    expect(untold(rule)).toEqual([]);
  });
  it('is counted once more as soon as the site keeps it', () => {
    const rules = group({ kind: 'parameter', name: 'offer', value: 'early' });
    const visited = [{ key: '/tours?offer=early', visitors: 3, converters: 1 }];
    expect(partsByGroup(visited, [rules], { ...site, known: [] })).toEqual([
      { key: 'Offers', visitors: 3, converters: 1 },
    ]);
  });
});
