import type { Action, Block, RichText } from '@velarium/contract';
import { isSafeAddress } from '@velarium/core/message';
import { element } from './dom.ts';
import { renderForm, type SendForm } from './form.ts';

export interface BlockContext {
  readonly document: Document;
  readonly onAction: (action: Action) => void;
  readonly onSend: SendForm;
}

/** Draws one block. Its root carries `data-block`, by which the Workbench finds it. */
export function renderBlock(block: Block, context: BlockContext): HTMLElement {
  const drawn = draw(block, context);
  drawn.dataset.block = block.id;
  return drawn;
}

function draw(block: Block, context: BlockContext): HTMLElement {
  const { document } = context;
  switch (block.kind) {
    case 'heading':
      return element(document, 'h2', {}, [block.text]);
    case 'text':
      return element(document, 'div', { class: block.size }, renderRichText(document, block.content));
    case 'button':
      return renderButton(block.label, block.action, context);
    case 'form':
      return renderForm(block, document, context.onSend);
  }
}

/** Rich text as paragraphs; the only elements made are `p`, `b` and `i`. */
export function renderRichText(document: Document, content: RichText): HTMLElement[] {
  return content.map((paragraph) =>
    element(
      document,
      'p',
      {},
      paragraph.map((span) => {
        let node: Node = document.createTextNode(span.text);
        if (span.italic) node = element(document, 'i', {}, [node]);
        if (span.bold) node = element(document, 'b', {}, [node]);
        return node;
      }),
    ),
  );
}

function renderButton(label: string, action: Action, { document, onAction }: BlockContext): HTMLElement {
  const isLink = action.kind === 'link' && isSafeAddress(action.address);
  const drawn = isLink
    ? element(document, 'a', {
        class: 'act',
        href: action.address,
        ...(action.newTab ? { target: '_blank', rel: 'noopener' } : {}),
      })
    : element(document, 'button', { class: 'act', type: 'button' });
  drawn.append(element(document, 'span', { 'data-words': '' }, [label]));
  // A link without an address can only close.
  drawn.addEventListener('click', () => onAction(isLink ? action : { kind: 'close' }));
  return drawn;
}
