import { useQuery } from '@tanstack/react-query';
import type { Pages } from '@velarium/contract';
import { agoWords, busiestPage } from '@velarium/core';
import { useMemo } from 'react';
import { sightAddress, sightsQuery } from '../../api/queries.ts';
import { useCoveredPages, useSite } from '../../site/use-site.ts';

interface Ground {
  /** Where the page that stands behind the message comes from; nowhere where the site has no address. */
  readonly address: string | undefined;
  /** What it is and how it came here. */
  readonly words: string;
}

/** The page a campaign's messages are designed over: as it was seen in a browser, else as its server sends it. */
export function useGround(siteId: string, pages: Pages): Ground {
  const site = useSite(siteId);
  const { covered, isPending } = useCoveredPages(siteId, pages);
  const { data: sights } = useQuery(sightsQuery(siteId));
  return useMemo(() => {
    const origin = site?.origins[0];
    if (!origin || isPending || !sights) return { address: undefined, words: '' };
    const page = busiestPage(covered, pages);
    const seen = sights.find(({ path }) => path === page);
    return seen
      ? {
          address: sightAddress(siteId, seen),
          words: `${page} as it was seen ${agoWords(Date.parse(seen.at), Date.now())}`,
        }
      : {
          address: page.startsWith('/') ? origin + page : page,
          words: `${page} without its scripts. Try it once, and it is shown as you saw it.`,
        };
  }, [siteId, site, pages, covered, isPending, sights]);
}
