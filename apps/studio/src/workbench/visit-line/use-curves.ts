import { useQuery } from '@tanstack/react-query';
import type { Device } from '@velarium/contract';
import { type CurvePoint, countedIn, STAY_DEPTHS, STAY_SECONDS, survivalCurve } from '@velarium/core';
import { useMemo } from 'react';
import { staysQuery } from '../../api/queries.ts';
import { useCoveredPages } from '../../site/use-site.ts';
import { useCoverage } from '../controls/pages/use-coverage.ts';
import { useWorkbench } from '../store.ts';

export interface CurveChoice {
  /** Visits to the pages the campaign covers, to the whole site, or to a page group, by its id. */
  readonly of: 'covered' | 'site' | (string & {});
  readonly device: Device | 'any';
}

export interface Curves {
  readonly seconds: readonly CurvePoint[];
  readonly depth: readonly CurvePoint[];
  readonly views: number;
  readonly isPending: boolean;
  readonly hasFailed: boolean;
  /** Whether any page is covered at all, so that there are page views to speak of. */
  readonly isCovering: boolean;
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
  const { covered, isEverywhere } = group ? ofGroup : ofCampaign;
  const isWhole = of === 'site' || isEverywhere;
  const paths = useMemo(
    () => (isWhole ? null : [...new Set(covered.map(({ path }) => path.split('?')[0] as string))]),
    [isWhole, covered],
  );
  const { data, isPending, error } = useQuery({
    ...staysQuery(siteId, { paths, device: device === 'any' ? null : device }),
    enabled: isWhole || covered.length > 0,
    placeholderData: (old) => old,
  });
  return useMemo(
    () => ({
      seconds: data ? survivalCurve(data.seconds, STAY_SECONDS) : [],
      depth: data ? survivalCurve(data.depth, STAY_DEPTHS) : [],
      views: countedIn(data?.seconds ?? []),
      isPending: isPending && (isWhole || covered.length > 0),
      hasFailed: error !== null,
      isCovering: isWhole || covered.length > 0,
    }),
    [data, isPending, error, isWhole, covered.length],
  );
}
