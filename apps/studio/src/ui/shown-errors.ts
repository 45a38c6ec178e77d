import { useEffect } from 'react';

const shown = new Set<unknown>();
const listeners = new Set<() => void>();
const changed = () => {
  for (const notify of listeners) notify();
};

/** Whether somebody is told of this failure where it happened. */
export const isShown = (error: unknown): boolean => shown.has(error);

export function onShownChanged(notify: () => void): () => void {
  listeners.add(notify);
  return () => {
    listeners.delete(notify);
  };
}

/** For whoever tells of a failure in its own place, so that it is not told of twice. */
export function useShownError(error: unknown): void {
  useEffect(() => {
    shown.add(error);
    changed();
    return () => {
      shown.delete(error);
      changed();
    };
  }, [error]);
}
