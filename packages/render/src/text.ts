import type { RichText, TextSpan } from '@velarium/contract';
import { fillText, isSafeAddress } from '@velarium/core/message';
import type { BlockContext } from './context.ts';
import { element } from './dom.ts';

type TextContext = Pick<BlockContext, 'document' | 'factOf' | 'onAction'>;

function drawSpan(span: TextSpan, { document, factOf, onAction }: TextContext): Node {
  let node: Node = document.createTextNode(fillText(span.text, factOf));
  const wrap = (name: 'b' | 'i' | 'span' | 'a', attributes: Record<string, string> = {}) => {
    node = element(document, name, attributes, [node]);
  };
  if (span.italic) wrap('i');
  if (span.bold) wrap('b');
  if (span.size) wrap('span', { class: span.size === 'small' ? 's' : 'l' });
  if (span.colour) {
    wrap('span', { 'data-colour': span.colour });
    // Through the object model, which a strict policy of the page allows; the schema lets only colours through.
    (node as HTMLElement).style.color = span.colour.startsWith('#') ? span.colour : `var(--${span.colour})`;
  }
  const address = span.link;
  if (address && isSafeAddress(address)) {
    wrap('a', { href: address, target: '_blank', rel: 'noopener' });
    node.addEventListener('click', () => onAction({ kind: 'link', address, newTab: true }, true));
  }
  return node;
}

/** Rich text as paragraphs or as the points of a list. */
export const renderRichText = (
  context: TextContext,
  content: RichText,
  name: 'p' | 'li' = 'p',
): HTMLElement[] =>
  content.map((paragraph) =>
    element(
      context.document,
      name,
      {},
      paragraph.map((span) => drawSpan(span, context)),
    ),
  );
