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
  return linked(node, span.link, span.isHere, { document, onAction });
}

/** Words that lead somewhere, or the words alone where the address is none. */
export function linked(
  words: Node,
  address: string | undefined,
  isHere: boolean | undefined,
  { document, onAction }: Pick<BlockContext, 'document' | 'onAction'>,
): Node {
  if (!address || !isSafeAddress(address)) return words;
  const link = element(
    document,
    'a',
    { href: address, ...(isHere ? {} : { target: '_blank', rel: 'noopener' }) },
    [words],
  );
  link.addEventListener('click', () => onAction({ kind: 'link', address, newTab: !isHere }, true));
  return link;
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
