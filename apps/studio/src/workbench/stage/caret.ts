import type { RenderedMessage } from '@velarium/render';

/** Where somebody is typing in a drawn message, said so that its next drawing has the same place. */
export interface Caret {
  readonly blockId: string;
  /** Which text of the block, counted. */
  readonly text: number;
  /** The letters before both ends of what is chosen; alike where nothing is. */
  readonly from: number;
  readonly to: number;
}

const TEXTS = '[contenteditable]';
const textsOf = (root: ShadowRoot, blockId: string) => {
  const block = `[data-block="${CSS.escape(blockId)}"]`;
  return [...root.querySelectorAll<HTMLElement>(`${block}:is(${TEXTS}), ${block} ${TEXTS}`)];
};

/** The place in which somebody types; none where nobody does. */
export function caretOf({ root }: RenderedMessage): Caret | undefined {
  // A window that was left still says which of its texts was the last.
  if (!root.ownerDocument.hasFocus()) return undefined;
  const typedIn = root.activeElement?.closest<HTMLElement>(TEXTS);
  const blockId = typedIn?.closest<HTMLElement>('[data-block]')?.dataset.block;
  if (!typedIn || blockId === undefined) return undefined;
  const range = chosenIn(typedIn);
  const lettersBefore = (node: Node, offset: number) => {
    const before = typedIn.ownerDocument.createRange();
    before.selectNodeContents(typedIn);
    before.setEnd(node, offset);
    return before.toString().length;
  };
  return {
    blockId,
    text: textsOf(root, blockId).indexOf(typedIn),
    from: range ? lettersBefore(range.startContainer, range.startOffset) : 0,
    to: range ? lettersBefore(range.endContainer, range.endOffset) : 0,
  };
}

/** Goes on typing where it was, as far as the words still reach; nothing happens where the text is gone. */
export function putCaret({ root }: RenderedMessage, { blockId, text, from, to }: Caret): void {
  const element = textsOf(root, blockId)[text];
  if (!element) return;
  element.focus({ preventScroll: true });
  const range = element.ownerDocument.createRange();
  range.setStart(...placeOf(element, from));
  range.setEnd(...placeOf(element, to));
  const selection = element.ownerDocument.getSelection();
  selection?.removeAllRanges();
  selection?.addRange(range);
}

/** What is chosen in a text of the stage. */
export function chosenIn(text: HTMLElement): Range | undefined {
  const root = text.getRootNode() as ShadowRoot & { getSelection?: () => Selection | null };
  const selection = root.getSelection?.() ?? text.ownerDocument.getSelection();
  const range = selection?.rangeCount ? selection.getRangeAt(0) : undefined;
  return range && text.contains(range.commonAncestorContainer) ? range : undefined;
}

/** The node and offset after so many letters of a text, or its end. */
function placeOf(element: HTMLElement, letters: number): [Node, number] {
  const nodes = element.ownerDocument.createTreeWalker(element, 4 /* texts */);
  let left = letters;
  let last: [Node, number] = [element, element.childNodes.length];
  while (nodes.nextNode()) {
    const { length } = nodes.currentNode as Text;
    if (left <= length) return [nodes.currentNode, left];
    left -= length;
    last = [nodes.currentNode, length];
  }
  return last;
}
