import { find } from './on.ts';

/** How often to look for an element that is not there yet, while the page still changes. */
const LOOK_AGAIN_MS = 500;

/**
 * Calls back once, when half of the window, or half of the element, is inside the window. It may come
 * later than we do.
 */
export function onReached(look: () => Element | null, callback: () => void): () => void {
  let timer = 0;
  const observer = new IntersectionObserver(
    ([entry]) => {
      if (!entry?.isIntersecting) return;
      const windowHeight = entry.rootBounds?.height ?? innerHeight;
      if (entry.intersectionRatio < 0.5 && entry.intersectionRect.height < windowHeight / 2) return;
      stop();
      callback();
    },
    { threshold: [0, 0.1, 0.2, 0.3, 0.4, 0.5] },
  );
  const mutations = new MutationObserver(() => {
    clearTimeout(timer);
    timer = window.setTimeout(begin, LOOK_AGAIN_MS);
  });
  const begin = () => {
    const element = look();
    if (!element) return;
    mutations.disconnect();
    observer.observe(element);
  };
  const stop = () => {
    clearTimeout(timer);
    observer.disconnect();
    mutations.disconnect();
  };
  mutations.observe(document, { childList: true, subtree: true });
  begin();
  return stop;
}

/** Where an article ends: the last thing in it, or in the page's main part when there is no article. */
export const articleEnd = (): Element | null => {
  const whole = find('article') ?? find('main');
  return whole?.lastElementChild ?? whole;
};
