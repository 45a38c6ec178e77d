import { createDepth, type Depth, scrolls } from '@velarium/core/decide';
import { all, on } from '../observe/on.ts';

/**
 * Follows how deep the visitor comes, and calls back when that has grown. Places are read between frames, never in the
 * handler. Answers how to read the depth at this moment, and the undo.
 */
export function onDepth(callback: (depth: Depth) => void): { read(): Depth; stop(): void } {
  const state = createDepth();
  let frame = 0;
  const read = () => {
    frame = 0;
    const { scrollHeight } = document.documentElement;
    const depth = state.look({ top: scrollY, windowHeight: innerHeight, pageHeight: scrollHeight });
    if (depth) callback(depth);
    return state.deepest;
  };
  const plan = () => {
    frame ||= requestAnimationFrame(read);
  };
  plan();
  return {
    read,
    stop: all([
      () => cancelAnimationFrame(frame),
      on(window, ['wheel', 'touchmove', 'pointerdown', 'keydown'], (event) => {
        if (scrolls((event as KeyboardEvent).key)) state.hand(performance.now());
      }),
      on(window, ['scroll'], () => {
        if (state.scrolled(performance.now())) plan();
      }),
    ]),
  };
}
