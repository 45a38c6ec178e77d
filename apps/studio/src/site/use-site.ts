import { useQuery } from '@tanstack/react-query';
import type { Site } from '@velarium/contract';
import type { SitePages } from '@velarium/core';
import { useMemo } from 'react';
import { campaignsQuery, groupsQuery, sitesQuery } from '../api/queries.ts';

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
