import { scrolls } from '@velarium/core/message';

/** Whether an element uses a key itself, so that it scrolls nothing: to write, to choose, or to be pressed. */
const uses = ({ tagName }: Element, key: string): boolean =>
  /^(TEXTAREA|SELECT|IFRAME)$/.test(tagName) ||
  (tagName === 'INPUT' && !key.startsWith('Page')) ||
  (tagName === 'BUTTON' && key === ' ');

/**
 * Keeps the page from being scrolled while the sheet says so (`--holds`), which may differ from device to device: by
 * wheel, by finger, and by the keys that scroll. Returns the undo.
 */
export function holdPage(layer: HTMLElement, card: HTMLElement): () => void {
  const view = layer.ownerDocument.defaultView as Window;
  const hold = (event: Event) => {
    if (view.getComputedStyle(layer).getPropertyValue('--holds') !== '1') return;
    // Whoever enlarges the page, by wheel or by two fingers, does not scroll it.
    const { type, ctrlKey, touches } = event as Event & { ctrlKey?: boolean; touches?: TouchList };
    if ((type === 'wheel' && ctrlKey) || (touches && touches.length > 1)) return;
    const path = event.composedPath();
    const { key } = event as KeyboardEvent;
    if (key && (!scrolls(key) || uses(path[0] as Element, key))) return;
    // Whatever is scrolled beside the card, or in a card that is whole in sight, would scroll the page.
    if (!path.includes(card) || card.scrollHeight <= card.clientHeight) event.preventDefault();
  };
  for (const kind of ['wheel', 'touchmove']) layer.addEventListener(kind, hold, { passive: false });
  // On the way in: the message's keys go no further.
  view.addEventListener('keydown', hold, true);
  return () => view.removeEventListener('keydown', hold, true);
}
