import type { Action, CloseWay, Message, Step } from '@velarium/contract';
import { isInterrupting } from '@velarium/core/message';
import { renderBlock } from './blocks.ts';
import { crossSign, element } from './dom.ts';
import { keepFocusInside, moveFocusIn } from './focus.ts';
import type { SendForm } from './form.ts';
import { styleSheetText } from './styles.ts';

export interface RenderOptions {
  /** Where the message's host element is put. */
  readonly parent: Element;
  readonly onClose: (way: CloseWay) => void;
  readonly onAction: (action: Action) => void;
  readonly onSend: SendForm;
  /** On the Workbench: draws without taking the focus, without entrance and without acting. */
  readonly isStill?: boolean;
}

export interface RenderedMessage {
  /** The element that stands in the page; its shadow root holds the message. */
  readonly host: HTMLElement;
  readonly root: ShadowRoot;
  readonly box: HTMLElement;
  showStep(stepId: string): void;
  /** Takes the message away and gives the focus back. Safe to repeat. */
  remove(): void;
}

/** Draws a message in a shadow root of its own, at its first step. */
export function renderMessage(message: Message, options: RenderOptions): RenderedMessage {
  const { parent, isStill = false } = options;
  const document = parent.ownerDocument;
  const view = document.defaultView as Window & typeof globalThis;
  const isModal = isInterrupting(message.format);
  const focusedBefore = document.activeElement;

  const host = document.createElement('velarium-message');
  const root = host.attachShadow({ mode: 'open' });
  const sheet = new view.CSSStyleSheet();
  sheet.replaceSync(styleSheetText(message));
  root.adoptedStyleSheets = [sheet];

  const layer = element(document, 'div', {
    class: 'layer',
    'data-format': message.format,
    // What the page declares of its language counts; a style of the page does not.
    dir: document.documentElement.dir || 'ltr',
  });
  const box = element(document, 'div', {
    class: 'box',
    'data-format': message.format,
    tabindex: '-1',
    role: isModal ? 'dialog' : 'region',
    ...(isModal ? { 'aria-modal': 'true' } : {}),
  });
  if (isModal) {
    layer.dataset.blocking = '';
    const backdrop = element(document, 'div', { class: 'backdrop' });
    backdrop.addEventListener('click', () => options.onClose('backdrop'));
    layer.append(backdrop);
  }
  if (!isStill) layer.dataset.entering = '';
  layer.append(box);
  root.append(layer);

  const drawStep = (step: Step) => {
    const close = element(document, 'button', { class: 'close', type: 'button', 'aria-label': 'Close' }, [
      crossSign(document),
    ]);
    close.addEventListener('click', () => options.onClose('button'));
    const blocks = step.blocks.map((block) => renderBlock(block, { ...options, document }));
    const heading = blocks.find((block) => block.tagName === 'H2');
    if (heading) heading.id = 'title';
    box.setAttribute(heading ? 'aria-labelledby' : 'aria-label', heading ? 'title' : message.label);
    box.removeAttribute(heading ? 'aria-label' : 'aria-labelledby');
    // Last in the order of the page, so reading and tabbing begin with the message itself.
    box.replaceChildren(...blocks, close);
  };
  drawStep(message.steps[0] as Step);
  parent.append(host);

  const undo: (() => void)[] = [];
  if (!isStill) {
    if (isModal) {
      undo.push(keepFocusInside(root, box));
      moveFocusIn(box);
    }
    const onKey = (event: KeyboardEvent) => {
      if (event.key === 'Escape' && !event.defaultPrevented) options.onClose('escape');
    };
    document.addEventListener('keydown', onKey);
    undo.push(() => document.removeEventListener('keydown', onKey));
  }

  return {
    host,
    root,
    box,
    showStep(stepId) {
      const step = message.steps.find(({ id }) => id === stepId);
      if (!step) return;
      drawStep(step);
      if (!isStill) moveFocusIn(box);
    },
    remove() {
      for (const take of undo.splice(0)) take();
      const hadFocus = document.activeElement === host;
      host.remove();
      if (hadFocus || isModal) (focusedBefore as HTMLElement | null)?.focus?.({ preventScroll: true });
    },
  };
}
