/** Calls `callback` when the page comes to the front again, also out of the back/forward cache. */
export function onPageShown(callback: () => void): () => void {
  const handleVisibility = () => {
    if (document.visibilityState === 'visible') callback();
  };
  const handleRestore = (event: PageTransitionEvent) => {
    if (event.persisted) callback();
  };
  document.addEventListener('visibilitychange', handleVisibility);
  addEventListener('pageshow', handleRestore);
  return () => {
    document.removeEventListener('visibilitychange', handleVisibility);
    removeEventListener('pageshow', handleRestore);
  };
}
