import { useQuery } from '@tanstack/react-query';
import type { Device } from '@velarium/contract';
import { type CurvePoint, STAY_DEPTHS, STAY_SECONDS, survivalCurve } from '@velarium/core';
import { useMemo } from 'react';
import { staysQuery } from '../../api/queries.ts';
import { useCoverage } from '../controls/pages/use-coverage.ts';
import { useWorkbench } from '../store.ts';

export interface CurveChoice {
  /** Visits to the pages the campaign covers, or to the whole site. */
  readonly of: 'covered' | 'site';
  readonly device: Device | 'any';
}

export interface Curves {
  readonly seconds: readonly CurvePoint[];
  readonly depth: readonly CurvePoint[];
  readonly visits: number;
  readonly isPending: boolean;
  readonly hasFailed: boolean;
  /** Whether the campaign covers pages at all, so that there are visits to speak of. */
  readonly isCovering: boolean;
}

/** The site's own curves: how many visits are still there at each second, and at each depth. */
export function useCurves({ of, device }: CurveChoice): Curves {
  const siteId = useWorkbench((state) => state.siteId);
  const { covered, isEverywhere } = useCoverage();
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
      visits: data?.seconds.reduce((sum, count) => sum + count, 0) ?? 0,
      isPending: isPending && (isWhole || covered.length > 0),
      hasFailed: error !== null,
      isCovering: isWhole || covered.length > 0,
    }),
    [data, isPending, error, isWhole, covered.length],
  );
}
