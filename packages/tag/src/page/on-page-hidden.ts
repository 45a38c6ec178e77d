/**
 * Calls `callback` whenever the page may be about to go away. It can run many times for one page, since people
 * return to hidden tabs, so `callback` must be safe to repeat. Returns the undo.
 * Source: Page Lifecycle, https://wicg.github.io/page-lifecycle/
 */
export function onPageHidden(callback: () => void): () => void {
  const handleVisibility = () => {
    if (document.visibilityState === 'hidden') callback();
  };
  // A hidden tab may be killed with no further event, so hiding is the last sure chance to send.
  document.addEventListener('visibilitychange', handleVisibility);
  addEventListener('pagehide', callback);
  return () => {
    document.removeEventListener('visibilitychange', handleVisibility);
    removeEventListener('pagehide', callback);
  };
}
