import type { PeriodQuestion } from '@velarium/contract';
import { RESULT_AGAINST, RESULT_PERIODS } from '@velarium/contract/values';
import { useCallback, useEffect, useMemo, useRef } from 'react';
import { useSearchParams } from 'react-router';
import type { AskedPeriod } from '../api/results.ts';

const KEYS = ['period', 'from', 'until', 'against', 'againstFrom', 'againstUntil'] as const;

/** The question of the page as its address has it, so that a link leads to exactly this view. */
export function useQuestion() {
  const [search, setSearch] = useSearchParams();
  const asked = useMemo((): AskedPeriod & Pick<PeriodQuestion, 'period' | 'against'> => {
    const read = (key: string) => search.get(key) ?? undefined;
    const own = Object.fromEntries(KEYS.flatMap((key) => (read(key) ? [[key, read(key)]] : [])));
    return {
      ...own,
      period: RESULT_PERIODS.find((one) => one === read('period')) ?? '28',
      against: RESULT_AGAINST.find((one) => one === read('against')) ?? 'weekdays',
    };
  }, [search]);
  // The address follows a moment later: what was set just before must not be lost by what is set now.
  const latest = useRef(search);
  useEffect(() => {
    latest.current = search;
  }, [search]);
  const set = useCallback(
    (change: Record<string, string | undefined>) => {
      const next = new URLSearchParams(latest.current);
      for (const [key, value] of Object.entries(change)) {
        if (value) next.set(key, value);
        else next.delete(key);
      }
      latest.current = next;
      setSearch(next, { replace: true });
    },
    [setSearch],
  );
  return { asked, set, read: (key: string) => search.get(key) };
}

export type Question = ReturnType<typeof useQuestion>;

/** Whether a question names the days it needs. */
export const isWhole = (asked: AskedPeriod): boolean =>
  (asked.period !== 'own' || Boolean(asked.from && asked.until)) &&
  (asked.against !== 'own' || Boolean(asked.againstFrom && asked.againstUntil));
