import { createBackGesture, createQuickScroll } from '@velarium/core/rare';
import { all, on } from './on.ts';

/** Tells a quick scroll up by touch, after having been at least one screen down. */
function onQuickScrollUp(callback: () => void): () => void {
  const scroll = createQuickScroll();
  return all([
    on(
      window,
      ['pointerdown', 'touchstart', 'wheel'],
      ({ type, pointerType }: Event & { pointerType?: string }) =>
        scroll.press(type === 'touchstart' || pointerType === 'touch'),
    ),
    on(window, ['scroll'], () => {
      if (scroll.scroll(scrollY, performance.now(), innerHeight)) callback();
    }),
  ]);
}

const HELD = 'velariumHeld';

/** Tells the back gesture, once: an entry is laid on the history, and going back takes only that away. */
function onBackGesture(callback: () => void): () => void {
  const gesture = createBackGesture();
  return all([
    on(window, ['click'], () => {
      try {
        if (gesture.tap()) history.pushState({ ...history.state, [HELD]: true }, '');
      } catch {
        // A frozen history: the gesture cannot be noticed, and nothing else changes.
      }
    }),
    on(window, ['popstate'], () => {
      if (gesture.back(!!(history.state as Record<string, unknown> | null)?.[HELD])) callback();
    }),
  ]);
}

export const onExitByTouch = (by: 'back' | 'scrollUp', callback: () => void): (() => void) =>
  (by === 'back' ? onBackGesture : onQuickScrollUp)(callback);
