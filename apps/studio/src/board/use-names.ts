import { useQuery } from '@tanstack/react-query';
import type { Names } from '@velarium/core';
import { useMemo } from 'react';
import { campaignsQuery, groupsQuery } from '../api/queries.ts';
import { UNKNOWN_YET } from '../ui/unknown-yet.ts';

/** What the site calls its campaigns and page groups, for sentences that speak of them. */
export function useNames(siteId: string): Names {
  const { data: campaigns } = useQuery(campaignsQuery(siteId));
  const { data: groups } = useQuery(groupsQuery(siteId));
  return useMemo(() => {
    const nameIn = (
      all: readonly { readonly id: string; readonly name: string }[] | undefined,
      id: string,
      gone: string,
    ) => (all ? (all.find((one) => one.id === id)?.name ?? gone) : UNKNOWN_YET);
    return {
      campaign: (id) => nameIn(campaigns, id, 'a campaign that is gone'),
      group: (id) => nameIn(groups, id, 'a group that is gone'),
    };
  }, [campaigns, groups]);
}
