import { type Rehearsal, rehearsalSchema, rehearsedPageSchema } from '@velarium/contract';
import { isSame } from '@velarium/core';
import { useCallback, useEffect, useState } from 'react';
import { z } from 'zod';
import { keepForTab, keptForTab } from '../ui/tab-memory.ts';

/** Changes of one thing this close together are one step of undo: a page that is dragged longer. */
const MERGE_MS = 900;
/** Steps of undo that are still there when one comes back to the place. */
const MOST_STEPS = 20;

const stepSchema = z.object({
  // One that has grown too long to be kept is not lost for that.
  rehearsal: rehearsalSchema.extend({ pages: z.array(rehearsedPageSchema).min(1) }),
  /** Which of the visits that have been on the line it belongs to. */
  visit: z.number(),
});
type Step = z.infer<typeof stepSchema>;

/** What outlives leaving the place, and a reload of it. */
const lineSchema = z.object({
  past: z.array(stepSchema),
  now: stepSchema,
  future: z.array(stepSchema),
  /** What each visit is kept as. */
  kept: z.record(z.string(), z.string()),
});

interface Line extends z.infer<typeof lineSchema> {
  readonly key: string;
  readonly atMs: number;
}

const nameOf = (siteId: string): string => `velarium.rehearsal.${siteId}`;

const step = (line: Line, now: Step): Line => ({
  ...line,
  past: [...line.past, line.now],
  now,
  future: [],
  key: '',
});
const loaded = (line: Line, rehearsal: Rehearsal, keptId: string | null): Line => {
  const visit = 1 + Math.max(...[...line.past, line.now, ...line.future].map((one) => one.visit));
  const next = step(line, { rehearsal, visit });
  return keptId === null ? next : { ...next, kept: { ...line.kept, [visit]: keptId } };
};

export interface RehearsalEdits {
  readonly rehearsal: Rehearsal;
  /** Which visit is on the line, and what it is kept as, if it is. */
  readonly visit: number;
  readonly keptId: string | null;
  /** `key` says what is changed, so that a drag is one step. */
  readonly edit: (change: (rehearsal: Rehearsal) => Rehearsal, key: string) => void;
  /** Another visit takes its place; that can be undone too. */
  readonly load: (rehearsal: Rehearsal, keptId: string | null) => void;
  readonly setKept: (visit: number, keptId: string | null) => void;
  readonly undo: () => void;
  readonly redo: () => void;
  readonly canUndo: boolean;
  readonly canRedo: boolean;
}

interface Arrival {
  readonly siteId: string;
  /** The visit one begins with where none is on the line. */
  readonly begin: () => Rehearsal;
  /** Whether that visit was asked for, also where another is on the line. */
  readonly isAsked: boolean;
}

/** The visit on the line with its undo. What has been worked on is still there when one comes back to the place. */
export function useRehearsal({ siteId, begin, isAsked }: Arrival): RehearsalEdits {
  const [{ first, isToKeep }] = useState(() => {
    const { success: isWorkedOn, data } = lineSchema.safeParse(keptForTab(nameOf(siteId)));
    const begun = { past: [], now: { rehearsal: begin(), visit: 0 }, future: [], kept: {} };
    const line: Line = { ...(isWorkedOn ? data : begun), key: '', atMs: 0 };
    return {
      first: isWorkedOn && isAsked ? loaded(line, begin(), null) : line,
      // What was asked for is asked for once: the address says so no more when the page is loaded again.
      isToKeep: isWorkedOn || isAsked,
    };
  });
  const [line, set] = useState(first);
  const { past, now, future, kept } = line;
  useEffect(() => {
    if (line === first && !isToKeep) return;
    keepForTab(nameOf(siteId), {
      past: line.past.slice(-MOST_STEPS),
      now: line.now,
      future: line.future.slice(0, MOST_STEPS),
      kept: line.kept,
    });
  }, [line, first, isToKeep, siteId]);
  const edit: RehearsalEdits['edit'] = useCallback((change, key) => {
    const atMs = Date.now();
    set((old) => {
      const rehearsal = change(old.now.rehearsal);
      // A field that is left says once more what it holds.
      if (isSame(rehearsal, old.now.rehearsal)) return old;
      const next = { ...old.now, rehearsal };
      const isMerged = key === old.key && atMs - old.atMs < MERGE_MS && old.past.length > 0;
      return { ...(isMerged ? { ...old, now: next, future: [] } : step(old, next)), key, atMs };
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
    rehearsal: now.rehearsal,
    visit: now.visit,
    keptId: kept[now.visit] ?? null,
    edit,
    load: useCallback((rehearsal, keptId) => set((old) => loaded(old, rehearsal, keptId)), []),
    setKept: useCallback(
      (visit, keptId) =>
        set((old) => {
          const { [visit]: _, ...others } = old.kept;
          return { ...old, kept: keptId === null ? others : { ...others, [visit]: keptId } };
        }),
      [],
    ),
    undo,
    redo,
    canUndo: past.length > 0,
    canRedo: future.length > 0,
  };
}
