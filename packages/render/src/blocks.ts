import type { Block, BlockOf } from '@velarium/contract';
import { fillText, isSafeAddress } from '@velarium/core/message';
import type { BlockContext } from './context.ts';
import { element } from './dom.ts';
import { drawPicture } from './picture.ts';
import { linked, renderRichText } from './text.ts';

/** Draws one block. Its root carries `data-block`, by which its sheet and the Workbench find it. */
export function renderBlock(block: Block, context: BlockContext): HTMLElement {
  const drawn = draw(block, context);
  drawn.dataset.block = block.id;
  return drawn;
}

function draw(block: Block, context: BlockContext): HTMLElement {
  const { document, factOf } = context;
  switch (block.kind) {
    case 'heading':
      return element(document, 'h2', {}, [
        linked(
          document.createTextNode(fillText(block.text, factOf)),
          block.link?.address,
          block.link?.isHere,
          context,
        ),
      ]);
    case 'text':
      return renderText(block, context);
    case 'picture':
      return renderPicture(block, context);
    case 'button':
      return renderButton(block, context);
    case 'form':
      return context.form?.drawForm(block, context) ?? element(document, 'div');
    case 'divider':
      return element(document, 'hr');
    case 'space':
      return element(document, 'div');
    case 'columns':
      return element(
        document,
        'div',
        { class: 'columns' },
        block.columns.map((column) =>
          element(
            document,
            'div',
            { class: 'column', 'data-column': column.id },
            column.blocks.map((inner) => renderBlock(inner, context)),
          ),
        ),
      );
    default:
      return context.further?.drawBlock(block, context) ?? element(document, 'div');
  }
}

function renderText({ size, marks, content }: BlockOf<'text'>, context: BlockContext): HTMLElement {
  const isList = marks !== 'none';
  return element(
    context.document,
    isList ? (marks === 'number' ? 'ol' : 'ul') : 'div',
    { class: `${size} ${marks}` },
    renderRichText(context, content, isList ? 'li' : 'p'),
  );
}

function renderPicture(block: BlockOf<'picture'>, context: BlockContext): HTMLElement {
  const { document, onAction } = context;
  const isLink = isSafeAddress(block.address);
  const root = isLink
    ? element(document, 'a', { class: 'pic', href: block.address })
    : element(document, 'div', { class: 'pic' });
  if (block.picture) root.append(...drawPicture(block.picture, block.isDecoration ? '' : block.alt, context));
  if (isLink)
    root.addEventListener('click', () => onAction({ kind: 'link', address: block.address, newTab: false }));
  return root;
}

function renderButton(
  { label, action, tone, attention }: BlockOf<'button'>,
  context: BlockContext,
): HTMLElement {
  const { document, onAction, factOf } = context;
  const address =
    action.kind === 'link' ? (context.further?.addressFor(action, window) ?? action.address) : '';
  const isLink = isSafeAddress(address);
  const look = {
    class: `act ${attention}`,
    'data-tone': tone,
    ...(/close|link|refuse/.test(action.kind) ? { 'data-out': '' } : {}),
  };
  const drawn = isLink
    ? element(document, 'a', {
        ...look,
        href: address,
        ...(action.kind === 'link' && action.newTab ? { target: '_blank', rel: 'noopener' } : {}),
      })
    : element(document, 'button', { ...look, type: 'button' });
  drawn.append(element(document, 'span', { 'data-words': '' }, [fillText(label, factOf)]));
  // A link without an address can only close.
  drawn.addEventListener('click', () =>
    onAction(action.kind === 'link' && !isLink ? { kind: 'close' } : action),
  );
  return drawn;
}
