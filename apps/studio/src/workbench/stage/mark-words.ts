import type { ColourRole } from '@velarium/contract/values';
import { chosenIn } from './caret.ts';

export type Mark =
  | { readonly kind: 'bold' | 'italic' | 'plain' }
  | { readonly kind: 'link'; readonly address: string; readonly isHere: boolean }
  | { readonly kind: 'size'; readonly size: 'small' | 'large' }
  | { readonly kind: 'colour'; readonly colour: ColourRole };

/** Where words were chosen last: the text on the stage and the range in it. */
let chosen: { readonly text: HTMLElement; readonly range: Range } | undefined;

/** Remembers what is chosen in a text of the stage, so that a control outside can speak of it. */
export function watchChoice(text: HTMLElement): void {
  const note = () => {
    const range = chosenIn(text);
    if (range) chosen = { text, range: range.cloneRange() };
  };
  for (const kind of ['keyup', 'pointerup', 'focusout']) text.addEventListener(kind, note);
}

/** Marks the words chosen on the stage, if there are any; whether there are. */
export function markChosenWords(mark: Mark): boolean {
  if (!chosen?.text.isConnected || chosen.range.collapsed) return false;
  const { text, range } = chosen;
  const { ownerDocument } = text;
  const selection = ownerDocument.getSelection();
  selection?.removeAllRanges();
  selection?.addRange(range);
  const wrap = (name: string, dress: (made: HTMLElement) => void) => {
    const made = ownerDocument.createElement(name);
    dress(made);
    made.append(range.extractContents());
    range.insertNode(made);
    range.selectNodeContents(made);
  };
  switch (mark.kind) {
    case 'bold':
      wrap('b', () => {});
      break;
    case 'italic':
      wrap('i', () => {});
      break;
    case 'link':
      wrap('a', (made) => {
        made.setAttribute('href', mark.address);
        if (!mark.isHere) made.setAttribute('target', '_blank');
      });
      break;
    case 'size':
      wrap('span', (made) => {
        made.className = mark.size === 'small' ? 's' : 'l';
      });
      break;
    case 'colour':
      wrap('span', (made) => {
        made.dataset.colour = mark.colour;
        made.style.color = `var(--${mark.colour})`;
      });
      break;
    case 'plain': {
      const words = range.toString();
      range.deleteContents();
      const node = ownerDocument.createTextNode(words);
      const inside = closestMark(range.startContainer, text);
      if (inside) splitAround(inside, range, node);
      else range.insertNode(node);
      range.selectNodeContents(node);
    }
  }
  text.dispatchEvent(
    new (ownerDocument.defaultView as Window & typeof globalThis).InputEvent('input', { bubbles: true }),
  );
  return true;
}

/** The outermost mark a place stands in, within its text. */
function closestMark(node: Node, text: HTMLElement): HTMLElement | undefined {
  let found: HTMLElement | undefined;
  for (let at: Node | null = node; at && at !== text; at = at.parentNode) {
    if (at.nodeType === 1 && /^(B|I|A|SPAN|STRONG|EM)$/.test((at as HTMLElement).tagName))
      found = at as HTMLElement;
  }
  return found;
}

/** Puts unmarked words in the middle of a mark: what was before and after them keeps it. */
function splitAround(mark: HTMLElement, range: Range, words: Node): void {
  const after = mark.ownerDocument.createRange();
  after.setStart(range.startContainer, range.startOffset);
  after.setEndAfter(mark);
  mark.after(after.extractContents());
  mark.after(words);
}
