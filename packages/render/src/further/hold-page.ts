/** Whatever is scrolled beside the card, or in a card that is whole in sight, would scroll the page: it is stopped. */
export function holdPage(layer: HTMLElement, card: HTMLElement): void {
  const hold = (event: Event) => {
    if (!event.composedPath().includes(card) || card.scrollHeight <= card.clientHeight)
      event.preventDefault();
  };
  for (const kind of ['wheel', 'touchmove']) layer.addEventListener(kind, hold, { passive: false });
}
