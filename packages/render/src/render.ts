import type { CloseWay, Message, Step } from '@velarium/contract';
import { isInterrupting } from '@velarium/core/message';
import { renderBlock } from './blocks.ts';
import type { BlockContext } from './context.ts';
import { element } from './dom.ts';
import { moveFocusIn, openDialog, ownEvents, TOP_LAYER_CSS } from './top-layer.ts';

export interface RenderOptions
  extends Pick<
    BlockContext,
    | 'onAction'
    | 'onSend'
    | 'onWriting'
    | 'factOf'
    | 'pictures'
    | 'pictureBase'
    | 'form'
    | 'further'
    | 'clock'
    | 'countsAddress'
    | 'language'
    | 'words'
  > {
  /** The message's sheet, from `sheetOf`. */
  readonly sheet: string;
  /** Where the message's host element is put. */
  readonly parent: Element;
  readonly onClose: (way: CloseWay) => void;
  /** The part that holds the page behind still or makes room in it, where the message's sheet says so. Returns the undo. */
  readonly treatPage?: ((layer: HTMLElement, card: HTMLElement) => () => void) | undefined;
  /** On the Workbench: draws without taking the focus, without entrance and without acting. */
  readonly isStill?: boolean;
}

export interface RenderedMessage {
  /** The element that stands in the page; its shadow root holds the message. */
  readonly host: HTMLElement;
  readonly root: ShadowRoot;
  readonly box: HTMLElement;
  showStep(stepId: string): void;
  /** Takes the message away and gives the focus back, at once or with its exit. Safe to repeat. */
  remove(how?: { readonly isPlayed: boolean; readonly onGone: () => void }): void;
}

/** Past this a close button that comes late must have come; then a way out is looked for. */
const WAY_OUT_MS = 6000;
/** Past its own time an exit is cut off: a hidden page plays nothing. */
const EXIT_GRACE_MS = 100;

