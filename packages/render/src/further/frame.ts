import type { BlockOf } from '@velarium/contract';
import type { BlockContext } from '../context.ts';
import { element } from '../dom.ts';

/** Another page in a frame of its own. */
export function drawFrame(block: BlockOf<'frame'>, { document, isStill }: BlockContext): HTMLElement {
  const isWeb = /^https?:\/\//i.test(block.address);
  return element(document, 'div', {}, [
    element(document, 'iframe', {
      ...(isWeb && !isStill ? { src: block.address } : {}),
      title: block.title,
      loading: 'lazy',
      referrerpolicy: 'strict-origin-when-cross-origin',
      sandbox: 'allow-scripts allow-same-origin allow-forms allow-popups',
    }),
  ]);
}

/**
 * A person's own HTML in a frame without an origin: it can neither reach the page nor read its storage. The text goes
 * in through a blob, so that no attribute of ours ever holds markup.
 */
export function drawHtml(block: BlockOf<'html'>, { document, isStill, onUndo }: BlockContext): HTMLElement {
  const view = document.defaultView as Window & typeof globalThis;
  const frame = element(document, 'iframe', {
    title: block.title,
    sandbox: isStill ? '' : 'allow-scripts allow-forms allow-popups',
  });
  const text = `<!doctype html><meta charset="utf-8"><meta name="color-scheme" content="light"><style>body{margin:0;font:16px/1.5 system-ui,sans-serif}</style>${block.markup}`;
  const address = view.URL.createObjectURL(new view.Blob([text], { type: 'text/html' }));
  frame.src = address;
  onUndo(() => view.URL.revokeObjectURL(address));
  return element(document, 'div', {}, [frame]);
}
