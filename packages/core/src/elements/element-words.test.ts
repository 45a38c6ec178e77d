import { describe, expect, it } from 'vitest';
import { type ElementFacts, elementWords, meantOf, steadySelector } from './steady-selector.ts';

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

describe('an element’s own name', () => {
  /** Every selector that is asked for, in its order, when none is the only one. */
  const asked = (facts: Partial<ElementFacts>) => {
    const all: string[] = [];
    steadySelector([element(facts)], (selector) => {
      all.push(selector);
      return false;
    });
    return all.slice(0, -2);
  };
  it('is its id, then what it says of itself, then its classes, then role and label together', () => {
    expect(
      asked({
        id: 'book',
        classes: ['cta', 'is-open', 'css-1a2b3c'],
        attributes: [
          ['data-tour', ''],
          ['role', 'link'],
          ['aria-label', 'Book "now"'],
        ],
      }),
    ).toEqual([
      '#book',
      '[data-tour]',
      '[role="link"]',
      '[aria-label="Book \\"now\\""]',
      '.cta',
      'a.cta',
      '[role="link"][aria-label="Book \\"now\\""]',
    ]);
  });
  it('is none that a tool made up, nor one longer than a line', () => {
    expect(asked({ attributes: [['data-id', '12345']] })).toEqual([]);
    expect(asked({ attributes: [['title', 'x'.repeat(59)]] })).toHaveLength(1);
    expect(asked({ attributes: [['title', 'x'.repeat(60)]] })).toEqual([]);
    expect(asked({ attributes: [['role', 'link']] })).toEqual(['[role="link"]']);
    expect(asked({ attributes: [['aria-label', 'Book']] })).toEqual(['[aria-label="Book"]']);
  });
});

it('is counted to by no longer a way than it takes', () => {
  const chain = [element({ nth: 2 }), element({ tag: 'li', nth: 3 }), element({ tag: 'ul', nth: 4 })];
  const found = (length: number) =>
    steadySelector(chain, (selector) => selector.includes('nth') && selector.split(' > ').length === length)
      .selector;
  expect([1, 2, 3].map(found)).toEqual([
    'a:nth-of-type(2)',
    'li:nth-of-type(3) > a:nth-of-type(2)',
    'ul:nth-of-type(4) > li:nth-of-type(3) > a:nth-of-type(2)',
  ]);
});

describe('whom somebody means who points', () => {
  const chain = (...tags: (string | [tag: string, role: string])[]) =>
    tags.map((one) =>
      typeof one === 'string'
        ? element({ tag: one })
        : element({ tag: one[0], attributes: [['role', one[1]]] }),
    );
  it.each<[what: string, chain: ElementFacts[], at: number]>([
    ['at a link', chain('a', 'li'), 0],
    ['at the icon of a button', chain('path', 'svg', 'button', 'form'), 2],
    ['at a strong word of a link', chain('strong', 'a'), 1],
    ['at what is a button by its role', chain('span', ['div', 'button']), 1],
    ['at what has another role', chain('span', ['div', 'note']), 0],
    ['at a paragraph in a link', chain('p', 'a'), 0],
    ['at a picture in nothing', chain('img', 'span'), 0],
    ['at a picture within a paragraph within a link', chain('img', 'p', 'a'), 0],
    ['at nothing', [], 0],
  ])('%s', (_, of, at) => {
    expect(meantOf(of)).toBe(at);
  });
  it('goes by the role, whatever else it says', () => {
    const other = element({ tag: 'div', attributes: [['data-kind', 'button']] });
    expect(meantOf([element({ tag: 'span' }), other])).toBe(0);
  });
});
