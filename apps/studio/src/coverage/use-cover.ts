import { type Coverage, type CoverageQuestion, coverSite } from '@velarium/core';
import { useEffect, useState } from 'react';

interface Covered {
  /** What was asked last; missing until it is answered. */
  readonly coverage: Coverage | undefined;
  readonly isBusy: boolean;
  readonly hasFailed: boolean;
}

/** What can appear where, found in a thread of its own: many pages against many campaigns take a while. Keep the question. */
export function useCover(question: CoverageQuestion | undefined): Covered {
  const [found, setFound] = useState<{ readonly of: CoverageQuestion; readonly coverage?: Coverage }>();
  useEffect(() => {
    if (!question) return;
    const thread = new Worker(new URL('./cover.worker.ts', import.meta.url), { type: 'module' });
    thread.onmessage = ({ data }: MessageEvent<Uint8Array>) =>
      setFound({ of: question, coverage: coverSite(question, data) });
    thread.onerror = () => setFound({ of: question });
    thread.postMessage(question);
    return () => thread.terminate();
  }, [question]);
  return {
    coverage: found?.coverage,
    isBusy: question !== undefined && found?.of !== question,
    hasFailed: found !== undefined && found.of === question && !found.coverage,
  };
}
