import type { Block, BlockKind, Message } from '@velarium/contract';
import { blocksOfStep, changeBlock, stepName } from '../message/walk.ts';
import { markedText, richTextOf } from './marked-text.ts';

/** Gives a text for each text, by the part of the block it is. */
type ByPart = (part: string, text: string) => string;

/** The block with each of its texts changed. What is not read out or shown, as a value or an address, is no text. */
function changeTexts(block: Block, by: ByPart): Block {
  switch (block.kind) {
    case 'heading':
      return { ...block, text: by('text', block.text) };
    case 'text': {
      const marked = markedText(block.content);
      const text = by('text', marked);
      return text === marked ? block : { ...block, content: richTextOf(text, block.content) };
    }
    case 'picture':
      return block.isDecoration ? block : { ...block, alt: by('alt', block.alt) };
    case 'button':
      return { ...block, label: by('label', block.label) };
    case 'form':
      return {
        ...block,
        fields: block.fields.map((field) =>
          field.kind === 'hidden'
            ? field
            : {
                ...field,
                label: by(`${field.id}.label`, field.label),
                placeholder: by(`${field.id}.placeholder`, field.placeholder),
                ...(field.options
                  ? { options: field.options.map((option, n) => by(`${field.id}.option-${n + 1}`, option)) }
                  : {}),
                ...(field.errorText ? { errorText: by(`${field.id}.error`, field.errorText) } : {}),
              },
        ),
        consentText: by('consent', block.consentText),
        submitLabel: by('send', block.submitLabel),
      };
    case 'code':
      return {
        ...block,
        copyLabel: by('copy', block.copyLabel),
        copiedLabel: by('copied', block.copiedLabel),
      };
    case 'countdown':
      return block.whenOver === 'words' ? { ...block, overText: by('over', block.overText) } : block;
    case 'share':
      return { ...block, ways: block.ways.map((way) => ({ ...way, label: by(way.id, way.label) })) };
    case 'count':
      return { ...block, text: by('text', block.text) };
    case 'film':
    case 'frame':
    case 'html':
      return { ...block, title: by('title', block.title) };
    case 'saved':
    case 'divider':
    case 'space':
    case 'columns':
      return block;
  }
}

/** What a part of a block is called: by what it is, or else by the last word of its key. */
const PART_WORDS: Readonly<Record<string, string>> = {
  'heading.text': 'Heading',
  'text.text': 'Text',
  'count.text': 'Count',
  'button.label': 'Button',
  'form.label': 'Field',
  alt: 'What the picture shows',
  placeholder: 'Example in the field',
  error: 'When the answer does not fit',
  consent: 'Consent',
  send: 'Button that sends',
  copy: 'Button that copies',
  copied: 'Once it is copied',
  over: 'When it is over',
  title: 'Name for screen readers',
};

function partWords(kind: BlockKind, part: string): string {
  const last = part.split('.').at(-1) ?? '';
  if (last.startsWith('option-')) return `Choice ${last.slice('option-'.length)}`;
  return kind === 'share' ? 'A way to share' : (PART_WORDS[`${kind}.${last}`] ?? PART_WORDS[last] ?? 'Words');
}

/** The message's own name and the word on its close button belong to no block. */
const NAME_KEY = '.name';
const CLOSE_KEY = '.close';

/** One text of a message, as it is written in the language it was made in. */
export interface MessageText {
  readonly key: string;
  readonly text: string;
  /** Where it stands: the step, and what it is. */
  readonly step: string;
  readonly what: string;
}

/** The message with each of its texts changed, by key. Its saved blocks must have been put in. */
export function changeMessageTexts(message: Message, by: (key: string, text: string) => string): Message {
  let changed: Message = {
    ...message,
    label: by(NAME_KEY, message.label),
    close:
      message.close.sign === 'cross'
        ? message.close
        : { ...message.close, word: by(CLOSE_KEY, message.close.word) },
  };
  // Columns come before what stands in them, so each block is changed where it is.
  for (const step of message.steps)
    for (const { id } of blocksOfStep(step))
      changed = changeBlock(changed, id, (block) =>
        changeTexts(block, (part, text) => by(`${id}.${part}`, text)),
      );
  return changed;
}

/** Every text of a message that somebody reads or hears, in the order they stand. Its saved blocks must have been put in. */
export function messageTexts(message: Message): MessageText[] {
  const all: MessageText[] = [];
  const add = (step: string, what: string, key: string, text: string) => {
    if (text.trim() !== '') all.push({ key, text, step, what });
  };
  for (const step of message.steps) {
    const name = stepName(message, step.id);
    for (const block of blocksOfStep(step))
      changeTexts(block, (part, text) => {
        const field =
          block.kind === 'form' ? block.fields.find(({ id }) => part.startsWith(`${id}.`)) : undefined;
        const words = partWords(block.kind, part);
        const what = field && !part.endsWith('.label') ? `${field.label}: ${words}` : words;
        add(name, what, `${block.id}.${part}`, text);
        return text;
      });
  }
  add('The box', 'Name for screen readers', NAME_KEY, message.label);
  if (message.close.sign !== 'cross') add('The box', 'Close button', CLOSE_KEY, message.close.word);
  return all;
}
