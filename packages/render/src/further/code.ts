import type { BlockOf } from '@velarium/contract';
import { fillText } from '@velarium/core/message';
import type { BlockContext } from '../context.ts';
import { copyText } from '../copy-text.ts';
import { element } from '../dom.ts';

/** A code beside a button that copies it; what happened is said, to screen readers too. */
export function drawCode(block: BlockOf<'code'>, context: BlockContext): HTMLElement {
  const { document } = context;
  const code = fillText(block.code, context.factOf);
  const words = element(document, 'span', { 'data-copy': '', 'aria-live': 'polite' }, [block.copyLabel]);
  const copy = element(document, 'button', { class: 'act', type: 'button', 'data-tone': 'main' }, [words]);
  const shown = element(document, 'output', { 'data-code': '' }, [code]);
  copy.addEventListener('click', async () => {
    context.onAction({ kind: 'copy', text: code });
    if (await copyText(code, copy)) {
      words.textContent = block.copiedLabel;
      return;
    }
    // Where copying is refused the code is at least chosen, one key away.
    document.defaultView?.getSelection()?.selectAllChildren(shown);
  });
  return element(document, 'div', { class: 'code' }, [shown, copy]);
}
