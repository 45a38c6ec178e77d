import { useQuery } from '@tanstack/react-query';
import type { RehearsedVisitor } from '@velarium/contract';
import { beginPage, beginRehearsal, VISITOR_PRESETS } from '@velarium/core';
import { useMemo } from 'react';
import { rehearsalsQuery } from '../api/rehearsals.ts';

export const ANYBODY = 'Anybody';

/** Visitors the map can be read for, by their names: those one often thinks of, and those of kept rehearsals. */
export function useVisitors(siteId: string, begins: string): ReadonlyMap<string, RehearsedVisitor> {
  const { data: kept } = useQuery(rehearsalsQuery(siteId));
  return useMemo(() => {
    const { visitor: plain } = beginRehearsal(beginPage('/'), begins);
    return new Map([
      ...VISITOR_PRESETS.map(({ words, visitor }) => [words, { ...plain, ...visitor }] as const),
      ...(kept ?? []).map(
        ({ name, rehearsal }) => [`As in “${name}”`, { ...rehearsal.visitor, begins }] as const,
      ),
    ]);
  }, [kept, begins]);
}
