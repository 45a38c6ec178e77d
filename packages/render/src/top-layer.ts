/**
 * Messages stand in the browser's top layer, where no z-index, transform or focus trap of the page reaches them. A modal
 * one is a modal dialog there: the browser itself keeps the focus in it and the page behind out of reach, and lets both go
 * should the page ever take the message's element away. Source: HTML, 6.12 (popover) and 4.11.4 (dialog).
 */

/** Undoes what the browser's own sheet makes of a dialog; the message's sheet comes after it. */
export const TOP_LAYER_CSS =
  ':where(dialog){all:unset}:modal{position:fixed!important}::backdrop{display:none}';

/** The page's own modal dialog, if one is open: all beside it is out of reach, so what is to be used stands in it. */
export function openDialog(document: Document): Element | null {
  try {
    return document.querySelector('dialog:modal');
  } catch {
    // A browser that knows no modal dialogs has none open.
    return null;
  }
}

/**
 * Focuses the box itself, so a screen reader reads its name and the page does not scroll, a modal one as the dialog it
 * is. Only when it has been painted: focusing what is not laid out yet makes the browser lay out the whole page at once.
 */
export function moveFocusIn(box: HTMLElement, modal?: HTMLDialogElement): void {
  const { requestAnimationFrame } = box.ownerDocument.defaultView as Window;
  const focus = () => {
    // Closed before it was painted, it is on its way out: the page has its focus back, and keeps it.
    if (box.closest('[inert]')) return;
    if (modal?.isConnected && !modal.open) modal.showModal?.();
    (box.querySelector<HTMLElement>('[data-focus]') ?? box).focus({ preventScroll: true });
  };
  requestAnimationFrame(() => requestAnimationFrame(focus));
}

/**
 * Keeps the events of a message its own: shortcuts, drags and swipes of the page do not hear of them. Keys are taken on
 * their way in, before any listener of the page; the others on their way out, when the message has dealt with them.
 * Returns the undo.
 *
 * @param isFirst Whether its keys are its own wherever the focus is: a modal message.
 */
export function ownEvents(host: HTMLElement, isFirst: boolean, onEscape: () => void): () => void {
  const view = host.ownerDocument.defaultView as Window;
  const stop = (event: Event) => event.stopPropagation();
  const own = (type: string) => host.addEventListener(type, stop, { passive: true });
  for (const name in host) if (/^on/.test(name)) own(name.slice(2));
  // The only kinds without a handler of that name.
  for (const part of ['start', 'update', 'end']) own(`composition${part}`);
  // What is pressed in a dialog of the page closes that one.
  const isTheirs = ({ target }: Event) =>
    target !== host && openDialog(host.ownerDocument)?.contains(target as Node);
  const onEscapeKey = (event: Event) => {
    const { key, isComposing } = event as KeyboardEvent;
    // While letters are composed Escape takes back what was typed.
    if (key !== 'Escape' || isComposing || event.type !== 'keydown') return;
    if (event.defaultPrevented || isTheirs(event)) return;
    // One Escape closes one thing.
    event.preventDefault();
    onEscape();
  };
  const onKey = (event: Event) => {
    if (event.target !== host && (!isFirst || isTheirs(event))) return;
    event.stopImmediatePropagation();
    onEscapeKey(event);
  };
  const kinds = ['keydown', 'keypress', 'keyup'];
  for (const kind of kinds) view.addEventListener(kind, onKey, true);
  // What the page makes nothing of closes a message that does not have the focus.
  view.addEventListener('keydown', onEscapeKey);
  return () => {
    for (const kind of kinds) view.removeEventListener(kind, onKey, true);
    view.removeEventListener('keydown', onEscapeKey);
  };
}
