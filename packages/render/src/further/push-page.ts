/** Events after which a move of the page counts as the visitor's doing. Source: Layout Instability, hadRecentInput. */
const INPUTS = ['pointerdown', 'keydown'];

/**
 * Makes room for a bar at the top or the bottom of the page. Before the page is first painted the room is made at once;
 * after that it waits for the visitor's first input, so that nothing shifts under their eyes. Returns the undo, which
 * waits in the same way.
 */
export function pushPage(box: HTMLElement, side: 'top' | 'bottom'): () => void {
  const { documentElement: page, defaultView } = box.ownerDocument;
  const view = defaultView as Window & typeof globalThis;
  const property = side === 'top' ? 'marginTop' : 'marginBottom';
  const before = page.style[property];
  let stopWaiting = () => {};
  const soon = (change: () => void) => {
    stopWaiting();
    const isPainted = view.performance.getEntriesByType('paint').length > 0;
    if (!isPainted) return change();
    const run = () => {
      stopWaiting();
      change();
    };
    for (const kind of INPUTS) view.addEventListener(kind, run, { capture: true, passive: true });
    stopWaiting = () => {
      for (const kind of INPUTS) view.removeEventListener(kind, run, { capture: true });
      stopWaiting = () => {};
    };
  };
  const makeRoom = () => {
    page.style[property] = `${box.offsetHeight}px`;
  };
  soon(makeRoom);
  return () => {
    stopWaiting();
    if (page.style[property] !== before) {
      // Closing by hand is an input itself; what closes by itself waits for the next.
      const isOwnInput = view.event && INPUTS.concat('click').includes(view.event.type);
      const giveBack = () => {
        page.style[property] = before;
      };
      if (isOwnInput) giveBack();
      else soon(giveBack);
    }
  };
}
