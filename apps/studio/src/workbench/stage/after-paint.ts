/**
 * Puts work off until what was typed has been painted, and does it at once when something else is about to happen: the
 * letter comes first, and nothing is ever decided on a text that is one letter old.
 */
export function createAfterPaint() {
  const waiting = new Map<string, () => void>();
  let frame = 0;
  let timer: ReturnType<typeof setTimeout> | undefined;
  const flush = () => {
    cancelAnimationFrame(frame);
    clearTimeout(timer);
    const all = [...waiting.values()];
    waiting.clear();
    for (const work of all) work();
  };
  return {
    flush,
    /** Work under the same key takes the place of what waits. */
    put(key: string, work: () => void) {
      waiting.set(key, work);
      cancelAnimationFrame(frame);
      frame = requestAnimationFrame(() => {
        timer = setTimeout(flush);
      });
    },
  };
}
