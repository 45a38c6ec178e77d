import { createDepth, type Depth, SETTLED_MS, scrolls } from '@velarium/core/decide';
import { all, on } from '../observe/on.ts';
import { findScroller } from './scroller.ts';

/**
 * Follows how deep the visitor comes, and calls back when that has grown. Places are read between frames, never in the
 * handler. Answers how to read the depth at this moment, and the undo.
 */
export function onDepth(callback: (depth: Depth) => void): { read(): Depth; stop(): void } {
  const state = createDepth();
  let frame = 0;
  const read = () => {
    frame = 0;
    const scroller = findScroller();
    const isPage = scroller === document.documentElement;
    const windowHeight = isPage ? innerHeight : scroller.clientHeight;
    const pageHeight = scroller.scrollHeight;
    const top = isPage ? scrollY : scroller.scrollTop;
    // An application that has no words yet is not drawn, and does not say how long its page will be.
    // biome-ignore lint/performance/useDomNodeTextContent: what a script's element holds is no word on the page, and only short pages are asked.
    if (pageHeight > windowHeight + 1 || document.body?.innerText) {
      const depth = state.look({ top, windowHeight, pageHeight, atMs: performance.now() });
      if (depth) callback(depth);
    }
    if (state.deepest.percent) clearInterval(timer);
    return state.deepest;
  };
  const plan = () => {
    frame ||= requestAnimationFrame(read);
  };
  plan();
  // Whether a page is short shows when it has settled.
  const timer = setInterval(plan, SETTLED_MS);
  return {
    read,
    stop: all([
      () => cancelAnimationFrame(frame),
      () => clearInterval(timer),
      on(window, ['wheel', 'touchmove', 'pointerdown', 'keydown'], (event) => {
        if (scrolls((event as KeyboardEvent).key)) state.hand(performance.now());
      }),
      on(window, ['scroll'], () => {
        if (state.scrolled(performance.now())) plan();
      }),
    ]),
  };
}
