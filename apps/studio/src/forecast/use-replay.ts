import type { Assumptions, Manifest, MetByPage, Traffic } from '@velarium/contract';
import { type Forecast, type ReachGain, type ReplayedCast, reachGains } from '@velarium/core';
import { useEffect, useState } from 'react';
import type { ReplayAnswer, ReplayGround, ReplayTask } from './replay.worker.ts';

export interface Replay {
  readonly forecasts: ReadonlyMap<string, Forecast>;
  /** Casts that have been replayed to the last visitor. */
  readonly whole: ReadonlySet<string>;
  /** How many more each campaign of a cast reaches than in the first one; of casts that are whole. */
  readonly gains: ReadonlyMap<string, readonly ReachGain[]>;
  /** How often each campaign of a cast is shown on each page; of casts that are whole. */
  readonly byPage: ReadonlyMap<string, readonly MetByPage[]>;
  readonly hasFailed: boolean;
}
const NOTHING: Replay = {
  forecasts: new Map(),
  whole: new Set(),
  gains: new Map(),
  byPage: new Map(),
  hasFailed: false,
};

export interface Cast {
  readonly key: string;
  readonly manifest: Manifest;
}

/** Threads at most: each holds the traffic once more. One processor is left to the page. */
const MOST_THREADS = 6;
const threadsFor = (casts: number): number =>
  Math.max(1, Math.min(casts, MOST_THREADS, navigator.hardwareConcurrency - 1));

interface Replaying {
  readonly casts: readonly Cast[];
  readonly ground: ReplayGround;
  readonly onAnswer: (answer: ReplayAnswer) => void;
  readonly onError: () => void;
}

/** Replays casts in threads of their own, each given the next as it is done with one. Returns what stops them. */
function startReplay({ casts, ground, onAnswer, onError }: Replaying): () => void {
  const waiting = [...casts];
  const threads = Array.from({ length: threadsFor(casts.length) }, () => {
    const thread = new Worker(new URL('./replay.worker.ts', import.meta.url), { type: 'module' });
    const goOn = () => {
      const next = waiting.shift();
      if (next) thread.postMessage(next satisfies ReplayTask);
      else thread.terminate();
    };
    thread.onmessage = ({ data }: MessageEvent<ReplayAnswer>) => {
      onAnswer(data);
      if (data.who) goOn();
    };
    thread.onerror = onError;
    thread.postMessage(ground);
    goOn();
    return thread;
  });
  return () => {
    for (const thread of threads) thread.terminate();
  };
}

function wholeOf(
  cast: Pick<Cast, 'key'> | undefined,
  answers: ReadonlyMap<string, ReplayAnswer>,
): ReplayedCast | undefined {
  const { forecast, who } = (cast && answers.get(cast.key)) ?? {};
  return forecast && who ? { forecast, who } : undefined;
}

/** What is known after one more answer. The gains of a cast are known once both it and the first are whole. */
function heard(old: Replay, casts: readonly Cast[], answers: ReadonlyMap<string, ReplayAnswer>): Replay {
  const [first] = casts;
  const before = wholeOf(first, answers);
  const whole = new Set([...answers.values()].filter(({ who }) => who).map(({ key }) => key));
  const gains = casts.flatMap(({ key, manifest }): [string, readonly ReachGain[]][] => {
    const after = wholeOf({ key }, answers);
    return before && after && key !== first?.key
      ? [[key, old.gains.get(key) ?? reachGains(before, after, manifest.campaigns)]]
      : [];
  });
  return {
    forecasts: new Map([...old.forecasts, ...[...answers].map(([key, one]) => [key, one.forecast] as const)]),
    whole,
    gains: new Map(gains),
    byPage: new Map([...answers].flatMap(([key, { byPage }]) => (byPage ? [[key, byPage] as const] : []))),
    hasFailed: false,
  };
}

/**
 * Replays traffic against each of these casts; the first answers come from few visitors. When any of what it is asked
 * changes, what is under way is thrown away.
 */
export function useReplay(
  casts: readonly Cast[] | undefined,
  traffic: Traffic | undefined,
  assumptions: Assumptions,
  origin: string,
): Replay & { readonly isStopped: boolean; readonly stop: () => void } {
  const [replay, setReplay] = useState(NOTHING);
  const [halt, setHalt] = useState<(() => void) | null>(null);
  const [isStopped, setStopped] = useState(false);
  useEffect(() => {
    if (!casts || !traffic) return;
    setStopped(false);
    // What was found before stands until it is found anew.
    setReplay((old) => ({ ...old, whole: new Set(), gains: new Map(), byPage: new Map() }));
    const answers = new Map<string, ReplayAnswer>();
    const stop = startReplay({
      casts,
      ground: { traffic, assumptions, origin },
      onAnswer: (answer) => {
        answers.set(answer.key, answer);
        setReplay((old) => heard(old, casts, answers));
      },
      onError: () => setReplay((old) => ({ ...old, hasFailed: true })),
    });
    setHalt(() => stop);
    return stop;
  }, [casts, traffic, assumptions, origin]);
  const stop = () => {
    halt?.();
    setStopped(true);
  };
  return { ...replay, isStopped, stop };
}
