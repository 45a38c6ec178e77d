import { on } from '../observe/on.ts';

/** Calls `callback` when the page comes to the front again, also out of the back/forward cache. */
export function onPageShown(callback: () => void): void {
  on(document, ['visibilitychange'], () => {
    if (!document.hidden) callback();
  });
  on(window, ['pageshow'], (event) => {
    if ((event as PageTransitionEvent).persisted) callback();
  });
}
