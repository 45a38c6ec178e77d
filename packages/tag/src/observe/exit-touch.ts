import { createQuickScroll } from '@velarium/core/decide';
import { all, on } from './on.ts';

/** Tells a quick scroll up by touch, after having been at least one screen down. */
export function onQuickScrollUp(callback: () => void): () => void {
  const scroll = createQuickScroll();
  let isTouch = false;
  return all([
    on(window, ['pointerdown', 'touchstart'], (event) => {
      isTouch = event.type === 'touchstart' || (event as PointerEvent).pointerType === 'touch';
      scroll.begin();
    }),
    on(window, ['wheel'], () => {
      isTouch = false;
    }),
    on(window, ['scroll'], () => {
      if (isTouch && scroll.move(scrollY, performance.now(), innerHeight)) callback();
    }),
  ]);
}

const HELD = 'velariumHeld';

/**
 * Tells the back gesture, once. It holds the visitor a single time and only after a tap, as browsers ask of pages:
 * an entry is laid on the history, and going back takes only that away. The second going back leaves.
 */
export function onBackGesture(callback: () => void): () => void {
  let isHeld = false;
  const undo = all([
    on(window, ['click'], () => {
      if (isHeld) return;
      isHeld = true;
      try {
        history.pushState({ ...history.state, [HELD]: true }, '');
      } catch {
        // A frozen history: the gesture cannot be noticed, and nothing else changes.
      }
    }),
    on(window, ['popstate'], () => {
      if (!isHeld || (history.state as Record<string, unknown> | null)?.[HELD]) return;
      undo();
      callback();
    }),
  ]);
  return undo;
}
