import type { PageRule, Pages } from '@velarium/contract';

/** What page rules refer to: the site's page groups, and the page rules of its campaigns. */
export interface SitePages {
  readonly rulesOfGroup: (id: string) => readonly PageRule[] | undefined;
  readonly pagesOfCampaign: (id: string) => Pages | undefined;
}

export const NO_SITE_PAGES: SitePages = { rulesOfGroup: () => undefined, pagesOfCampaign: () => undefined };

/** Page rules that refer to nothing any more. */
export type ResolvedPages = Pick<Pages, 'include' | 'exclude'>;

/**
 * Puts the rules of page groups and of followed campaigns in place of the references to them. What is followed may
 * follow in its turn; a circle adds nothing more. A group or a campaign that is gone covers no page.
 */
export function resolvePages(pages: Pages, site: SitePages): ResolvedPages {
  const include: PageRule[] = [];
  const exclude: PageRule[] = [];
  const seen = new Set<string>();
  const plain = (rules: readonly PageRule[]) =>
    rules.flatMap((rule) => (rule.kind === 'group' ? (site.rulesOfGroup(rule.id) ?? []) : rule));
  for (let from: Pages | undefined = pages; from; ) {
    include.push(...plain(from.include));
    exclude.push(...plain(from.exclude));
    const next: string | null = from.follows;
    from = next === null || seen.has(next) ? undefined : site.pagesOfCampaign(next);
    if (next !== null) seen.add(next);
  }
  return { include, exclude };
}

/** Whether following `to` from the campaign `from` would lead back to it. */
export function followsInCircle(from: string, to: string | null, site: SitePages): boolean {
  const seen = new Set<string>();
  for (let at = to; at !== null && !seen.has(at); at = site.pagesOfCampaign(at)?.follows ?? null) {
    if (at === from) return true;
    seen.add(at);
  }
  return false;
}
