import { scrolls } from '@velarium/core/message';

/** Where a key writes or chooses, it does not scroll. */
const TAKES_KEYS = /^(INPUT|TEXTAREA|SELECT|BUTTON|A|IFRAME)$/;

/**
 * Keeps the page from being scrolled while the sheet says so (`--holds`), which may differ from device to device: by
 * wheel, by finger, and by the keys that scroll. Returns the undo.
 */
export function holdPage(layer: HTMLElement, card: HTMLElement): () => void {
  const view = layer.ownerDocument.defaultView as Window;
  const hold = (event: Event) => {
    if (view.getComputedStyle(layer).getPropertyValue('--holds') !== '1') return;
    const path = event.composedPath();
    const { key } = event as KeyboardEvent;
    if (key && (!scrolls(key) || TAKES_KEYS.test((path[0] as Element).tagName))) return;
    // Whatever is scrolled beside the card, or in a card that is whole in sight, would scroll the page.
    if (!path.includes(card) || card.scrollHeight <= card.clientHeight) event.preventDefault();
  };
  for (const kind of ['wheel', 'touchmove']) layer.addEventListener(kind, hold, { passive: false });
  // On the way in: the message's keys go no further.
  view.addEventListener('keydown', hold, true);
  return () => view.removeEventListener('keydown', hold, true);
}
