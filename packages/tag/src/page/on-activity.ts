import { on } from '../observe/on.ts';

const SIGNS = ['pointerdown', 'pointermove', 'keydown', 'wheel', 'touchstart', 'scroll'] as const;

/** Calls `callback` at a sign of life from the visitor, at most once in `everyMs`. Returns the undo. */
export function onActivity(callback: () => void, everyMs: number): () => void {
  let lastMs = Number.NEGATIVE_INFINITY;
  return on(window, SIGNS, () => {
    if (performance.now() - lastMs < everyMs) return;
    lastMs = performance.now();
    callback();
  });
}
