import type { Device } from '@velarium/contract';
import { useMemo } from 'react';
import { useCoveredPages } from '../../site/use-site.ts';
import { type Curves, useStayCurves } from '../../site/use-stay-curves.ts';
import { useCoverage } from '../controls/pages/use-coverage.ts';
import { useWorkbench } from '../store.ts';

export interface CurveChoice {
  /** Visits to the pages the campaign covers, to the whole site, or to a page group, by its id. */
  readonly of: 'covered' | 'site' | (string & {});
  readonly device: Device | 'any';
}

/** The site's own curves: how many page views are still there at each second, and at each depth. */
export function useCurves({ of, device }: CurveChoice): Curves {
  const siteId = useWorkbench((state) => state.siteId);
  const group = of === 'covered' || of === 'site' ? null : of;
  const ofCampaign = useCoverage();
  const ofGroup = useCoveredPages(
    siteId,
    useMemo(
      () => ({ include: group ? [{ kind: 'group', id: group }] : [], exclude: [], follows: null }),
      [group],
    ),
  );
  const coverage = group ? ofGroup : ofCampaign;
  return useStayCurves(siteId, of === 'site' ? 'all' : coverage, device === 'any' ? null : device);
}
