import { useQuery } from '@tanstack/react-query';
import type { Device } from '@velarium/contract';
import { type CurvePoint, countedIn, STAY_DEPTHS, STAY_SECONDS, survivalCurve } from '@velarium/core';
import { useMemo } from 'react';
import { staysQuery } from '../api/queries.ts';
import type { Coverage } from './use-site.ts';

export interface Curves {
  readonly seconds: readonly CurvePoint[];
  readonly depth: readonly CurvePoint[];
  readonly views: number;
  readonly isPending: boolean;
  readonly hasFailed: boolean;
  /** Whether any page is covered at all, so that there are page views to speak of. */
  readonly isCovering: boolean;
}

/** How many page views of these pages, or of the whole site, are still there at each second, and at each depth. */
export function useStayCurves(siteId: string, coverage: Coverage | 'all', device: Device | null): Curves {
  // Whatever covers every page covers those that nobody knows of too.
  const some = coverage === 'all' || coverage.isEverywhere ? undefined : coverage;
  const covered = some?.covered;
  const paths = useMemo(
    () => (covered ? [...new Set(covered.map(({ path }) => path.split('?')[0] as string))] : null),
    [covered],
  );
  const isCovering = covered === undefined || covered.length > 0;
  const { data, isPending, error } = useQuery({
    ...staysQuery(siteId, { paths, device }),
    enabled: isCovering && !some?.isPending,
    placeholderData: (old) => old,
  });
  return useMemo(
    () => ({
      seconds: data ? survivalCurve(data.seconds, STAY_SECONDS) : [],
      depth: data ? survivalCurve(data.depth, STAY_DEPTHS) : [],
      views: countedIn(data?.seconds ?? []),
      isPending: some?.isPending || (isPending && isCovering),
      hasFailed: some?.hasFailed || error !== null,
      isCovering,
    }),
    [data, some?.isPending, some?.hasFailed, isPending, error, isCovering],
  );
}
