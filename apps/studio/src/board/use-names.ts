import { useQuery } from '@tanstack/react-query';
import type { Names } from '@velarium/core';
import { useMemo } from 'react';
import { campaignsQuery, groupsQuery } from '../api/queries.ts';

/** What the site calls its campaigns and page groups, for sentences that speak of them. */
export function useNames(siteId: string): Names {
  const { data: campaigns } = useQuery(campaignsQuery(siteId));
  const { data: groups } = useQuery(groupsQuery(siteId));
  return useMemo(
    () => ({
      campaign: (id) => campaigns?.find((one) => one.id === id)?.name ?? 'a campaign that is gone',
      group: (id) => groups?.find((one) => one.id === id)?.name ?? 'a group that is gone',
    }),
    [campaigns, groups],
  );
}
