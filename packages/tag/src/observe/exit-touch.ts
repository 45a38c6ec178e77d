import { all, on } from './on.ts';

/** A scroll up of this share of the window within this time is quick. */
const QUICK = { share: 0.35, withinMs: 500 };
const RISING_EVERY_MS = 100;

/** Tells a quick scroll up by touch, after having been at least one screen down. */
export function onQuickScrollUp(callback: () => void): () => void {
  let isTouch = false;
  let deepest = 0;
  let trail: { y: number; atMs: number }[] = [];
  return all([
    on(window, ['pointerdown', 'touchstart'], (event) => {
      isTouch = event.type === 'touchstart' || (event as PointerEvent).pointerType === 'touch';
      trail = [];
    }),
    on(window, ['wheel'], () => {
      isTouch = false;
    }),
    on(window, ['scroll'], () => {
      if (!isTouch) return;
      const [y, atMs] = [scrollY, performance.now()];
      deepest = Math.max(deepest, y);
      if (atMs - (trail.at(-1)?.atMs ?? Number.NEGATIVE_INFINITY) < RISING_EVERY_MS / 4) return;
      trail = [...trail.filter((one) => atMs - one.atMs < QUICK.withinMs), { y, atMs }];
      const highest = Math.max(...trail.map((one) => one.y));
      if (deepest >= innerHeight && highest - y > innerHeight * QUICK.share) callback();
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
