import { find } from './on.ts';

/** How often to look for elements that are not there yet, while the page still changes. */
const LOOK_AGAIN_MS = 500;

/** Looks that found nothing so far. One observer of the document serves all of them. */
const missing = new Set<() => void>();
let isLooking = false;
const mutations = new MutationObserver(() => {
  if (isLooking) return;
  isLooking = true;
  setTimeout(() => {
    isLooking = false;
    for (const look of [...missing]) look();
    if (missing.size === 0) mutations.disconnect();
  }, LOOK_AGAIN_MS);
});

/**
 * Calls back once, when half of the window, or half of the element, is inside the window. It may come
 * later than we do.
 */
export function onReached(look: () => Element | null, callback: () => void): () => void {
  const observer = new IntersectionObserver(
    ([entry]) => {
      if (!entry?.isIntersecting) return;
      const windowHeight = entry.rootBounds?.height ?? innerHeight;
      if (entry.intersectionRatio < 0.5 && entry.intersectionRect.height < windowHeight / 2) return;
      observer.disconnect();
      callback();
    },
    { threshold: [0, 0.1, 0.2, 0.3, 0.4, 0.5] },
  );
  const begin = () => {
    const element = look();
    if (!element) return;
    missing.delete(begin);
    observer.observe(element);
  };
  if (missing.add(begin).size === 1) mutations.observe(document, { childList: true, subtree: true });
  begin();
  return () => {
    missing.delete(begin);
    observer.disconnect();
  };
}

/** Where an article ends: the last thing in it, or in the page's main part when there is no article. */
export const articleEnd = (): Element | null => {
  const whole = find('article') ?? find('main');
  return whole?.lastElementChild ?? whole;
};
