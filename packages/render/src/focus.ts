const FOCUSABLE = 'a[href],button:not([disabled]),input:not([disabled]),select,textarea,iframe';

/**
 * Focuses the box itself, so a screen reader reads its name and the page does not scroll. Only when it has been
 * painted: focusing what is not laid out yet makes the browser lay out the whole page at once.
 */
export function moveFocusIn(box: HTMLElement): void {
  const { requestAnimationFrame } = box.ownerDocument.defaultView as Window;
  const focus = () => box.focus({ preventScroll: true });
  requestAnimationFrame(() => requestAnimationFrame(focus));
}

/**
 * Keeps Tab inside a modal box. Returns the undo.
 * Source: ARIA Authoring Practices, dialog (modal) pattern.
 */
export function keepFocusInside(root: ShadowRoot, box: HTMLElement): () => void {
  const onTab = (event: KeyboardEvent) => {
    if (event.key !== 'Tab') return;
    const stops = [...box.querySelectorAll<HTMLElement>(FOCUSABLE)].filter(
      (stop) => stop.checkVisibility?.() !== false,
    );
    const first = stops[0];
    const last = stops.at(-1);
    if (!first || !last) return;
    const current = root.activeElement;
    const isAtEdge = event.shiftKey ? current === first || current === box : current === last;
    if (!isAtEdge) return;
    event.preventDefault();
    (event.shiftKey ? last : first).focus();
  };
  const page = root.ownerDocument;
  // The page may pull the focus away; a modal takes it back.
  const onFocus = (event: FocusEvent) => {
    // Velarium's own preview panel may be used beside it.
    if (!(event.target as Element).localName?.startsWith('velarium-')) box.focus({ preventScroll: true });
  };
  box.addEventListener('keydown', onTab);
  page.addEventListener('focusin', onFocus);
  return () => {
    box.removeEventListener('keydown', onTab);
    page.removeEventListener('focusin', onFocus);
  };
}
