import type { CompiledPageRule } from '@velarium/contract';
import type { PageKeys } from './page-key.ts';

/** What is known of a page beside its address. */
export interface PageFacts {
  /** As the page declares it; empty when it does not. */
  readonly kind: string;
  /** Whether the page holds an element this selector finds. */
  readonly holds: (selector: string) => boolean;
}

/** Whether a page is among those that a compiled rule speaks of, for the kinds that need no more than the page's keys. */
export function isOnPlainPage(rule: CompiledPageRule, page: PageKeys): boolean {
  if (rule.kind !== 'begins') return rule.kind === 'every';
  const key = rule.isWhole ? (page.full ?? '') : page.path;
  return key.startsWith(rule.key) || withSlash(key).startsWith(rule.key);
}

/** The path with a slash at its end, before any query; of a route behind a fragment that one too. */
export const withSlash = (key: string): string => key.replace(/(^|#)([^?#]*[^?#/])?\/?/g, '$1$2/');

/** The same for the kinds that look at the page itself. */
export const isOnPageItself = (rule: CompiledPageRule, facts: PageFacts): boolean =>
  rule.kind === 'pageKind' ? facts.kind === rule.name : rule.kind === 'holds' && facts.holds(rule.selector);
