import type { Block, ColumnsBlock, LeafBlock, Message, Step, StepRole } from '@velarium/contract';

/** A list of blocks that a block can be dropped into: a step, or one column of a step. */
export interface Shelf {
  readonly stepId: string;
  /** Of the column; `null` for the step itself. */
  readonly columnId: string | null;
}
/** Where a block stands: its list, and its position in it. */
export interface BlockPlace extends Shelf {
  readonly at: number;
}

export const STEP_ROLE_WORDS: Readonly<Record<StepRole, string>> = {
  first: 'First',
  success: 'After it is sent',
  refused: 'After a no',
  other: 'Further step',
};

/** What a step is called among its fellows. */
export function stepName({ steps }: Pick<Message, 'steps'>, id: string): string {
  const step = steps.find((one) => one.id === id);
  if (!step) return 'A step that is gone';
  if (step.role !== 'other') return STEP_ROLE_WORDS[step.role];
  return `Step ${steps.filter(({ role }) => role === 'other').indexOf(step) + 1}`;
}

/** Every block of a step, those within columns after the columns themselves. */
export const blocksOfStep = (step: Step): Block[] =>
  step.blocks.flatMap((block) =>
    block.kind === 'columns' ? [block, ...block.columns.flatMap((column) => column.blocks)] : [block],
  );

export const allBlocks = (message: Pick<Message, 'steps'>): Block[] => message.steps.flatMap(blocksOfStep);

export const findBlock = (message: Pick<Message, 'steps'>, id: string | null): Block | undefined =>
  id === null ? undefined : allBlocks(message).find((block) => block.id === id);

/** Where the block with this id stands. */
export function findPlace(message: Pick<Message, 'steps'>, id: string): BlockPlace | undefined {
  for (const step of message.steps) {
    const at = step.blocks.findIndex((block) => block.id === id);
    if (at >= 0) return { stepId: step.id, columnId: null, at };
    for (const block of step.blocks) {
      if (block.kind !== 'columns') continue;
      for (const column of block.columns) {
        const inColumn = column.blocks.findIndex((one) => one.id === id);
        if (inColumn >= 0) return { stepId: step.id, columnId: column.id, at: inColumn };
      }
    }
  }
  return undefined;
}

/** The message with each list of blocks changed; lists that come back the same leave everything as it was. */
function changeShelves(
  message: Message,
  change: (blocks: readonly Block[], shelf: Shelf) => readonly Block[],
): Message {
  let hasChanged = false;
  const steps = message.steps.map((step): Step => {
    const outer = change(step.blocks, { stepId: step.id, columnId: null });
    const blocks = outer.map((block): Block => {
      if (block.kind !== 'columns') return block;
      const columns = block.columns.map((column) => {
        const next = change(column.blocks, { stepId: step.id, columnId: column.id });
        return next === column.blocks ? column : { ...column, blocks: next as LeafBlock[] };
      });
      return columns.every((column, n) => column === block.columns[n]) ? block : { ...block, columns };
    });
    if (outer === step.blocks && blocks.every((block, n) => block === step.blocks[n])) return step;
    hasChanged = true;
    return { ...step, blocks };
  });
  return hasChanged ? { ...message, steps } : message;
}

/** The message with one block changed; the same message when no block has this id. */
export function changeBlock(message: Message, id: string, change: (block: Block) => Block): Message {
  return changeShelves(message, (blocks) =>
    blocks.some((block) => block.id === id)
      ? blocks.map((block) => (block.id === id ? change(block) : block))
      : blocks,
  );
}

export function removeBlock(message: Message, id: string): Message {
  return changeShelves(message, (blocks) =>
    blocks.some((block) => block.id === id) ? blocks.filter((block) => block.id !== id) : blocks,
  );
}

/** Puts a block into a list at a position; columns never go into a column. */
export function insertBlock(message: Message, block: Block, { stepId, columnId, at }: BlockPlace): Message {
  if (block.kind === 'columns' && columnId !== null) return message;
  return changeShelves(message, (blocks, shelf) =>
    shelf.stepId === stepId && shelf.columnId === columnId
      ? [...blocks.slice(0, at), block, ...blocks.slice(at)]
      : blocks,
  );
}

/** Moves a block to a place, told as the places are before it is taken out. */
export function moveBlock(message: Message, id: string, to: BlockPlace): Message {
  const block = findBlock(message, id);
  const from = findPlace(message, id);
  if (!block || !from || (block.kind === 'columns' && to.columnId !== null)) return message;
  const isSameShelf = from.stepId === to.stepId && from.columnId === to.columnId;
  const at = isSameShelf && to.at > from.at ? to.at - 1 : to.at;
  if (isSameShelf && at === from.at) return message;
  return insertBlock(removeBlock(message, id), block, { ...to, at });
}

/** One place up or down in its list; from the edge of a column out beside the columns. */
export function nudgeBlock(message: Message, id: string, by: -1 | 1): Message {
  const from = findPlace(message, id);
  if (!from) return message;
  const step = message.steps.find((one) => one.id === from.stepId) as Step;
  const columns = step.blocks.find(
    (block): block is ColumnsBlock =>
      block.kind === 'columns' && block.columns.some((column) => column.id === from.columnId),
  );
  const shelf = columns?.columns.find((column) => column.id === from.columnId)?.blocks ?? step.blocks;
  const target = from.at + by;
  if (target >= 0 && target < shelf.length) {
    return moveBlock(message, id, { ...from, at: by > 0 ? target + 1 : target });
  }
  if (!columns) return message;
  const outer = step.blocks.indexOf(columns);
  return moveBlock(message, id, { stepId: step.id, columnId: null, at: by > 0 ? outer + 1 : outer });
}

/** An id that no block, column or step of the message has: the wanted one, or it with a number. */
export function freshId(message: Pick<Message, 'steps'>, wanted: string): string {
  const taken = new Set([
    ...message.steps.map(({ id }) => id),
    ...allBlocks(message).flatMap((block) => [
      block.id,
      ...(block.kind === 'columns' ? block.columns.map(({ id }) => id) : []),
    ]),
  ]);
  const stem = wanted.replace(/-\d+$/, '').slice(0, 34);
  if (!taken.has(wanted)) return wanted;
  for (let n = 2; ; n++) if (!taken.has(`${stem}-${n}`)) return `${stem}-${n}`;
}

/** The block with ids that the message has not got yet, for pasting and duplicating. */
export function withFreshIds(message: Message, block: Block): Block {
  let known = message;
  const fresh = (wanted: string) => {
    const id = freshId(known, wanted);
    known = { ...known, steps: [...known.steps, { id, role: 'other', blocks: [] }] };
    return id;
  };
  const id = fresh(block.id);
  if (block.kind !== 'columns') return { ...block, id };
  return {
    ...block,
    id,
    columns: block.columns.map((column) => ({
      ...column,
      id: fresh(column.id),
      blocks: column.blocks.map((inner) => ({ ...inner, id: fresh(inner.id) })),
    })),
  };
}
