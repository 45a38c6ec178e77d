import { treatPage as treatBehind } from '@velarium/render/behind';
import { bringLetters } from '@velarium/render/letters';

/** Entry of the bundle for messages set in letters of the site's own. It comes last, and so in the place of the others' own. */
export function treatPage(layer: HTMLElement, card: HTMLElement): () => void {
  bringLetters(layer);
  return treatBehind(layer, card);
}
