import { useQueries, useQuery } from '@tanstack/react-query';
import {
  coveredPages,
  drawnMessages,
  elementsOf,
  type Finding,
  launchFindings,
  type Met,
  measuredFindings,
  unknownElements,
  unknownPages,
} from '@velarium/core';
import { useMemo } from 'react';
import { elementsQuery, runningQuery, sitePagesQuery } from '../api/queries.ts';
import { useDesign } from '../library/use-design.ts';
import { useMeasured } from '../library/use-measured.ts';
import { useSite, useSitePages } from '../site/use-site.ts';

interface LaunchChecks {
  /** Everything that is wrong with launching each of these, beside what else is launched. */
  readonly findings: readonly (readonly Finding[])[];
  /**
   * Until then nobody can say that a rule speaks of no page, or that nothing is in the way. What could not be asked for is left
   * out: the server looks for what stops a launch once more.
   */
  readonly isPending: boolean;
  /** Pages are still looked through for the elements that rules speak of. */
  readonly isLooking: boolean;
}

const NOTHING: readonly Met[] = [];
/** Pages that are looked at for the elements a rule speaks of, and how many elements are looked for. */
const MOST_LOOKED_AT = 8;
const MOST_ELEMENTS = 20;

/** The checks before a launch of these campaigns, together, on this site. They are compared by identity: keep the list. */
export function useLaunchChecks(siteId: string, launched: readonly Met[]): LaunchChecks {
  const site = useSite(siteId);
  const pages = useSitePages(siteId);
  const design = useDesign(siteId);
  const { data: known, isPending: isAskingPages } = useQuery(sitePagesQuery(siteId));
  const { data: running = NOTHING, isPending: isAskingRunning } = useQuery(runningQuery(siteId));
  const wanted = useMemo(
    () =>
      launched.map(({ document }) => ({
        messages: drawnMessages(document),
        devices: document.rule.reach.devices,
      })),
    [launched],
  );
  // Nobody types here, and the sheet says all it will say before anything can be published.
  const { measured, isDone } = useMeasured(siteId, wanted, 0);
  const looked = useQueries({
    queries: launched.map(({ document: { rule } }) => {
      const { covered } =
        site && known ? coveredPages(rule.reach.pages, known, { ...site, pages }) : { covered: [] };
      return elementsQuery(siteId, {
        selectors: elementsOf(rule).slice(0, MOST_ELEMENTS),
        paths: covered.slice(0, MOST_LOOKED_AT).map(({ path }) => path),
      });
    }),
  });
  const others = running.filter(({ id }) => !launched.some((one) => one.id === id));
  const findingsOf = (one: Met, n: number): readonly Finding[] => {
    if (!site) return [];
    const into = {
      ...design,
      running: [...others, ...launched.filter(({ id }) => id !== one.id)],
      zone: site.timeZone,
      nowMs: Date.now(),
    };
    return [
      ...launchFindings(one, into),
      ...(known && !pages.isPending && !pages.hasFailed
        ? unknownPages(one.document.rule.reach.pages, known, { ...site, pages })
        : []),
      ...unknownElements(looked[n]?.data ?? []),
      ...measuredFindings(one.document, measured[n] ?? []),
    ];
  };
  return {
    findings: launched.map(findingsOf),
    isPending: !site || isAskingPages || isAskingRunning || pages.isPending || !isDone,
    isLooking: looked.some(({ isFetching }) => isFetching),
  };
}
