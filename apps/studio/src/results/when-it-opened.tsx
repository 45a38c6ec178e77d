import { useQuery } from '@tanstack/react-query';
import { STAY_DEPTHS, STAY_SECONDS } from '@velarium/core';
import type { CampaignFound } from '../api/results.ts';
import { versionQuery } from '../api/versions.ts';
import { useCoveredPages } from '../site/use-site.ts';
import { useStayCurves } from '../site/use-stay-curves.ts';
import { Histogram } from './histogram.tsx';

interface WhenItOpenedProps {
  readonly siteId: string;
  readonly results: CampaignFound;
}
const NO_PAGES = { include: [], exclude: [], follows: null };

/** The second and the depth at which it opened, over the site's own curves of the pages it covers. */
export function WhenItOpened({
  siteId,
  results: { id, versions, openedSeconds, openedDepth },
}: WhenItOpenedProps) {
  const { data } = useQuery(versionQuery(id, versions[0]?.version ?? null));
  const coverage = useCoveredPages(siteId, data?.document.rule.reach.pages ?? NO_PAGES);
  const { seconds, depth } = useStayCurves(siteId, coverage, null);
  return (
    <section className="grid content-start gap-3">
      <h2 className="font-serif text-xl">When it opened</h2>
      <Histogram
        title="After how many seconds in sight"
        unit="s"
        edges={STAY_SECONDS}
        counts={openedSeconds}
        curve={seconds}
      />
      <Histogram
        title="At how much of the page"
        unit="%"
        edges={STAY_DEPTHS}
        counts={openedDepth}
        curve={depth}
      />
      {seconds.length > 0 && (
        <p className="flex items-center gap-2 text-xs text-soft">
          <span aria-hidden="true" className="w-6 border-t-2 border-sail" />
          page views of its pages that are still there
        </p>
      )}
    </section>
  );
}
