/**
 * Keeps the page from being scrolled from within the layer while the sheet says so (`--holds`), which may differ from
 * device to device.
 */
export function holdPage(layer: HTMLElement, card: HTMLElement): void {
  const view = layer.ownerDocument.defaultView as Window;
  const hold = (event: Event) => {
    if (view.getComputedStyle(layer).getPropertyValue('--holds') !== '1') return;
    // Whatever is scrolled beside the card, or in a card that is whole in sight, would scroll the page.
    if (!event.composedPath().includes(card) || card.scrollHeight <= card.clientHeight)
      event.preventDefault();
  };
  for (const kind of ['wheel', 'touchmove']) layer.addEventListener(kind, hold, { passive: false });
}
