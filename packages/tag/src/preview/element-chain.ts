import type { ElementFacts } from '@velarium/core/elements';

const TELLING = /^(data-(?!velarium)|itemprop$|name$|role$|aria-label$)/;

const factsOf = (element: Element): ElementFacts => ({
  tag: element.localName,
  id: element.id,
  classes: [...element.classList],
  attributes: [...element.attributes]
    .filter(({ name }) => TELLING.test(name))
    .map(({ name, value }) => [name, value] as const),
  nth:
    [...(element.parentElement?.children ?? [])]
      .filter(({ localName }) => localName === element.localName)
      .indexOf(element) + 1,
});

/** An element and what it stands in, outwards to the body. */
export function elementChain(element: Element): ElementFacts[] {
  const chain: ElementFacts[] = [];
  for (let at: Element | null = element; at && at !== at.ownerDocument.body; at = at.parentElement)
    chain.push(factsOf(at));
  return chain;
}

/** Whether a selector finds this element and nothing else on its page. */
export const isOnlyOne =
  (element: Element) =>
  (selector: string): boolean => {
    const found = element.ownerDocument.querySelectorAll(selector);
    return found.length === 1 && found[0] === element;
  };
