/** Points along the edge at which fixed and sticky parts of the page are looked for, shares of the window's width. */
const ACROSS = [0.02, 0.25, 0.5, 0.75, 0.98];

type Side = 'top' | 'bottom';

/** How a part of the page was moved along: by which property, what that said before, and where the part stood. */
interface Moved {
  readonly name: string;
  readonly value: string;
  readonly at: number;
}

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
 * moves what is drawn but counts as no shift (Layout Instability: changes of a transform are none). A page that is
 * scrolled further than that is scrolled along instead, and nothing on it moves: a transform would take what is fixed to
 * the window with it. What stays at the edge is moved along, so that the bar covers nothing that could not be reached.
 * Returns the undo, which gives the room back in the same way.
 */
export function pushPage(box: HTMLElement, side: Side): () => void {
  const { body, defaultView } = box.ownerDocument;
  const view = defaultView as Window & typeof globalThis;
  const property = side === 'top' ? 'padding-top' : 'padding-bottom';
  const before = [body.style.getPropertyValue(property), body.style.getPropertyPriority(property)] as const;
  const own = Number.parseFloat(view.getComputedStyle(body).getPropertyValue(property)) || 0;
  const moved = new Map<HTMLElement, Moved>();
  let height = 0;
  /** The page's own transform while ours stands in its place, by how much ours moves, and which change is the last. */
  let transform: string | undefined;
  let heldBack = 0;
  let changes = 0;

  /** Changes the room by so much, without anything jumping. */
  const change = (by: number, make: () => void) => {
    const { scrollY } = view;
    make();
    if (side === 'bottom' || by === 0) return;
    if (scrollY > Math.abs(by)) {
      view.scrollTo({ top: scrollY + by, behavior: 'instant' });
      return;
    }
    transform ??= body.style.transform;
    heldBack += by;
    body.style.transform = `translateY(${-heldBack}px)`;
    changes += 1;
    const mine = changes;
    view.requestAnimationFrame(() =>
      view.requestAnimationFrame(() => {
        if (mine !== changes || transform === undefined) return;
        body.style.transform = transform;
        transform = undefined;
        heldBack = 0;
      }),
    );
  };
  const moveAlong = (part: HTMLElement, { name, at }: Moved) =>
    part.style.setProperty(
      name,
      name === 'translate' ? `0 ${side === 'top' ? height : -height}px` : `${at + height}px`,
    );
  const moveEdge = () => {
    if (height === 0) return;
    for (const part of edgeParts(view, side, height)) {
      if (moved.has(part)) continue;
      const style = view.getComputedStyle(part);
      // What is fixed is moved as it is drawn; what sticks, by where it sticks, which counts only while it does.
      const name = style.position === 'fixed' ? 'translate' : side;
      const at = Number.parseFloat(style.getPropertyValue(side)) || 0;
      moved.set(part, { name, value: part.style.getPropertyValue(name), at });
      moveAlong(part, moved.get(part) as Moved);
    }
  };
  const makeRoom = () => {
    const next = box.offsetHeight;
    const by = next - height;
    height = next;
    for (const [part, how] of moved) moveAlong(part, how);
    // What stays at the edge is looked for while it stands there: the room's transform takes it away for two frames.
    moveEdge();
    change(by, () => body.style.setProperty(property, `${own + next}px`, 'important'));
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
