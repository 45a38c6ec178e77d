/**
 * What scrolls the reading: the page, or where that cannot scroll the element that fills most of the window and can, as
 * applications have it.
 */
export function findScroller(): Element {
  const page = document.documentElement;
  if (page.scrollHeight > innerHeight + 1) return page;
  let at = document.elementFromPoint(innerWidth / 2, innerHeight / 2);
  while (
    at &&
    !(
      at.scrollHeight > at.clientHeight + 1 &&
      at.clientHeight > innerHeight / 2 &&
      /auto|scroll/.test(getComputedStyle(at).overflowY)
    )
  )
    at = at.parentElement;
  return at ?? page;
}
