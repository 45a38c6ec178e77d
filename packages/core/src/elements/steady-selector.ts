/** An element as a selector can speak of it. */
export interface ElementFacts {
  readonly tag: string;
  readonly id: string;
  readonly classes: readonly string[];
  /** Attributes that say what it is: `data-…`, `itemprop`, `name`, `role`, `aria-label`. */
  readonly attributes: readonly (readonly [name: string, value: string])[];
  /** Its place among its siblings of the same tag, from 1. */
  readonly nth: number;
}

export interface SelectorProposal {
  readonly selector: string;
  /** Whether a small change of the page would make it find something else or nothing. */
  readonly isFragile: boolean;
  readonly why: string;
}

/** Names that tools make up change with every build: long runs of letters and digits, or digits alone. */
const isMadeUp = (name: string): boolean =>
  /\d{3,}/.test(name) ||
  /^[a-z]{1,4}[-_]?[0-9a-f]{5,}$/i.test(name) ||
  (/[a-z]/.test(name) && /[A-Z]/.test(name) && /\d/.test(name));
const isState = (name: string): boolean => /^(is-|has-|active|open|hover|focus|visible|selected)/.test(name);

/** A name as CSS writes it. Source: CSSOM, serialize an identifier. */
const escaped = (name: string): string =>
  name
    .replace(/[^\w\u00A0-\uFFFF-]/g, (letter) => `\\${letter}`)
    .replace(/^(-?)(\d)/, (_, dash: string, digit: string) => `${dash}\\3${digit} `);
const quoted = (value: string): string => `"${value.replace(/["\\]/g, '\\$&')}"`;

/** A role with its name tells more than each of them by itself. */
function roleWithName(attributes: ElementFacts['attributes']): string[] {
  const said = (wanted: string) => attributes.find(([name]) => name === wanted)?.[1];
  const [role, label] = [said('role'), said('aria-label')];
  return role && label ? [`[role=${quoted(role)}][aria-label=${quoted(label)}]`] : [];
}

const ASK = 'Ask for a class or an id.';

/** Ways of naming one element by itself, the steadiest first. */
function namesOf({ tag, id, classes, attributes }: ElementFacts): string[] {
  const steady = classes.filter((name) => !isMadeUp(name) && !isState(name));
  return [
    ...(id && !isMadeUp(id) ? [`#${escaped(id)}`] : []),
    ...attributes
      .filter(([, value]) => value.length < 60 && !isMadeUp(value))
      .map(([name, value]) => (value === '' ? `[${name}]` : `[${name}=${quoted(value)}]`)),
    ...steady.map((name) => `.${escaped(name)}`),
    ...steady.map((name) => `${tag}.${escaped(name)}`),
    ...roleWithName(attributes),
  ];
}

/**
 * A selector for an element: by a name of its own, by its tag within a named ancestor, and only where nothing else is
 * left by counting. `chain` goes from the element outwards; `isOnly` asks the page whether nothing else is found.
 */
export function steadySelector(
  chain: readonly ElementFacts[],
  isOnly: (selector: string) => boolean,
): SelectorProposal {
  const [element, ...ancestors] = chain;
  if (!element) return { selector: 'body', isFragile: true, why: 'Nothing was chosen.' };
  const own = namesOf(element);
  const single = own.find(isOnly);
  if (single) return { selector: single, isFragile: false, why: 'It has a name of its own on this page.' };
  if (isOnly(element.tag))
    return { selector: element.tag, isFragile: false, why: 'It is the only one of its kind on this page.' };
  for (const ancestor of ancestors) {
    for (const outer of [...namesOf(ancestor), ancestor.tag]) {
      const inner = [...own, element.tag].find((name) => isOnly(`${outer} ${name}`));
      if (inner)
        return {
          selector: `${outer} ${inner}`,
          isFragile: false,
          why: 'It is told by what it stands in.',
        };
    }
  }
  const [first] = own;
  // Counting begins at the nearest thing that has a name of its own, so that the rest of the page may change.
  const steps = chain.map(({ tag, nth }) => `${tag}:nth-of-type(${nth})`);
  for (const [n, ancestor] of ancestors.entries()) {
    for (const anchor of namesOf(ancestor)) {
      const selector = [anchor, ...steps.slice(0, n + 1).reverse()].join(' > ');
      if (isOnly(selector))
        return {
          selector,
          isFragile: true,
          why: `It can only be told by counting within “${anchor}”. ${ASK}`,
        };
    }
  }
  const path = [...steps].reverse();
  for (let from = path.length - 1; from >= 0; from--) {
    const selector = path.slice(from).join(' > ');
    if (isOnly(selector))
      return {
        selector,
        isFragile: true,
        why: `It can only be told by counting: another element before it and a different one is meant. ${ASK}`,
      };
  }
  return {
    selector: first ?? element.tag,
    isFragile: true,
    why: 'There are several like it on this page; the first is meant.',
  };
}

/** Tags that people press, fill in or read as one thing, whatever lies in them. */
const MEANT = /^(a|button|summary|label|select|textarea|input|option)$/;
const MEANT_ROLE = /^(button|link|menuitem|tab|checkbox|radio|switch|option)$/;
/** What is drawn in them: an icon, a letter. */
const DRAWN_IN = /^(svg|path|use|g|circle|rect|img|picture|i|b|em|strong|span|small)$/;

/**
 * Which element of a chain somebody means who points at its first: the link rather than the icon in it. Everything
 * else is meant as it is.
 */
export function meantOf(chain: readonly ElementFacts[]): number {
  const isMeant = ({ tag, attributes }: ElementFacts) =>
    MEANT.test(tag) || attributes.some(([name, value]) => name === 'role' && MEANT_ROLE.test(value));
  for (let n = 0; n < chain.length; n++) {
    const element = chain[n] as ElementFacts;
    if (isMeant(element)) return n;
    if (!DRAWN_IN.test(element.tag)) return 0;
  }
  return 0;
}

/** An element in a word or two, for a trail of them: `a.book`, `section#tours`. */
export const elementWords = ({ tag, id, classes }: ElementFacts): string => {
  const [name] = classes.filter((one) => !isMadeUp(one) && !isState(one));
  return id && !isMadeUp(id) ? `${tag}#${id}` : name ? `${tag}.${name}` : tag;
};
