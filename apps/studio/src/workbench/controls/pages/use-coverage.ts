import { useQuery } from '@tanstack/react-query';
import type { SitePage } from '@velarium/contract';
import { createAddressTrial, type PageFit } from '@velarium/core';
import { useMemo } from 'react';
import { sitePagesQuery } from '../../../api/queries.ts';
import { useSite, useSitePages } from '../../../site/use-site.ts';
import { useWorkbenchLater } from '../../store.ts';

export interface Coverage {
  readonly pages: readonly SitePage[];
  /** What the campaign's page rules say of each page, by path. */
  readonly fitOf: (path: string) => PageFit;
  readonly covered: readonly SitePage[];
  /** Page views of the covered pages in the last 30 days. */
  readonly views: number;
  readonly isEverywhere: boolean;
  readonly isPending: boolean;
  readonly hasFailed: boolean;
}

const NO_PAGES: readonly SitePage[] = [];

/** Which of the site's pages the campaign's rules cover. What only the page itself can tell counts as not so. */
export function useCoverage(): Coverage {
  const siteId = useWorkbenchLater((state) => state.siteId);
  const rules = useWorkbenchLater((state) => state.document.rule.reach.pages);
  const site = useSite(siteId);
  const sitePages = useSitePages(siteId);
  const { data: pages = NO_PAGES, isPending, error } = useQuery(sitePagesQuery(siteId));
  return useMemo(() => {
    const fits = new Map<string, PageFit>();
    if (site) {
      const trial = createAddressTrial(rules, { settings: site.settings, pages: sitePages });
      const origin = site.origins[0] ?? 'https://site.example';
      for (const { path, kind } of pages)
        fits.set(path, trial(origin + path, { kind: kind ?? '', holds: () => false }).fit);
    }
    const covered = pages.filter(({ path }) => fits.get(path) === 'fits');
    return {
      pages,
      fitOf: (path) => fits.get(path) ?? 'unmatched',
      covered,
      views: covered.reduce((sum, page) => sum + page.views, 0),
      isEverywhere:
        rules.include.some(({ kind }) => kind === 'every') && rules.exclude.length === 0 && !rules.follows,
      isPending,
      hasFailed: error !== null,
    };
  }, [rules, site, sitePages, pages, isPending, error]);
}
