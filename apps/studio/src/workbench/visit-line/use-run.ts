import { createMomentState, isMetBy } from '@velarium/core';
import { useCallback, useEffect, useRef, useState } from 'react';
import { playEntrance } from '../stage/play.ts';
import { useWorkbenchStore } from '../store.ts';

const TICK_MS = 100;

export interface Run {
  readonly seconds: number;
  readonly depth: number;
  readonly state: 'waiting' | 'open' | 'gone';
}

/**
 * A visit that is played on the line: time goes by, the reader scrolls as far as one puts it, and core says when the
 * message opens. The stage shows it coming with its real motion, and going if it closes by itself.
 */
export function useRun(): {
  readonly run: Run | null;
  readonly isPlaying: boolean;
  toggle(): void;
  stop(): void;
  putSeconds(seconds: number): void;
  putDepth(depth: number): void;
} {
  const store = useWorkbenchStore();
  const [run, setRun] = useState<Run | null>(null);
  const [isPlaying, setPlaying] = useState(false);
  // What the clock goes on from: the visit as it is now, not as it was when the last render began.
  const current = useRef<Run | null>(null);
  const openedAt = useRef<number | null>(null);
  const hiding = useRef<ReturnType<typeof setTimeout>>(undefined);

  const move = useCallback(
    (seconds: number, depth: number) => {
      const { moment } = store.getState().document.rule;
      const { afterSeconds } = store.getState().document.message.close;
      const state = createMomentState(moment, '', isMetBy);
      const times = {
        pageVisibleMs: seconds * 1000,
        sessionVisibleMs: seconds * 1000,
        // A visit that is played has nobody at its pointer.
        stillMs: seconds * 1000,
        counts: { viewsInSession: 1, viewsOfPage: 1, sessions: 1 },
      };
      state.feed({ kind: 'ready' }, times);
      state.feed({ kind: 'loaded' }, times);
      state.feed({ kind: 'scrolled', percent: depth, pixels: depth * 40 }, times);
      const isMet = state.remaining(times) <= 0;
      if (!isMet) openedAt.current = null;
      else openedAt.current ??= seconds;
      const isGone =
        openedAt.current !== null && afterSeconds !== null && seconds - openedAt.current >= afterSeconds;
      const next: Run = { seconds, depth, state: isGone ? 'gone' : isMet ? 'open' : 'waiting' };
      const old = current.current;
      current.current = next;
      setRun(next);
      if (next.state === 'open' && old?.state !== 'open') {
        clearTimeout(hiding.current);
        store.getState().setStage({ isMessageHidden: false });
        requestAnimationFrame(() => playEntrance('enter'));
      } else if (next.state !== 'open' && (old === null || old.state === 'open')) {
        if (next.state === 'gone') playEntrance('leave');
        hiding.current = setTimeout(
          () => store.getState().setStage({ isMessageHidden: true }),
          next.state === 'gone' ? store.getState().document.message.motion.leave.ms : 0,
        );
      }
    },
    [store],
  );

  const stop = useCallback(() => {
    setPlaying(false);
    setRun(null);
    current.current = null;
    openedAt.current = null;
    clearTimeout(hiding.current);
    store.getState().setStage({ isMessageHidden: false });
  }, [store]);

  useEffect(() => {
    if (!isPlaying) return;
    const timer = setInterval(() => {
      const { seconds, depth } = current.current ?? { seconds: 0, depth: 0 };
      move(Math.round((seconds + TICK_MS / 1000) * 10) / 10, depth);
    }, TICK_MS);
    return () => clearInterval(timer);
  }, [isPlaying, move]);

  // A message hidden for the sake of a run must not stay so once the line is left.
  useEffect(() => stop, [stop]);

  return {
    run,
    isPlaying,
    toggle() {
      if (current.current === null) move(0, 0);
      setPlaying((old) => !old);
    },
    stop,
    putSeconds: (seconds) => move(seconds, current.current?.depth ?? 0),
    putDepth: (depth) => move(current.current?.seconds ?? 0, depth),
  };
}
