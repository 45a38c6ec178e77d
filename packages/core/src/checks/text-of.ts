import type { Block, Message, Step } from '@velarium/contract';
import { blocksOfStep } from '../message/walk.ts';

/** Every text of a block that a visitor reads. */
export function textsOf(block: Block): string[] {
  switch (block.kind) {
    case 'heading':
      return [block.text];
    case 'text':
      return block.content.map((paragraph) => paragraph.map(({ text }) => text).join(''));
    case 'picture':
      return [];
    case 'button':
      return [block.label];
    case 'form':
      return [...block.fields.map(({ label }) => label), block.consentText, block.submitLabel];
    case 'code':
      return [block.code, block.copyLabel];
    case 'countdown':
      return [block.whenOver === 'words' ? block.overText : ''];
    case 'share':
      return block.ways.map(({ label }) => label);
    case 'count':
      return [block.text];
    case 'film':
    case 'frame':
      return [block.title];
    case 'html':
      return [block.markup.replace(/<[^>]*>/g, ' ')];
    case 'saved':
    case 'divider':
    case 'space':
    case 'columns':
      return [];
  }
}

export const textOfStep = (step: Step): string =>
  blocksOfStep(step)
    .flatMap(textsOf)
    .filter((text) => text.trim() !== '')
    .join('\n');

export const wordCount = (text: string): number => text.match(/[\p{L}\p{N}’'-]+/gu)?.length ?? 0;

/** What has something to say to a visitor. */
export const hasWords = (message: Message): boolean =>
  message.steps.some((step) => textOfStep(step) !== '' || step.blocks.some(({ kind }) => kind === 'picture'));
