import { useQuery } from '@tanstack/react-query';
import type { Pages, Site, SitePage } from '@velarium/contract';
import { type CoveredPages, coveredPages, type SitePages } from '@velarium/core';
import { useMemo } from 'react';
import { campaignsQuery, groupsQuery, sitePagesQuery, sitesQuery } from '../api/queries.ts';

/** The site one is in, once it is known. */
export function useSite(siteId: string): Site | undefined {
  return useQuery(sitesQuery).data?.find(({ id }) => id === siteId);
}

/** What page rules of this site can refer to; until all of it is known, a rule that refers to something covers too little. */
export interface AskedPages extends SitePages {
  readonly isPending: boolean;
  readonly hasFailed: boolean;
}

export function useSitePages(siteId: string): AskedPages {
  const groups = useQuery(groupsQuery(siteId));
  const campaigns = useQuery(campaignsQuery(siteId));
  const isPending = groups.isPending || campaigns.isPending;
  const hasFailed = groups.isLoadingError || campaigns.isLoadingError;
  return useMemo(
    () => ({
      rulesOfGroup: (id) => groups.data?.find((group) => group.id === id)?.rules,
      pagesOfCampaign: (id) => campaigns.data?.find((one) => one.id === id)?.rule.reach.pages,
      isPending,
      hasFailed,
    }),
    [groups.data, campaigns.data, isPending, hasFailed],
  );
}

export interface Coverage extends CoveredPages {
  /** Every known page of the site. */
  readonly pages: readonly SitePage[];
  readonly isPending: boolean;
  readonly hasFailed: boolean;
  /** Neither: only then does no page covered mean that there is none. */
  readonly isKnown: boolean;
}

const NO_PAGES: readonly SitePage[] = [];
const NOTHING: CoveredPages = { fitOf: () => 'unmatched', covered: NO_PAGES, views: 0, isEverywhere: false };

/** Which of the site's known pages these rules cover. */
export function useCoveredPages(siteId: string, rules: Pages): Coverage {
  const site = useSite(siteId);
  const sitePages = useSitePages(siteId);
  const { data: pages = NO_PAGES, isPending, isLoadingError } = useQuery(sitePagesQuery(siteId));
  const of = useMemo(
    () => (site ? coveredPages(rules, pages, { ...site, pages: sitePages }) : NOTHING),
    [rules, site, sitePages, pages],
  );
  const isAsking = isPending || sitePages.isPending || !site;
  const hasFailed = isLoadingError || sitePages.hasFailed;
  return { ...of, pages, isPending: isAsking, hasFailed, isKnown: !isAsking && !hasFailed };
}
