import type { PageRule } from '@velarium/contract';
import { pageRuleSchema } from '@velarium/contract';

/**
 * The page rule that somebody means who types an address: with a star it is a pattern, with a slash at its end all that
 * begins so, else that very page. Nothing where it is no address.
 */
export function typedPage(typed: string): PageRule | undefined {
  const address = typed.trim();
  const rule: PageRule = address.includes('*')
    ? { kind: 'wildcard', pattern: address }
    : { kind: /[^/]\/$/.test(address) ? 'begins' : 'exact', address };
  return pageRuleSchema.safeParse(rule).data;
}
