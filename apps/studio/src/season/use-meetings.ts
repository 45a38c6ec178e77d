import { useQuery } from '@tanstack/react-query';
import type { Site, SitePage } from '@velarium/contract';
import { type Lane, type Meeting, meetings } from '@velarium/core';
import { useMemo } from 'react';
import { castQuery } from '../api/rehearsals.ts';
import { useCover } from '../coverage/use-cover.ts';

/**
 * Where these lanes meet; nothing until it is known. `of` says whose drafts count: everybody's, or one campaign's among what
 * runs. Keep the lanes.
 */
export function useMeetings(
  site: Site | undefined,
  pages: readonly SitePage[] | undefined,
  lanes: readonly Lane[],
  atMs: number,
  of: string,
  revision?: number,
): readonly Meeting[] | undefined {
  const { data: cast } = useQuery({
    ...castQuery(site?.id ?? '', of, revision),
    enabled: site !== undefined,
    staleTime: 0,
  });
  const task = useMemo(
    () =>
      cast && site && pages
        ? {
            question: {
              manifest: cast.manifest,
              origin: site.origins[0] ?? 'https://site.example',
              pages,
              device: 'desktop' as const,
              atMs,
              visitor: null,
            },
          }
        : undefined,
    [cast, site, pages, atMs],
  );
  const coverage = useCover(task).found?.coverage;
  return useMemo(() => coverage && meetings(lanes, coverage), [lanes, coverage]);
}
