import { all, on } from './on.ts';

/** A scroll this soon after a sign of the visitor's hand is the visitor's (also the gliding on of a flick). */
const BY_HAND_MS = 1500;
const SCROLL_KEYS = new Set([' ', 'PageDown', 'PageUp', 'End', 'Home', 'ArrowDown', 'ArrowUp']);

export interface Depth {
  readonly percent: number;
  readonly pixels: number;
}

/**
 * Tells the deepest point the visitor has reached. What a script scrolls does not count until the visitor has
 * scrolled; a page that cannot scroll is wholly reached at once. Positions are read between frames, never in the
 * handler.
 */
export function onDepth(callback: (depth: Depth) => void): () => void {
  let handAtMs = Number.NEGATIVE_INFINITY;
  let hasScrolled = false;
  let frame = 0;
  const deepest = { percent: 0, pixels: 0 };

  const read = () => {
    frame = 0;
    const { scrollHeight } = document.documentElement;
    const bottom = scrollY + innerHeight;
    const cannotScroll = scrollHeight <= innerHeight + 1;
    if (!hasScrolled && !cannotScroll) return;
    // Half a pixel is what zoom and rounding leave at the end of a page.
    const percent = cannotScroll ? 100 : Math.min(100, ((bottom + 0.5) / scrollHeight) * 100);
    if (percent <= deepest.percent && bottom <= deepest.pixels) return;
    deepest.percent = Math.max(deepest.percent, percent);
    deepest.pixels = Math.max(deepest.pixels, bottom);
    callback({ ...deepest });
  };
  const plan = () => {
    frame ||= requestAnimationFrame(read);
  };
  const undo = all([
    on(window, ['wheel', 'touchmove', 'pointerdown'], () => {
      handAtMs = performance.now();
    }),
    on(window, ['keydown'], (event) => {
      if (SCROLL_KEYS.has((event as KeyboardEvent).key)) handAtMs = performance.now();
    }),
    on(window, ['scroll'], () => {
      hasScrolled ||= performance.now() - handAtMs < BY_HAND_MS;
      if (hasScrolled) plan();
    }),
  ]);
  plan();
  return () => {
    cancelAnimationFrame(frame);
    undo();
  };
}
