const SIGNS = ['pointerdown', 'keydown', 'wheel', 'touchstart', 'scroll'] as const;

/** Calls `callback` at a sign of life from the visitor, at most once in `everyMs`. Returns the undo. */
export function onActivity(callback: () => void, everyMs: number): () => void {
  let lastMs = performance.now();
  const handle = () => {
    if (performance.now() - lastMs < everyMs) return;
    lastMs = performance.now();
    callback();
  };
  for (const sign of SIGNS) addEventListener(sign, handle, { passive: true, capture: true });
  return () => {
    for (const sign of SIGNS) removeEventListener(sign, handle, { capture: true });
  };
}
