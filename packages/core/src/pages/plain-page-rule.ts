import type { CompiledPageRule } from '@velarium/contract';
import type { PageKeys } from './page-key.ts';

/** What is known of a page beside its address. */
export interface PageFacts {
  /** As the page declares it; empty when it does not. */
  readonly kind: string;
  /** Whether the page holds an element this selector finds. */
  readonly holds: (selector: string) => boolean;
}

/**
 * Whether a page is among those that a compiled rule speaks of, for the kinds that need no more than the page's keys. The
 * others take the address apart, which few sites ask for.
 */
export function isOnPlainPage(rule: CompiledPageRule, page: PageKeys, facts: PageFacts): boolean {
  switch (rule.kind) {
    case 'every':
      return true;
    case 'begins': {
      const key = rule.isWhole ? (page.full ?? '') : page.path;
      return key.startsWith(rule.key) || withSlash(key).startsWith(rule.key);
    }
    case 'pageKind':
      return facts.kind === rule.name;
    case 'holds':
      return facts.holds(rule.selector);
    default:
      return false;
  }
}

/** The path with a slash at its end, before any query. */
const withSlash = (key: string): string => key.replace(/\/?(\?|$)/, '/$1');
