/** Points along the edge at which fixed and sticky parts of the page are looked for, shares of the window's width. */
const ACROSS = [0.02, 0.25, 0.5, 0.75, 0.98];

type Side = 'top' | 'bottom';

/** Parts of the page that stay at this edge of the window: a header that is fixed or sticks to it. */
function edgeParts(view: Window, side: Side, height: number): HTMLElement[] {
  const { document, innerWidth, innerHeight, getComputedStyle } = view;
  const y = side === 'top' ? height / 2 : innerHeight - height / 2;
  const parts = new Set<HTMLElement>();
  for (const share of ACROSS) {
    for (const found of document.elementsFromPoint(innerWidth * share, y)) {
      for (let part: Element | null = found; part instanceof HTMLElement; part = part.parentElement) {
        if (part.localName.startsWith('velarium-')) break;
        const { position } = getComputedStyle(part);
        if (position === 'fixed' || position === 'sticky') parts.add(part);
      }
    }
  }
  return [...parts];
}

/**
 * Makes room for a bar at the top or the bottom of the page, at once and without a layout shift: the room is made and
 * taken back by a transform in the same frame, which leaves everything where it was; then the transform goes, which
 * moves what is drawn but counts as no shift (Layout Instability: changes of a transform are none). What stays at the
 * edge is moved along, so that the bar covers nothing that could not be reached. Returns the undo, which gives the room
 * back in the same way.
 */
export function pushPage(box: HTMLElement, side: Side): () => void {
  const { body, defaultView } = box.ownerDocument;
  const view = defaultView as Window & typeof globalThis;
  const property = side === 'top' ? 'padding-top' : 'padding-bottom';
  const before = [body.style.getPropertyValue(property), body.style.getPropertyPriority(property)] as const;
  const own = Number.parseFloat(view.getComputedStyle(body).getPropertyValue(property)) || 0;
  const moved = new Map<HTMLElement, { readonly name: string; readonly value: string }>();
  let height = 0;

  /** Changes the room by so much, without anything jumping. */
  const change = (by: number, make: () => void) => {
    make();
    if (side === 'bottom' || by === 0) return;
    const transform = body.style.transform;
    body.style.transform = `translateY(${-by}px)`;
    view.requestAnimationFrame(() =>
      view.requestAnimationFrame(() => {
        body.style.transform = transform;
      }),
    );
  };
  const moveEdge = () => {
    if (height === 0) return;
    for (const part of edgeParts(view, side, height)) {
      if (moved.has(part)) continue;
      const style = view.getComputedStyle(part);
      // What is fixed is moved as it is drawn; what sticks, by where it sticks, which counts only while it does.
      const name = style.position === 'fixed' ? 'translate' : side;
      moved.set(part, { name, value: part.style.getPropertyValue(name) });
      const at = Number.parseFloat(style.getPropertyValue(side)) || 0;
      part.style.setProperty(
        name,
        name === 'translate' ? `0 ${side === 'top' ? height : -height}px` : `${at + height}px`,
      );
    }
  };
  const makeRoom = () => {
    const next = box.offsetHeight;
    change(next - height, () => body.style.setProperty(property, `${own + next}px`, 'important'));
    height = next;
    moveEdge();
  };
  makeRoom();
  // The bar breaks its lines anew in another window, and a header may stick to the edge only once the page is scrolled.
  const resized = new view.ResizeObserver(() => {
    if (box.offsetHeight !== height) makeRoom();
  });
  resized.observe(box);
  view.addEventListener('scroll', moveEdge, { passive: true });
  return () => {
    resized.disconnect();
    view.removeEventListener('scroll', moveEdge);
    for (const [part, { name, value }] of moved) part.style.setProperty(name, value);
    change(-height, () => body.style.setProperty(property, ...before));
  };
}
