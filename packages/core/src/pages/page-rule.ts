import type { CompiledPageRule } from '@velarium/contract';
import { matches } from '../patterns/run.ts';
import type { PageKeys } from './page-key.ts';

/** What is known of a page beside its address. */
export interface PageFacts {
  /** As the page declares it; empty when it does not. */
  readonly kind: string;
  /** Whether the page holds an element this selector finds. */
  readonly holds: (selector: string) => boolean;
}

/** An address taken apart once, for many rules. */
export interface PageAddress extends PageKeys {
  readonly parameters: Readonly<Record<string, string>>;
}

/** Adds the parameters to an address's keys. */
export function pageAddress(keys: PageKeys): PageAddress {
  const query = keys.path.slice(keys.path.indexOf('?') + 1 || keys.path.length);
  const parameters: Record<string, string> = Object.create(null);
  for (const pair of query.split('&')) {
    const [name = '', ...rest] = pair.split('=');
    if (name) parameters[name] ??= decodeValue(rest.join('='));
  }
  return { ...keys, parameters };
}

function decodeValue(text: string): string {
  try {
    return decodeURIComponent(text.replaceAll('+', ' '));
  } catch {
    return text;
  }
}

/** Whether a page is among those a compiled rule speaks of. */
export function isOnPage(rule: CompiledPageRule, page: PageAddress, facts: PageFacts): boolean {
  switch (rule.kind) {
    case 'every':
      return true;
    case 'begins': {
      const key = rule.isWhole ? (page.full ?? '') : page.path;
      return key.startsWith(rule.key) || withSlash(key).startsWith(rule.key);
    }
    case 'contains':
      return (page.full ?? page.path).includes(rule.text);
    case 'program':
      return matches(rule.program, rule.isWhole ? (page.full ?? '') : page.path);
    case 'pageKind':
      return facts.kind === rule.name;
    case 'parameter': {
      const value = page.parameters[rule.name];
      return value !== undefined && (rule.value === null || value === rule.value);
    }
    case 'holds':
      return facts.holds(rule.selector);
  }
}

/** The path with a slash at its end, before any query. */
const withSlash = (key: string): string => key.replace(/\/?(\?|$)/, '/$1');
