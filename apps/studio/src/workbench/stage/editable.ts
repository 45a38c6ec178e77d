import {
  type Block,
  colourValueSchema,
  linkAddressSchema,
  type Message,
  type RichText,
} from '@velarium/contract';
import { changeBlock, findBlock, tidyRichText } from '@velarium/core';
import type { RenderedMessage } from '@velarium/render';
import { BLOCK_WORDS } from '../message/block-names.tsx';
import { createAfterPaint } from './after-paint.ts';
import { DRAG_SHEET } from './drag.ts';
import { watchChoice } from './mark-words.ts';

export interface EditHooks {
  readonly onEdit: (change: (message: Message) => Message, key: string) => void;
  readonly onSelect: (blockId: string | null) => void;
}

/** Marks of the stage itself, in a sheet beside the renderer's so that what is drawn stays what is shown. */
const STAGE_SHEET = `
[data-block]{cursor:pointer}
[data-block]:hover{outline:1px dashed #8d8674;outline-offset:3px}
.column{min-block-size:24px}
.column:empty{outline:1px dashed #8d8674;outline-offset:-1px}
.pic:empty,.film:not(:has(img)){min-block-size:110px;background:repeating-linear-gradient(135deg,#8d867433 0 8px,transparent 8px 16px)}
hr[data-block]{outline-offset:6px}
iframe{pointer-events:none}
.close{animation:none!important;opacity:1!important}
[data-block][data-selected]{outline:2px solid #a4471f;outline-offset:3px}
[contenteditable]{outline:none;cursor:text;min-inline-size:1ch}
[contenteditable]:empty::before{content:"Write here";opacity:.55}
`;

/** What may decide something on the text that is being typed. */
const IN_FRAME = ['keydown', 'pointerdown', 'focusout'];
const IN_STUDIO = ['keydown', 'pointerdown', 'blur', 'beforeunload'];

export interface Editing {
  /** Hands over what was typed and is still waiting to be. */
  readonly flush: () => void;
  readonly stop: () => void;
}

/** Turns the texts of a drawn message into fields one can type into. */
export function makeEditable(rendered: RenderedMessage, message: Message, hooks: EditHooks): Editing {
  const { root } = rendered;
  const view = root.ownerDocument.defaultView as Window & typeof globalThis;
  const sheet = new view.CSSStyleSheet();
  sheet.replaceSync(STAGE_SHEET + DRAG_SHEET);
  root.adoptedStyleSheets = [...root.adoptedStyleSheets, sheet];

  const typing = createAfterPaint();
  // Whatever comes next in this window finds the text as it stands there.
  for (const kind of IN_FRAME) root.ownerDocument.addEventListener(kind, typing.flush, true);
  for (const kind of IN_STUDIO) window.addEventListener(kind, typing.flush, true);

  // Only words are come to by Tab: what does nothing here is chosen in the list of blocks.
  for (const control of root.querySelectorAll<HTMLElement>('a, button, input, select, textarea, iframe'))
    control.tabIndex = -1;
  // On the stage nothing acts: links lead nowhere, labels do not move the focus, forms are not sent.
  root.addEventListener('click', (event) => event.preventDefault(), true);
  const choose = (event: Event) => {
    const inside = event
      .composedPath()
      .filter((one): one is HTMLElement => (one as HTMLElement).dataset?.block !== undefined);
    // What stands within a saved block is not the message's own; the saved block is.
    const known = inside.find((one) => findBlock(message, one.dataset.block as string));
    hooks.onSelect(known?.dataset.block ?? null);
  };
  root.addEventListener('pointerdown', choose);
  root.addEventListener('focusin', choose);
  for (const drawn of root.querySelectorAll<HTMLElement>('[data-block]')) {
    const blockId = drawn.dataset.block as string;
    const block = findBlock(message, blockId);
    if (!block) continue;
    const edit = (change: (block: Block) => Block, part: string) =>
      hooks.onEdit((current) => changeBlock(current, blockId, change), `${blockId}.${part}`);
    for (const { element, part, write } of editableParts(drawn, block)) {
      element.contentEditable = block.kind === 'text' ? 'true' : 'plaintext-only';
      element.setAttribute('role', 'textbox');
      element.setAttribute(
        'aria-label',
        part === 'words' ? (NAMES[block.kind] ?? BLOCK_WORDS[block.kind]) : part,
      );
      if (block.kind === 'text') {
        element.setAttribute('aria-multiline', 'true');
        watchChoice(element);
      }
      element.addEventListener('input', () =>
        typing.put(`${blockId}.${part}`, () => edit((current) => write(current, element), part)),
      );
      element.addEventListener('paste', pastePlain);
      element.addEventListener('keydown', keepTyping);
    }
  }
  return {
    flush: typing.flush,
    stop() {
      typing.flush();
      for (const kind of IN_FRAME) root.ownerDocument.removeEventListener(kind, typing.flush, true);
      for (const kind of IN_STUDIO) window.removeEventListener(kind, typing.flush, true);
    },
  };
}

const NAMES: Readonly<Partial<Record<Block['kind'], string>>> = { button: 'Button words' };

export function markSelected(rendered: RenderedMessage, blockId: string | null): void {
  for (const drawn of rendered.root.querySelectorAll<HTMLElement>('[data-block]')) {
    drawn.toggleAttribute('data-selected', drawn.dataset.block === blockId);
  }
}

