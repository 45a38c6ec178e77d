import { useQuery } from '@tanstack/react-query';
import type { Pages, Site, SitePage } from '@velarium/contract';
import { type CoveredPages, coveredPages, type SitePages } from '@velarium/core';
import { useMemo } from 'react';
import { campaignsQuery, groupsQuery, sitePagesQuery, sitesQuery } from '../api/queries.ts';

/** The site one is in, once it is known. */
export function useSite(siteId: string): Site | undefined {
  return useQuery(sitesQuery).data?.find(({ id }) => id === siteId);
}

/** What page rules of this site can refer to. */
export function useSitePages(siteId: string): SitePages {
  const { data: groups } = useQuery(groupsQuery(siteId));
  const { data: campaigns } = useQuery(campaignsQuery(siteId));
  return useMemo(
    () => ({
      rulesOfGroup: (id) => groups?.find((group) => group.id === id)?.rules,
      pagesOfCampaign: (id) => campaigns?.find((one) => one.id === id)?.rule.reach.pages,
    }),
    [groups, campaigns],
  );
}

export interface Coverage extends CoveredPages {
  /** Every known page of the site. */
  readonly pages: readonly SitePage[];
  readonly isPending: boolean;
  readonly hasFailed: boolean;
}

const NO_PAGES: readonly SitePage[] = [];
const NOTHING: CoveredPages = { fitOf: () => 'unmatched', covered: NO_PAGES, views: 0, isEverywhere: false };

/** Which of the site's known pages these rules cover. */
export function useCoveredPages(siteId: string, rules: Pages): Coverage {
  const site = useSite(siteId);
  const sitePages = useSitePages(siteId);
  const { data: pages = NO_PAGES, isPending, error } = useQuery(sitePagesQuery(siteId));
  const of = useMemo(
    () => (site ? coveredPages(rules, pages, { ...site, pages: sitePages }) : NOTHING),
    [rules, site, sitePages, pages],
  );
  return { ...of, pages, isPending: isPending || !site, hasFailed: error !== null };
}
