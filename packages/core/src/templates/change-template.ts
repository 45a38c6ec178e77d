import type { Block, Message } from '@velarium/contract';
import { textsOf } from '../checks/text-of.ts';
import { withTextsMoved } from '../languages/translate.ts';
import { allBlocks } from '../message/walk.ts';
import { lostSettings } from './lost-settings.ts';

export interface TemplateChange {
  readonly message: Message;
  /** Words of the old message that have no place in the new one. */
  readonly lost: readonly string[];
  /** What had been set on the old message, apart from its words, that the new one does not have. */
  readonly lostSettings: readonly string[];
}

/** Takes the words of a block over into one of the same kind; its place and style stay the new one's. */
function withWordsOf(target: Block, source: Block): Block {
  const { id, style } = target;
  if (source.kind === 'columns' || target.kind === 'columns') return target;
  return { ...source, id, style } as Block;
}

/**
 * Puts a message's words into another template. Steps meet by their role and blocks by their kind, in order; what a
 * template holds beyond that keeps its own words, and what is left over is told before anything is lost.
 */
export function changeTemplate(old: Message, template: Message): TemplateChange {
  /** Where the words of each block stand now. */
  const moved = new Map<string, string>();
  const steps = template.steps.map((step) => {
    // The second step of a role meets the second.
    const nth = template.steps.filter(({ role }) => role === step.role).indexOf(step);
    const from = old.steps.filter(({ role }) => role === step.role)[nth];
    const waiting = from ? allBlocks({ steps: [from] }).filter(({ kind }) => kind !== 'columns') : [];
    const take = (block: Block): Block => {
      const at = waiting.findIndex(
        (one) =>
          one.kind === block.kind &&
          (one.kind !== 'text' || block.kind !== 'text' || one.size === block.size),
      );
      const [source] = at < 0 ? [] : waiting.splice(at, 1);
      if (!source) return block;
      moved.set(source.id, block.id);
      return withWordsOf(block, source);
    };
    return {
      ...step,
      blocks: step.blocks.map(
        (block): Block =>
          block.kind === 'columns'
            ? {
                ...block,
                columns: block.columns.map((column) => ({
                  ...column,
                  blocks: column.blocks.map(take) as typeof column.blocks,
                })),
              }
            : take(block),
      ),
    };
  });
  const lost = allBlocks(old)
    .filter(({ id }) => !moved.has(id))
    .flatMap(textsOf)
    .filter((text) => text.trim() !== '');
  const message: Message = {
    ...template,
    look: old.look,
    palette: old.palette,
    label: old.label,
    steps,
    ...(old.direction ? { direction: old.direction } : {}),
    ...(old.languages ? { languages: withTextsMoved(old.languages, moved) } : {}),
  };
  return { message, lost, lostSettings: lostSettings(old, message) };
}
