import { useQuery } from '@tanstack/react-query';
import { type SiteWords, wallClock } from '@velarium/core';
import { useMemo } from 'react';
import { campaignsQuery, groupsQuery, sitePagesQuery } from '../api/queries.ts';
import { useSite } from './use-site.ts';

/** What a site calls its pages, groups and campaigns, for reading what people type of them. */
export function useSiteWords(
  siteId: string,
): Pick<SiteWords, 'pages' | 'groups' | 'campaigns' | 'kinds' | 'today'> {
  const site = useSite(siteId);
  const { data: pages } = useQuery(sitePagesQuery(siteId));
  const { data: groups } = useQuery(groupsQuery(siteId));
  const { data: campaigns } = useQuery(campaignsQuery(siteId));
  return useMemo(
    () => ({
      pages: pages ?? [],
      groups: groups ?? [],
      campaigns: campaigns ?? [],
      kinds: [...new Set((pages ?? []).flatMap(({ kind }) => kind ?? []))],
      today: new Date(wallClock(Date.now(), site?.timeZone ?? 'UTC')).toISOString().slice(0, 10),
    }),
    [pages, groups, campaigns, site?.timeZone],
  );
}
