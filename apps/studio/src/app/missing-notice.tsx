import { notifyManager, type QueryCache, useQueryClient } from '@tanstack/react-query';
import { useCallback, useSyncExternalStore } from 'react';
import { isShown, onShownChanged } from '../ui/shown-errors.ts';

/** What is asked for on this place, was not had, and is told of nowhere else. */
const missing = (cache: QueryCache) =>
  cache
    .findAll({ type: 'active' })
    .filter(
      ({ state, queryKey }) =>
        state.status === 'error' &&
        state.data === undefined &&
        queryKey[0] !== 'session' &&
        !isShown(state.error),
    );

/**
 * A place is put together from many answers. Where one of them does not come the rest is shown, and might be taken for all there
 * is: so that it lacks something is said, and asked for again at a press.
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
  if (count === 0) return null;
  return (
    <div
      role="alert"
      className="relative z-40 flex flex-wrap items-center justify-center gap-x-4 bg-halt px-5 py-2 text-sheet"
    >
      Part of this place could not be read: what you see may lack it.
      <button
        type="button"
        className="min-h-6 font-semibold underline underline-offset-4"
        onClick={() => {
          for (const query of missing(cache)) void query.fetch().catch(() => {});
        }}
      >
        Try again
      </button>
    </div>
  );
}
