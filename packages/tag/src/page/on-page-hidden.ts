import { on } from '../observe/on.ts';

/**
 * Calls `callback` whenever the page may be about to go away. It can run many times for one page, since people
 * return to hidden tabs, so `callback` must be safe to repeat.
 * Source: Page Lifecycle, https://wicg.github.io/page-lifecycle/
 */
export function onPageHidden(callback: () => void): void {
  // A hidden tab may be killed with no further event, so hiding is the last sure chance to send.
  on(document, ['visibilitychange'], () => {
    if (document.hidden) callback();
  });
  on(window, ['pagehide'], callback);
}
