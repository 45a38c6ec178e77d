import { useEffect, useRef } from 'react';

/**
 * Keeps the keyboard in the place one is in: where what had the focus is gone (a row that was archived, a dialog whose button
 * is no more, a place that was left), it goes to the place itself rather than to the top of the page.
 *
 * @returns For the element of the place, which must be able to take the focus.
 */
export function useKeptFocus<Element extends HTMLElement>() {
  const place = useRef<Element>(null);
  useEffect(() => {
    let last: globalThis.Element | null = null;
    let frame = 0;
    const look = () => {
      if (!last || last.isConnected || document.activeElement !== document.body) return;
      // Whoever took it away may have somewhere better to put it.
      cancelAnimationFrame(frame);
      frame = requestAnimationFrame(() => {
        if (document.activeElement === document.body) place.current?.focus({ preventScroll: true });
      });
    };
    const note = (event: FocusEvent) => {
      last = event.target as globalThis.Element;
    };
    const observer = new MutationObserver(look);
    observer.observe(document.body, { childList: true, subtree: true });
    addEventListener('focusin', note);
    return () => {
      observer.disconnect();
      cancelAnimationFrame(frame);
      removeEventListener('focusin', note);
    };
  }, []);
  return place;
}
