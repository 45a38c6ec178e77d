import type { Block, ColumnsBlock, LeafBlock, Message } from '@velarium/contract';
import { allBlocks } from './walk.ts';

export type SavedBlocks = (id: string) => Block | undefined;

const within = (outer: string, inner: string) => `${outer}-${inner}`.slice(0, 40);

/** The saved block as it stands in one place: under that place's id, and hidden where the place is. */
function placed({ id, style }: LeafBlock, block: Block): Block {
  const hidden = (device: 'all' | 'tablet' | 'mobile') =>
    style[device].hidden === undefined ? {} : { hidden: style[device].hidden };
  const own = {
    all: { ...block.style.all, ...hidden('all') },
    tablet: { ...block.style.tablet, ...hidden('tablet') },
    mobile: { ...block.style.mobile, ...hidden('mobile') },
  };
  if (block.kind !== 'columns') return { ...block, id, style: own };
  return {
    ...block,
    id,
    style: own,
    columns: block.columns.map((column) => ({
      ...column,
      id: within(id, column.id),
      blocks: column.blocks.map((inner) => ({ ...inner, id: within(id, inner.id) })),
    })),
  };
}

/** The message with its saved blocks put in. One that is gone leaves nothing; columns never stand in a column. */
export function withSavedBlocks(message: Message, savedOf: SavedBlocks): Message {
  if (!allBlocks(message).some(({ kind }) => kind === 'saved')) return message;
  const put = <Kind extends Block>(block: Kind): (Kind | Block)[] => {
    if (block.kind !== 'saved') return [block];
    const saved = savedOf(block.saved);
    return saved ? [placed(block, saved)] : [];
  };
  const putInColumn = (columns: ColumnsBlock): ColumnsBlock => ({
    ...columns,
    columns: columns.columns.map((column) => ({
      ...column,
      blocks: column.blocks.flatMap(put).filter((block): block is LeafBlock => block.kind !== 'columns'),
    })),
  });
  return {
    ...message,
    steps: message.steps.map((step) => ({
      ...step,
      blocks: step.blocks.flatMap((block) =>
        block.kind === 'columns'
          ? [putInColumn(block)]
          : put(block).map((one) => (one.kind === 'columns' ? putInColumn(one) : one)),
      ),
    })),
  };
}

/** Ids of the saved blocks a message uses, each once. */
export const savedBlocksOf = (message: Pick<Message, 'steps'>): string[] => [
  ...new Set(allBlocks(message).flatMap((block) => (block.kind === 'saved' ? block.saved : []))),
];
