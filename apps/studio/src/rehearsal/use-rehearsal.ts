import type { Rehearsal } from '@velarium/contract';
import { useCallback, useState } from 'react';

/** Changes of one thing this close together are one step of undo: a page that is dragged longer. */
const MERGE_MS = 900;

interface History {
  readonly past: readonly Rehearsal[];
  readonly now: Rehearsal;
  readonly future: readonly Rehearsal[];
  readonly key: string;
  readonly atMs: number;
}

export interface RehearsalEdits {
  readonly rehearsal: Rehearsal;
  /** `key` says what is changed, so that a drag is one step. */
  readonly edit: (change: (rehearsal: Rehearsal) => Rehearsal, key: string) => void;
  /** Another rehearsal takes its place; that can be undone too. */
  readonly load: (rehearsal: Rehearsal) => void;
  readonly undo: () => void;
  readonly redo: () => void;
  readonly canUndo: boolean;
  readonly canRedo: boolean;
}

export function useRehearsal(begin: () => Rehearsal): RehearsalEdits {
  const [{ past, now, future }, set] = useState<History>(() => ({
    past: [],
    now: begin(),
    future: [],
    key: '',
    atMs: 0,
  }));
  const edit: RehearsalEdits['edit'] = useCallback((change, key) => {
    const atMs = Date.now();
    set((old) => {
      const next = change(old.now);
      if (next === old.now) return old;
      const isMerged = key === old.key && atMs - old.atMs < MERGE_MS && old.past.length > 0;
      return { past: isMerged ? old.past : [...old.past, old.now], now: next, future: [], key, atMs };
    });
  }, []);
  const undo = useCallback(
    () =>
      set((old) => {
        const before = old.past.at(-1);
        return before
          ? { ...old, past: old.past.slice(0, -1), now: before, future: [old.now, ...old.future], key: '' }
          : old;
      }),
    [],
  );
  const redo = useCallback(
    () =>
      set((old) => {
        const [after, ...rest] = old.future;
        return after ? { ...old, past: [...old.past, old.now], now: after, future: rest, key: '' } : old;
      }),
    [],
  );
  return {
    rehearsal: now,
    edit,
    load: useCallback((rehearsal) => edit(() => rehearsal, `load ${Date.now()}`), [edit]),
    undo,
    redo,
    canUndo: past.length > 0,
    canRedo: future.length > 0,
  };
}
