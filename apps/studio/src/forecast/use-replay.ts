import type { Assumptions, Manifest, Traffic } from '@velarium/contract';
import type { Forecast, ReachGain } from '@velarium/core';
import { useEffect, useState } from 'react';
import type { ReplayAnswer, ReplayTask } from './replay.worker.ts';

export interface Replay {
  readonly forecasts: ReadonlyMap<string, Forecast>;
  /** Casts that have been replayed to the last visitor. */
  readonly whole: ReadonlySet<string>;
  /** How many more each campaign of a cast reaches than in the first one; of casts that are whole. */
  readonly gains: ReadonlyMap<string, readonly ReachGain[]>;
  readonly hasFailed: boolean;
}
const NOTHING: Replay = { forecasts: new Map(), whole: new Set(), gains: new Map(), hasFailed: false };

export interface Cast {
  readonly key: string;
  readonly manifest: Manifest;
}

/**
 * Replays traffic against each of these casts in a thread of its own; the first answers come from few visitors. When any of
 * what it is asked changes, what is under way is thrown away.
 */
export function useReplay(
  casts: readonly Cast[] | undefined,
  traffic: Traffic | undefined,
  assumptions: Assumptions,
  origin: string,
): Replay & { readonly isStopped: boolean; readonly stop: () => void } {
  const [replay, setReplay] = useState(NOTHING);
  const [worker, setWorker] = useState<Worker | null>(null);
  const [isStopped, setStopped] = useState(false);
  useEffect(() => {
    if (!casts || !traffic) return;
    const thread = new Worker(new URL('./replay.worker.ts', import.meta.url), { type: 'module' });
    setWorker(thread);
    setStopped(false);
    // What was found before stands until it is found anew.
    setReplay((old) => ({ ...old, whole: new Set(), gains: new Map() }));
    thread.onmessage = ({ data: { key, forecast, isWhole, gains } }: MessageEvent<ReplayAnswer>) =>
      setReplay((old) => ({
        forecasts: new Map(old.forecasts).set(key, forecast),
        whole: isWhole ? new Set(old.whole).add(key) : new Set([...old.whole].filter((one) => one !== key)),
        gains: gains ? new Map(old.gains).set(key, gains) : old.gains,
        hasFailed: false,
      }));
    thread.onerror = () => setReplay((old) => ({ ...old, hasFailed: true }));
    thread.postMessage({ casts, traffic, assumptions, origin } satisfies ReplayTask);
    return () => thread.terminate();
  }, [casts, traffic, assumptions, origin]);
  const stop = () => {
    worker?.terminate();
    setStopped(true);
  };
  return { ...replay, isStopped, stop };
}
