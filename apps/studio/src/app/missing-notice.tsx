import { notifyManager, type QueryCache, useQueryClient } from '@tanstack/react-query';
import { useCallback, useSyncExternalStore } from 'react';
import { cx } from '../ui/cx.ts';
import { TOLD_OVER } from '../ui/dialog.tsx';
import { isShown, onShownChanged } from '../ui/shown-errors.ts';
import { when } from '../ui/when.ts';

/** What could not be had for less than this may only have stumbled. */
const STALE_MS = 30_000;

/** What is asked for on this place, failed when it was asked last, and is told of nowhere else. */
const failed = (cache: QueryCache) =>
  cache
    .findAll({ type: 'active' })
    .filter(
      ({ state, queryKey }) => state.status === 'error' && queryKey[0] !== 'session' && !isShown(state.error),
    );
const missing = (cache: QueryCache) => failed(cache).filter(({ state }) => state.data === undefined);

/** As of when the oldest stands of what was had once and cannot be had anew, milliseconds; 0 where all is as of now. */
function staleSince(cache: QueryCache): number {
  const times = failed(cache)
    .filter(({ state }) => state.data !== undefined && Date.now() - state.dataUpdatedAt > STALE_MS)
    .map(({ state }) => state.dataUpdatedAt);
  return times.length === 0 ? 0 : Math.min(...times);
}

/**
 * A place is put together from many answers. Where one of them does not come the rest is shown, and might be taken for all there
 * is, or for how it is now: so that it lacks something, or since when it has not changed, is said, and asked for again at a press.
 */
export function MissingNotice() {
  const cache = useQueryClient().getQueryCache();
  const subscribe = useCallback(
    (notify: () => void) => {
      const ends = [cache.subscribe(notifyManager.batchCalls(() => notify())), onShownChanged(notify)];
      return () => {
        for (const end of ends) end();
      };
    },
    [cache],
  );
  const count = useSyncExternalStore(subscribe, () => missing(cache).length);
  const staleMs = useSyncExternalStore(subscribe, () => staleSince(cache));
  if (count === 0 && staleMs === 0) return null;
  return (
    <div
      role={count > 0 ? 'alert' : 'status'}
      // Said so, or what is open over it would hide it from those who do not see it.
      aria-live={count > 0 ? 'assertive' : 'polite'}
      {...TOLD_OVER}
      // Over what a dialog darkens, and under the dialog: on a phone it would cover what the dialog asks to be pressed.
      className={cx(
        'relative z-39 flex flex-wrap items-center justify-center gap-x-4 px-5 py-2 text-sheet',
        count > 0 ? 'bg-halt' : 'bg-hold',
      )}
    >
      {noticeWords(count > 0, staleMs)}
      <button
        type="button"
        className="pointer-events-auto min-h-6 font-semibold underline underline-offset-4"
        onClick={() => {
          for (const query of failed(cache)) void query.fetch().catch(() => {});
        }}
      >
        Try again
      </button>
    </div>
  );
}

function noticeWords(isMissing: boolean, staleMs: number): string {
  const since = staleMs > 0 && when.format(staleMs);
  if (!isMissing) return `What you see is as of ${since}: since then it could not be read anew.`;
  return since
    ? `Part of this place could not be read, and what you see is as of ${since}.`
    : 'Part of this place could not be read: what you see may lack it.';
}
