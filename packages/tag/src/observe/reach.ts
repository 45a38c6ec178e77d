import { isReached, reachedHeight } from '@velarium/core/decide';
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

/** Calls back once, when the element is reached. It may come later than we do, and grow while one waits. */
export function onReached(look: () => Element | null, callback: () => void): () => void {
  let observer: IntersectionObserver | undefined;
  let timer = 0;
  /** In the window, but perhaps under something else that fills it, as screens that lie on one another do. */
  const wait = () => {
    const element = look();
    if (!element || !isCovered(element)) callback();
    else timer = window.setTimeout(wait, LOOK_AGAIN_MS);
  };
  const observe = (element: Element, elementHeight: number) => {
    observer?.disconnect();
    const share =
      elementHeight && reachedHeight({ elementHeight, windowHeight: innerHeight }) / elementHeight;
    observer = new IntersectionObserver(
      ([entry]) => {
        if (!entry?.isIntersecting) return;
        const { height } = entry.boundingClientRect;
        const windowHeight = entry.rootBounds?.height ?? innerHeight;
        const seenHeight = entry.intersectionRect.height;
        if (isReached({ elementHeight: height, seenHeight, windowHeight })) {
          observer?.disconnect();
          wait();
        } else if (height !== elementHeight) observe(element, height);
      },
      // Asked when it comes in sight, and at the very share that counts.
      { threshold: [0, share] },
    );
    observer.observe(element);
  };
  const begin = () => {
    const element = look();
    if (!element) return;
    missing.delete(begin);
    observe(element, element.getBoundingClientRect().height);
  };
  if (missing.add(begin).size === 1) mutations.observe(document, { childList: true, subtree: true });
  begin();
  return () => {
    missing.delete(begin);
    observer?.disconnect();
    clearTimeout(timer);
  };
}

/** Whether other things of the page lie over it wherever one looks: a fixed header or a message of ours hides a part of it. */
function isCovered(element: Element): boolean {
  const { left, right, top, bottom } = element.getBoundingClientRect();
  const [from, to] = [Math.max(0, top), Math.min(innerHeight, bottom)];
  return [0.2, 0.5, 0.8].every((share) => {
    const over = document.elementFromPoint((left + right) / 2, from + (to - from) * share);
    return over && !over.contains(element) && !element.contains(over) && !/^velarium/.test(over.localName);
  });
}

/** Where an article ends: with the last of its words, or of the page's main part when there is no article. */
export const articleEnd = (): Element | null => {
  const whole = find('article') ?? find('main');
  if (!whole) return null;
  const texts = document.createTreeWalker(whole, NodeFilter.SHOW_TEXT);
  let last: Element | null = null;
  while (texts.nextNode()) {
    const { data, parentElement } = texts.currentNode as Text;
    if (/\S/.test(data) && !/^(SCRIPT|STYLE|TEMPLATE|NOSCRIPT)$/.test(parentElement?.tagName ?? ''))
      last = parentElement;
  }
  return last ?? whole;
};
