/**
 * Calls `callback` once, when at least half of `box` has been on screen for one continuous second.
 * Source: MRC viewable-impression guideline (display). Returns the undo.
 */
export function onViewable(box: Element, callback: () => void): () => void {
  let timer = 0;
  const observer = new IntersectionObserver(
    ([entry]) => {
      clearTimeout(timer);
      if (!entry?.isIntersecting) return;
      timer = window.setTimeout(() => {
        observer.disconnect();
        if (document.visibilityState === 'visible') callback();
      }, 1000);
    },
    { threshold: 0.5 },
  );
  observer.observe(box);
  return () => {
    clearTimeout(timer);
    observer.disconnect();
  };
}
