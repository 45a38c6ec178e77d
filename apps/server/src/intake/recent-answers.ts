import { MOST_OF_SITE } from '@velarium/core';

/** How long answers are counted together. */
const TOGETHER_MS = 600_000;
/** Counted apart at most; past it the oldest counts are forgotten, which holds back nobody. */
const COUNTED = 50_000;

export interface AnswerSource {
  readonly site: string;
  readonly address: string;
  readonly visitor: string;
}

/**
 * Counts the answers of the last ten minutes by where they come from, in this process's memory: no address of a visitor is
 * ever written down. An answer that is sent again counts once.
 */
export function createRecentAnswers(nowMs: () => number) {
  const counts = new Map<string, { readonly ids: Set<string>; readonly sinceMs: number }>();
  const count = (key: string, id: string): number => {
    const known = counts.get(key);
    const one =
      known && nowMs() - known.sinceMs < TOGETHER_MS ? known : { ids: new Set<string>(), sinceMs: nowMs() };
    // Past what anybody may send, the exact figure is of no use to anybody.
    if (one.ids.size <= MOST_OF_SITE) one.ids.add(id);
    counts.delete(key);
    counts.set(key, one);
    const [oldest] = counts.keys();
    if (counts.size > COUNTED && oldest !== undefined) counts.delete(oldest);
    return one.ids.size;
  };
  return {
    count: ({ site, address, visitor }: AnswerSource, id: string) => ({
      ofAddress: count(`address ${site} ${address}`, id),
      ofVisitor: count(`visitor ${site} ${visitor}`, id),
      ofSite: count(`site ${site}`, id),
    }),
  };
}
