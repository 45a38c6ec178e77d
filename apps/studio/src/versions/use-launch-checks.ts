import { useQuery } from '@tanstack/react-query';
import { type Finding, launchFindings, type Met, unknownPages } from '@velarium/core';
import { runningQuery, sitePagesQuery } from '../api/queries.ts';
import { useDesign } from '../library/use-design.ts';
import { useSite, useSitePages } from '../site/use-site.ts';

interface LaunchChecks {
  /** Everything that is wrong with launching this, beside what else is launched with it. */
  readonly findingsOf: (launched: Met, together?: readonly Met[]) => readonly Finding[];
  /**
   * Until then nobody can say that a rule speaks of no page, or that nothing is in the way. What could not be asked for is left
   * out: the server looks for what stops a launch once more.
   */
  readonly isPending: boolean;
}

const NOTHING: readonly Met[] = [];

/** The checks before a launch on this site. */
export function useLaunchChecks(siteId: string): LaunchChecks {
  const site = useSite(siteId);
  const pages = useSitePages(siteId);
  const design = useDesign(siteId);
  const { data: known, isPending: isLooking } = useQuery(sitePagesQuery(siteId));
  const { data: running = NOTHING, isPending: isAsking } = useQuery(runningQuery(siteId));
  return {
    isPending: !site || isLooking || isAsking,
    findingsOf(launched, together = []) {
      if (!site) return [];
      const others = running.filter(({ id }) => !together.some((one) => one.id === id));
      return [
        ...launchFindings(launched, {
          ...design,
          running: [...others, ...together],
          zone: site.timeZone,
          nowMs: Date.now(),
        }),
        ...(known ? unknownPages(launched.document.rule.reach.pages, known, { ...site, pages }) : []),
      ];
    },
  };
}
