import { describe, expect, it } from 'vitest';
import { type ElementFacts, elementWords, steadySelector } from './steady-selector.ts';

const element = (facts: Partial<ElementFacts>): ElementFacts => ({
  tag: 'a',
  id: '',
  classes: [],
  attributes: [],
  nth: 1,
  ...facts,
});

describe('an element in a word or two', () => {
  it.each<[string, Partial<ElementFacts>]>([
    ['a#book', { id: 'book', classes: ['cta'] }],
    ['a.cta', { classes: ['cta'] }],
    ['a', {}],
    // Names that a tool made up, or that tell of a state, are not what anybody calls it.
    ['a.cta', { id: 'ember1234', classes: ['is-open', 'css-1a2b3c', 'cta'] }],
    ['a.cta', { id: 'aB3', classes: ['cta'] }],
    // A capital or a digit alone makes no name up.
    ['a#tourList', { id: 'tourList' }],
    ['a#step2', { id: 'step2' }],
    ['a#TOP2', { id: 'TOP2' }],
    ['a', { classes: ['active', 'x1234567'] }],
  ])('%s', (words, facts) => {
    expect(elementWords(element(facts))).toBe(words);
  });
});

it.each<[selector: string, isFragile: boolean, why: RegExp]>([
  ['.book', false, /a name of its own/],
  ['a', false, /the only one of its kind/],
  ['#tours .book', false, /what it stands in/],
  ['#tours a', false, /what it stands in/],
  ['ul .book', false, /what it stands in/],
  ['#tours > li:nth-of-type(2) > a:nth-of-type(1)', true, /counting within “#tours”/],
  ['li:nth-of-type(2) > a:nth-of-type(1)', true, /by counting: another element/],
])('where only %s finds it alone, it is found so', (only, isFragile, why) => {
  const chain = [
    element({ classes: ['book'] }),
    element({ tag: 'li', nth: 2 }),
    element({ tag: 'ul', id: 'tours' }),
  ];
  expect(steadySelector(chain, (selector) => selector === only)).toEqual({
    selector: only,
    isFragile,
    why: expect.stringMatching(why),
  });
});
it('of several that nothing tells apart the first is meant', () => {
  expect(steadySelector([element({ classes: ['book'] })], () => false)).toMatchObject({
    selector: '.book',
    isFragile: true,
  });
  expect(steadySelector([], () => true)).toMatchObject({ selector: 'body', isFragile: true });
});

it('what can only be counted to is said to be fragile', () => {
  const list = element({ tag: 'ul', id: 'tours' });
  const chain = [element({ tag: 'li', nth: 3 }), list];
  const proposal = steadySelector(
    chain,
    (selector) => selector.includes('nth-of-type') || selector === '#tours',
  );
  expect(proposal).toMatchObject({ isFragile: true, selector: expect.stringMatching(/^#tours > li/) });
});
