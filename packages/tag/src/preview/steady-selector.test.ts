// @vitest-environment jsdom
import { elementWords, meantOf, steadySelector } from '@velarium/core/elements';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { elementChain, isOnlyOne } from './element-chain.ts';

const page = (html: string): Element => {
  document.body.innerHTML = html;
  return document.querySelector('[data-this]') as Element;
};
const propose = (element: Element) => steadySelector(elementChain(element), isOnlyOne(element));

describe('a selector for an element of a page', () => {
  it.each<[what: string, html: string, selector: string, isFragile: boolean]>([
    ['an id', '<p id=price data-this></p><p></p>', '#price', false],
    ['a class of its own', '<p class="lead x" data-this></p><p class=x></p>', '.lead', false],
    ['no id that a tool made', '<p id="r482913" class=lead data-this></p>', '.lead', false],
    ['no class that says a state', '<p class="is-open lead" data-this></p>', '.lead', false],
    ['what it is', '<p itemprop=price class=x data-this></p><p class=x></p>', '[itemprop="price"]', false],
    ['the only one of its tag', '<p></p><video data-this></video>', 'video', false],
    ['its ancestor', '<div class=tour><h2 data-this></h2></div><div><h2></h2></div>', '.tour h2', false],
    ['counting, when nothing is left', '<p></p><p data-this></p><p></p>', 'p:nth-of-type(2)', true],
    [
      'its role and name together',
      '<div role=tab aria-label="Tours" data-this></div><div role=tab aria-label="Shop"></div><p aria-label="Tours"></p>',
      '[role="tab"][aria-label="Tours"]',
      false,
    ],
    [
      'counting from the nearest thing with a name of its own',
      '<div id=services><p></p><ul><li></li><li data-this></li></ul></div><ul><li></li><li></li></ul>',
      '#services > ul:nth-of-type(1) > li:nth-of-type(2)',
      true,
    ],
    ['an id that CSS must escape', '<p id="a:b" data-this></p>', '#a\\:b', false],
  ])('%s', (_what, html, selector, isFragile) => {
    const element = page(html);
    // The mark of the test is no name of the page's.
    element.removeAttribute('data-this');
    expect(propose(element)).toMatchObject({ selector, isFragile });
  });
  it('finds the element and no other, whatever the page is made of', () => {
    const tag = fc.constantFrom('p', 'div', 'span');
    const name = fc.constantFrom('', 'a', 'b', 'a b', 'x9', '1st', 'a:b', 'css-1a2b3c');
    const tree = fc.letrec<{ node: string }>((tie) => ({
      node: fc
        .tuple(
          tag,
          name,
          name,
          fc.oneof(
            { maxDepth: 3, withCrossShrink: true },
            fc.constant(''),
            fc.tuple(tie('node'), tie('node')),
          ),
        )
        .map(
          ([of, id, classes, inner]) =>
            `<${of} id="${id}" class="${classes}">${[inner].flat().join('')}</${of}>`,
        ),
    })).node;
    fc.assert(
      fc.property(fc.array(tree, { minLength: 1, maxLength: 3 }), fc.nat(30), (trees, pick) => {
        document.body.innerHTML = trees.join('');
        const all = [...document.body.querySelectorAll('*')];
        const element = all[pick % all.length] as Element;
        const { selector, isFragile } = propose(element);
        const found = document.querySelectorAll(selector);
        expect(found.length).toBeGreaterThan(0);
        if (!isFragile) expect([...found]).toEqual([element]);
      }),
      { numRuns: 300 },
    );
  });
});

describe('what somebody means who points', () => {
  it.each<[what: string, html: string, words: string]>([
    ['the link, not the icon in it', '<a class=go href=/x><svg><path data-this></path></svg></a>', 'a.go'],
    ['the button, not its letter', '<button id=buy><span><b data-this>B</b></span></button>', 'button#buy'],
    ['what plays a button', '<div role=button class=play><i data-this></i></div>', 'div.play'],
    ['a paragraph in a link is a paragraph', '<a href=/x><p class=lead data-this></p></a>', 'p.lead'],
    ['a picture by itself', '<section><img class=still data-this></section>', 'img.still'],
    ['the button itself', '<button class="is-open r482913" data-this></button>', 'button'],
  ])('%s', (_what, html, words) => {
    const chain = elementChain(page(html));
    const meant = chain[meantOf(chain)];
    expect(meant && elementWords(meant)).toBe(words);
  });
});
