import { type Coverage, type CoverageNote, coverSite } from '@velarium/core';
import { useEffect, useState } from 'react';
import type { CoverAnswer, CoverTask } from './cover.worker.ts';

interface Found {
  readonly coverage: Coverage;
  readonly notes: readonly CoverageNote[];
}
interface Covered {
  /** What was asked last; missing until it is answered. */
  readonly found: Found | undefined;
  readonly isBusy: boolean;
  readonly hasFailed: boolean;
}

/** What can appear where, found in a thread of its own: many pages against many campaigns take a while. Keep the task. */
export function useCover(task: CoverTask | undefined): Covered {
  const [answer, setAnswer] = useState<{ readonly of: CoverTask; readonly found?: Found }>();
  useEffect(() => {
    if (!task) return;
    const thread = new Worker(new URL('./cover.worker.ts', import.meta.url), { type: 'module' });
    thread.onmessage = ({ data: { cells, notes } }: MessageEvent<CoverAnswer>) =>
      setAnswer({ of: task, found: { coverage: coverSite(task.question, cells), notes } });
    thread.onerror = () => setAnswer({ of: task });
    thread.postMessage(task);
    return () => thread.terminate();
  }, [task]);
  return {
    found: answer?.found,
    isBusy: task !== undefined && answer?.of !== task,
    hasFailed: answer !== undefined && answer.of === task && !answer.found,
  };
}
