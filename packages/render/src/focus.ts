const FOCUSABLE = 'a[href],button:not([disabled]),input:not([disabled])';

/** Focuses the box itself, so a screen reader reads its name and the page does not scroll. */
export function moveFocusIn(box: HTMLElement): void {
  box.focus({ preventScroll: true });
}

/**
 * Keeps Tab inside a modal box. Returns the undo.
 * Source: ARIA Authoring Practices, dialog (modal) pattern.
 */
export function keepFocusInside(root: ShadowRoot, box: HTMLElement): () => void {
  const onTab = (event: KeyboardEvent) => {
    if (event.key !== 'Tab') return;
    const stops = [...box.querySelectorAll<HTMLElement>(FOCUSABLE)];
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
    if (event.target !== root.host) box.focus({ preventScroll: true });
  };
  box.addEventListener('keydown', onTab);
  page.addEventListener('focusin', onFocus);
  return () => {
    box.removeEventListener('keydown', onTab);
    page.removeEventListener('focusin', onFocus);
  };
}
