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

it('what can only be counted to is said to be fragile', () => {
  const list = element({ tag: 'ul', id: 'tours' });
  const chain = [element({ tag: 'li', nth: 3 }), list];
  const proposal = steadySelector(
    chain,
    (selector) => selector.includes('nth-of-type') || selector === '#tours',
  );
  expect(proposal).toMatchObject({ isFragile: true, selector: expect.stringMatching(/^#tours > li/) });
});
