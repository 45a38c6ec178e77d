import { createViewable } from '@velarium/core/decide';
import { all, on } from '../observe/on.ts';

/** Calls `callback` once, when the box is viewable. Returns the undo. */
export function onViewable(box: Element, callback: () => void): () => void {
  const viewable = createViewable();
  let timer = 0;
  let isOnScreen = false;
  const look = () => {
    clearTimeout(timer);
    const nowMs = performance.now();
    if (viewable.see(isOnScreen && !document.hidden, nowMs)) {
      undo();
      callback();
      return;
    }
    const ms = viewable.remainingMs(nowMs);
    if (ms < 2000) timer = window.setTimeout(look, ms);
  };
  const observer = new IntersectionObserver(
    ([entry]) => {
      isOnScreen = !!entry?.isIntersecting;
      look();
    },
    { threshold: 0.5 },
  );
  observer.observe(box);
  const undo = all([
    () => observer.disconnect(),
    () => clearTimeout(timer),
    on(document, ['visibilitychange'], look),
    // A page that is left is not always hidden first.
    on(window, ['pagehide'], look),
  ]);
  return undo;
}
