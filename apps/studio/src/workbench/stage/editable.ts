import type { Block, Message, RichText } from '@velarium/contract';
import { changeBlock, tidyRichText } from '@velarium/core';
import type { RenderedMessage } from '@velarium/render';

export interface EditHooks {
  readonly onEdit: (change: (message: Message) => Message, key: string) => void;
  readonly onSelect: (blockId: string) => void;
}

const NAMES: Readonly<Record<Block['kind'], string>> = {
  heading: 'Heading',
  text: 'Text',
  button: 'Button words',
  form: 'Form',
};

/** Marks of the stage itself, in a sheet beside the renderer's so that what is drawn stays what is shown. */
const STAGE_SHEET = `
[data-block]{cursor:text}
[data-block]:hover{outline:1px dashed #8d8674;outline-offset:3px}
[data-block][data-selected]{outline:2px solid #a4471f;outline-offset:3px}
[contenteditable]{outline:none;cursor:text;min-inline-size:1ch}
[contenteditable]:empty::before{content:"Write here";opacity:.55}
`;

/** Turns the texts of a drawn message into fields one can type into. */
export function makeEditable(rendered: RenderedMessage, message: Message, hooks: EditHooks): void {
  const { root } = rendered;
  const view = root.ownerDocument.defaultView as Window & typeof globalThis;
  const sheet = new view.CSSStyleSheet();
  sheet.replaceSync(STAGE_SHEET);
  root.adoptedStyleSheets = [...root.adoptedStyleSheets, sheet];

  // On the stage nothing acts: links lead nowhere, labels do not move the focus, forms are not sent.
  root.addEventListener('click', (event) => event.preventDefault(), true);
  for (const drawn of root.querySelectorAll<HTMLElement>('[data-block]')) {
    const blockId = drawn.dataset.block as string;
    const block = message.steps.flatMap((step) => step.blocks).find(({ id }) => id === blockId);
    if (!block) continue;
    drawn.addEventListener('focusin', () => hooks.onSelect(blockId));
    drawn.addEventListener('pointerdown', () => hooks.onSelect(blockId));
    const edit = (change: (block: Block) => Block, part: string) =>
      hooks.onEdit((current) => changeBlock(current, blockId, change), `${blockId}.${part}`);
    for (const { element, part, write } of editableParts(drawn, block)) {
      element.contentEditable = block.kind === 'text' ? 'true' : 'plaintext-only';
      element.setAttribute('role', 'textbox');
      element.setAttribute('aria-label', part === 'words' ? NAMES[block.kind] : part);
      if (block.kind === 'text') element.setAttribute('aria-multiline', 'true');
      element.addEventListener('input', () => edit((current) => write(current, element), part));
      element.addEventListener('paste', pastePlain);
      element.addEventListener('keydown', keepTyping);
    }
  }
}

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
      return part(drawn, 'words', (b, e) => ({ ...b, text: wordsOf(e).slice(0, 300) }) as Block);
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
  }
}

/** Reads what a browser's editing has made of a text back into a tree; anything but words, bold and italic is dropped. */
export function readRichText(element: HTMLElement): RichText {
  const paragraphs: RichText = [[]];
  const isBlock = (node: Element) => /^(P|DIV)$/.test(node.tagName);
  const walk = (node: Node, style: { bold?: true; italic?: true }) => {
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
      walk(inner, {
        ...style,
        ...(/^(B|STRONG)$/.test(inner.tagName) ? { bold: true as const } : {}),
        ...(/^(I|EM)$/.test(inner.tagName) ? { italic: true as const } : {}),
      });
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
