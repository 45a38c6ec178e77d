import type { CompiledPageRule } from '@velarium/contract';
import { matches } from '../patterns/run.ts';
import type { PageKeys } from './page-key.ts';
import { isOnPageItself, isOnPlainPage, type PageFacts } from './plain-page-rule.ts';
import { seenAddress } from './seen-address.ts';

/** An address taken apart once, for many rules. */
export interface PageAddress extends PageKeys {
  /** As people see it, from its path on, and without what does not count for the page. */
  readonly seenPaths: readonly string[];
  /** The same with scheme and host; empty when the address names no host. */
  readonly seenWholes: readonly string[];
  /** Of the whole address, those for tracking too. */
  readonly parameters: Readonly<Record<string, string>>;
}

/** Adds to an address's keys what people see of it, and its parameters. */
export function pageAddress(href: string, keys: PageKeys): PageAddress {
  const [, origin = '', host = '', rest = ''] = /^((?:https?:\/\/([^/?#]*))?)(.*)/is.exec(href) ?? [];
  const parameters: Record<string, string> = Object.create(null);
  for (const query of rest.split(/[?#]/).slice(1)) {
    for (const pair of query.split('&')) {
      const [name = '', ...value] = pair.split('=');
      if (name) parameters[decodeParameter(name)] ??= decodeParameter(value.join('='));
    }
  }
  const seenPaths = [rest, keys.path].map(seenAddress);
  const scheme = origin.slice(0, origin.length - host.length).toLowerCase();
  return {
    ...keys,
    parameters,
    seenPaths,
    seenWholes: keys.full === null ? [] : [seenAddress(href), scheme + seenAddress(keys.full)],
  };
}

/** Source: WHATWG URL, application/x-www-form-urlencoded parsing. */
const decodeParameter = (text: string): string => {
  const plain = text.replaceAll('+', ' ');
  try {
    return decodeURIComponent(plain);
  } catch {
    return seenAddress(plain);
  }
};

/** Whether a page is among those a compiled rule speaks of, whatever its kind. */
export function isOnPage(rule: CompiledPageRule, page: PageAddress, facts: PageFacts): boolean {
  switch (rule.kind) {
    case 'contains':
      return [...page.seenWholes, ...page.seenPaths].some((seen) => seen.includes(rule.text));
    case 'program':
      return rule.isSeen
        ? (rule.isWhole ? page.seenWholes : page.seenPaths).some((seen) => matches(rule.program, seen))
        : matches(rule.program, rule.isWhole ? (page.full ?? '') : page.path);
    case 'parameter': {
      const value = page.parameters[rule.name];
      return value !== undefined && (rule.value === null || value === rule.value);
    }
    default:
      return isOnPlainPage(rule, page) || isOnPageItself(rule, facts);
  }
}
