import { holdPage } from './hold-page.ts';
import { pushPage } from './push-page.ts';

/** How the page behind is treated on the device the message is on, as its sheet says. Returns the undo. */
export function treatPage(layer: HTMLElement, card: HTMLElement): () => void {
  const view = layer.ownerDocument.defaultView as Window;
  const letGo = layer.dataset.blocking === undefined ? () => {} : holdPage(layer, card);
  const side = view.getComputedStyle(layer).getPropertyValue('--pushes');
  const giveBack = side === 'top' || side === 'bottom' ? pushPage(card, side) : () => {};
  return () => {
    letGo();
    giveBack();
  };
}
