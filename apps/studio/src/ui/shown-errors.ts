import { useEffect } from 'react';
import { problemWords } from '../api/client.ts';

/** What is said of failures where they happened, as often as it is said. */
const shown: string[] = [];
const listeners = new Set<() => void>();
const changed = () => {
  for (const notify of listeners) notify();
};
const wordsOf = (error: unknown): string => Object.values(problemWords(error)).join(' ');

/** Whether somebody is told of such a failure where it happened: a server that is away is so for all that is asked of it. */
export const isShown = (error: unknown): boolean => shown.includes(wordsOf(error));

export function onShownChanged(notify: () => void): () => void {
  listeners.add(notify);
  return () => {
    listeners.delete(notify);
  };
}

/** For whoever tells of a failure in its own place, so that it is not told of twice. */
export function useShownError(error: unknown): void {
  const words = wordsOf(error);
  useEffect(() => {
    shown.push(words);
    changed();
    return () => {
      shown.splice(shown.indexOf(words), 1);
      changed();
    };
  }, [words]);
}