interface EditablePart {
  readonly element: HTMLElement;
  readonly part: string;
  readonly write: (block: Block, element: HTMLElement) => Block;
}

const wordsOf = (element: HTMLElement) => (element.textContent ?? '').replace(/\s*\n\s*/g, ' ');

function editableParts(drawn: HTMLElement, block: Block): EditablePart[] {
  const find = (selector: string) => drawn.querySelector<HTMLElement>(selector);
  const part = (element: HTMLElement | null, name: string, write: EditablePart['write']): EditablePart[] =>
    element ? [{ element, part: name, write }] : [];
  switch (block.kind) {
    case 'heading':
      return part(find('a') ?? drawn, 'words', (b, e) => ({ ...b, text: wordsOf(e).slice(0, 300) }) as Block);
    case 'text':
      return part(drawn, 'words', (b, e) => ({ ...b, content: readRichText(e) }) as Block);
    case 'button':
      return part(
        find('[data-words]'),
        'words',
        (b, e) => ({ ...b, label: wordsOf(e).slice(0, 120) }) as Block,
      );
    case 'form':
      return [
        ...block.fields.flatMap((field) =>
          part(find(`[data-field="${field.id}"] [data-label]`), `Label of ${field.label}`, (b, e) =>
            b.kind === 'form'
              ? {
                  ...b,
                  fields: b.fields.map((f) =>
                    f.id === field.id ? { ...f, label: wordsOf(e).slice(0, 120) } : f,
                  ),
                }
              : b,
          ),
        ),
        ...part(
          find('[data-consent]'),
          'Consent',
          (b, e) => ({ ...b, consentText: wordsOf(e).slice(0, 600) }) as Block,
        ),
        ...part(
          find('[data-words]'),
          'Words on the send button',
          (b, e) => ({ ...b, submitLabel: wordsOf(e).slice(0, 120) }) as Block,
        ),
      ];
    case 'code':
      return [
        ...part(find('[data-code]'), 'Code', (b, e) => ({ ...b, code: wordsOf(e).slice(0, 60) }) as Block),
        ...part(
          find('[data-copy]'),
          'Words on the copy button',
          (b, e) => ({ ...b, copyLabel: wordsOf(e).slice(0, 60) }) as Block,
        ),
      ];
    case 'share':
      return block.ways.flatMap((way) =>
        part(find(`[data-way="${way.id}"]`), `Label of ${way.label}`, (b, e) =>
          b.kind === 'share'
            ? {
                ...b,
                ways: b.ways.map((one) =>
                  one.id === way.id ? { ...one, label: wordsOf(e).slice(0, 60) } : one,
                ),
              }
            : b,
        ),
      );
    default:
      return [];
  }
}

type SpanStyle = Omit<RichText[number][number], 'text'>;

/** What an element adds to the style of the words within it. */
function markOf(element: HTMLElement): SpanStyle {
  const address = element.tagName === 'A' ? (element.getAttribute('href') ?? '') : '';
  const colour = colourValueSchema.safeParse(element.dataset.colour);
  return {
    ...(/^(B|STRONG)$/.test(element.tagName) ? { bold: true as const } : {}),
    ...(/^(I|EM)$/.test(element.tagName) ? { italic: true as const } : {}),
    ...(address && linkAddressSchema.safeParse(address).success
      ? { link: address, ...(element.getAttribute('target') ? {} : { isHere: true as const }) }
      : {}),
    ...(colour.success ? { colour: colour.data } : {}),
    ...(element.classList.contains('s') ? { size: 'small' as const } : {}),
    ...(element.classList.contains('l') ? { size: 'large' as const } : {}),
  };
}

/** Reads what a browser's editing has made of a text back into a tree; what the tree cannot say is dropped. */
export function readRichText(element: HTMLElement): RichText {
  const paragraphs: RichText = [[]];
  const isBlock = (node: Element) => /^(P|DIV|LI)$/.test(node.tagName);
  const walk = (node: Node, style: SpanStyle) => {
    for (const child of node.childNodes) {
      if (child.nodeType === 3) {
        paragraphs.at(-1)?.push({ text: (child.textContent ?? '').replaceAll('\u00a0', ' '), ...style });
        continue;
      }
      if (child.nodeType !== 1) continue;
      const inner = child as HTMLElement;
      if (inner.tagName === 'BR') {
        // A lone break is how browsers hold an empty paragraph open.
        if (inner.nextSibling) paragraphs.push([]);
        continue;
      }
      if (
        isBlock(inner) &&
        (paragraphs.length > 1 || (paragraphs[0]?.length ?? 0) > 0 || child !== node.firstChild)
      ) {
        paragraphs.push([]);
      }
      walk(inner, { ...style, ...markOf(inner) });
    }
  };
  walk(element, {});
  return tidyRichText(paragraphs).slice(0, 60);
}

/** What is pasted loses its style: the message has its own. */
function pastePlain(event: ClipboardEvent): void {
  event.preventDefault();
  const text = event.clipboardData?.getData('text/plain') ?? '';
  (event.currentTarget as HTMLElement).ownerDocument.execCommand('insertText', false, text);
}

/** Inside a button the browser takes Space and Enter for presses; here they are letters. */
function keepTyping(event: KeyboardEvent): void {
  const element = event.currentTarget as HTMLElement;
  if (!element.closest('button, a')) return;
  if (event.key === ' ') {
    event.preventDefault();
    element.ownerDocument.execCommand('insertText', false, ' ');
  } else if (event.key === 'Enter') event.preventDefault();
}