/** Draws a message in a shadow root of its own, at its first step. */
export function renderMessage(message: Message, options: RenderOptions): RenderedMessage {
  const { parent, isStill = false, onClose } = options;
  const { format, close, motion } = message;
  const document = parent.ownerDocument;
  const view = document.defaultView as Window & typeof globalThis;
  const isModal = isInterrupting(format);
  const focusedBefore = document.activeElement;

  const host = document.createElement('velarium-message');
  host.popover = 'manual';
  const root = host.attachShadow({ mode: 'open' });
  root.adoptedStyleSheets = [TOP_LAYER_CSS, options.sheet].map((css) => {
    const sheet = new view.CSSStyleSheet();
    sheet.replaceSync(css);
    return sheet;
  });

  const layer = element(document, 'dialog', {
    // The box is what is read out as the dialog, by the name of what it says.
    role: 'none',
    class: 'layer',
    'data-format': format,
    // What the page declares of its language counts; a style of the page does not.
    dir: message.direction ?? (document.documentElement.dir || 'ltr'),
    ...(options.language ? { lang: options.language } : {}),
  });
  const body = element(document, 'div', { class: 'inner' });
  const card = element(document, 'div', { class: 'card' });
  const box = element(
    document,
    'div',
    {
      class: 'box',
      tabindex: '-1',
      role: isModal ? 'dialog' : 'region',
      ...(isModal ? { 'aria-modal': 'true' } : {}),
    },
    [card],
  );
  if (isModal) {
    layer.dataset.blocking = '';
    const backdrop = element(document, 'div', { class: 'backdrop' });
    // Where it does not close the message, its sheet lets clicks pass it by.
    backdrop.addEventListener('click', () => onClose('backdrop'));
    layer.append(backdrop);
  }
  if (!isStill) layer.dataset.entering = '';
  layer.append(box);
  root.append(layer);

  /** Of the message, and of the step that is shown. */
  const undo: (() => void)[] = [];
  const undoStep: (() => void)[] = [];
  const undoAll = (list: (() => void)[]) => {
    for (const take of list.splice(0)) take();
  };

  /** The law of the way out, on the page itself: where nothing that leads out can be seen, the button is, whatever its style says. */
  const keepWayOut = () => {
    const isSeen = (way: HTMLElement) =>
      way.offsetWidth > 0 &&
      way.checkVisibility?.({ opacityProperty: true, visibilityProperty: true }) !== false;
    const ways = box.querySelectorAll<HTMLElement>('.close,[data-out]');
    if (![...ways].some(isSeen)) (box.lastElementChild as Element).className = 'last';
  };
  const drawStep = (step: Step) => {
    undoAll(undoStep);
    if (!isStill) {
      const timer = setTimeout(keepWayOut, WAY_OUT_MS);
      undoStep.push(() => clearTimeout(timer));
    }
    const context: BlockContext = {
      ...options,
      document,
      isStill,
      onUndo: (take) => undoStep.push(take),
    };
    const button = element(
      document,
      'button',
      {
        class: 'close',
        type: 'button',
        'aria-label': close.sign === 'cross' ? (options.words?.close ?? 'Close') : close.word,
      },
      [close.sign === 'cross' ? element(document, 'i') : close.word],
    );
    button.addEventListener('click', () => onClose('button'));
    const blocks = step.blocks.map((block) => ({ block, drawn: renderBlock(block, context) }));
    // A picture that is a side of the box on any device stands beside the words; its sheet says where.
    const aside = blocks.find(
      ({ block: { kind, style } }) =>
        kind === 'picture' &&
        [style.all, style.tablet, style.mobile].some(({ side }) => side && side !== 'flow'),
    );
    const heading = blocks.find(({ drawn }) => drawn.tagName === 'H2')?.drawn;
    if (heading) heading.id = 'title';
    box.setAttribute(heading ? 'aria-labelledby' : 'aria-label', heading ? 'title' : message.label);
    box.removeAttribute(heading ? 'aria-label' : 'aria-labelledby');
    body.replaceChildren(...blocks.filter((one) => one !== aside).map(({ drawn }) => drawn));
    card.replaceChildren(...(aside ? [aside.drawn] : []), body);
    // Last in the order of the page, so reading and tabbing begin with the message itself.
    box.replaceChildren(card, button);
  };
  drawStep(message.steps[0] as Step);

  const mount = () => {
    const place = (among: Element) => {
      among.append(host);
      if (!isStill && !isModal) host.showPopover?.();
    };
    const dialog = isStill || isModal ? null : openDialog(document);
    place(dialog ?? parent);
    if (isStill) return;
    // It outlives the page's dialog that it stands in.
    const leaveDialog = () => place(parent);
    dialog?.addEventListener('close', leaveDialog);
    undo.push(() => dialog?.removeEventListener('close', leaveDialog));
    if (options.treatPage) undo.push(options.treatPage(layer, card));
    undo.push(ownEvents(host, isModal, () => onClose('escape')));
    if (isModal) {
      // The gesture back and other ways of a browser's own.
      layer.addEventListener('cancel', (event) => {
        event.preventDefault();
        onClose('escape');
      });
      moveFocusIn(box, layer);
    }
    if (close.afterSeconds) {
      const timer = setTimeout(() => onClose('time'), close.afterSeconds * 1000);
      undo.push(() => clearTimeout(timer));
      // Whoever has begun to write is not interrupted.
      body.addEventListener('input', () => clearTimeout(timer));
    }
  };
  // Nothing of it is there before its delay is over.
  const { delayMs } = motion.enter;
  if (isStill || !delayMs) mount();
  else {
    const timer = setTimeout(mount, delayMs);
    undo.push(() => clearTimeout(timer));
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
    remove(how) {
      undoAll(undo);
      undoAll(undoStep);
      const hadFocus = document.activeElement === host;
      // The page is within reach again while the message goes.
      layer.close?.();
      let isGone = false;
      const leave = () => {
        if (isGone) return;
        isGone = true;
        host.remove();
        how?.onGone();
      };
      if (how?.isPlayed && motion.leave.kind !== 'none') {
        layer.setAttribute('inert', '');
        delete layer.dataset.entering;
        layer.dataset.leaving = '';
        box.addEventListener('animationend', leave);
        setTimeout(leave, motion.leave.ms + motion.leave.delayMs + EXIT_GRACE_MS);
      } else leave();
      if (hadFocus || isModal) (focusedBefore as HTMLElement | null)?.focus?.({ preventScroll: true });
    },
  };
}
