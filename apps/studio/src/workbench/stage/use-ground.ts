import { useQuery } from '@tanstack/react-query';
import type { Pages, SitePage } from '@velarium/contract';
import { agoWords } from '@velarium/core';
import { useMemo } from 'react';
import { sightAddress, sightsQuery } from '../../api/queries.ts';
import { useCoveredPages, useSite } from '../../site/use-site.ts';

interface Ground {
  /** Where the page that stands behind the message comes from; nowhere where the site has no address. */
  readonly address: string | undefined;
  /** What it is and how it came here. */
  readonly words: string;
}

/** The covered page that most people visit; else the one a rule names, else the home page. */
function pageOf(covered: readonly SitePage[], { include }: Pages): string {
  const [first, ...rest] = covered;
  if (first) return rest.reduce((most, page) => (page.views > most.views ? page : most), first).path;
  const exact = include.find((page) => page.kind === 'exact');
  return exact?.kind === 'exact' ? exact.address : '/';
}

/** The page a campaign's messages are designed over: as it was seen in a browser, else as its server sends it. */
export function useGround(siteId: string, pages: Pages): Ground {
  const site = useSite(siteId);
  const { covered, isPending } = useCoveredPages(siteId, pages);
  const { data: sights } = useQuery(sightsQuery(siteId));
  return useMemo(() => {
    const origin = site?.origins[0];
    if (!origin || isPending || !sights) return { address: undefined, words: '' };
    const page = pageOf(covered, pages);
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
