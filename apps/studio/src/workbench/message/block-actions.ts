import type { Block, BlockKind } from '@velarium/contract';
import { blockSchema } from '@velarium/contract';
import {
  type BlockPlace,
  findBlock,
  findPlace,
  insertBlock,
  moveBlock,
  newBlock,
  nudgeBlock,
  removeBlock,
  withFreshIds,
} from '@velarium/core';
import { copy } from '../../ui/copy.ts';
import { tell } from '../../ui/toast.tsx';
import type { WorkbenchStore } from '../store.ts';

/** What the clipboard says of our blocks, so that a paste from elsewhere is told apart. */
const MARK = 'velarium-block:';
/** Where the browser keeps the clipboard from us, copying within the studio still works. */
let copied = '';

/** Nothing where the browser does not let us look, or there is nothing to look into. */
const readClipboard = async (): Promise<string> => {
  try {
    return await navigator.clipboard.readText();
  } catch {
    return '';
  }
};

/** A block that was copied; what anybody else has put on the clipboard under our mark is read as carefully. */
function readBlock(text: string): Block | undefined {
  if (!text.startsWith(MARK)) return undefined;
  try {
    return blockSchema.safeParse(JSON.parse(text.slice(MARK.length))).data;
  } catch {
    return undefined;
  }
}

export interface BlockActions {
  add(block: Block): void;
  addKind(kind: BlockKind): void;
  copy(): void;
  paste(): Promise<void>;
  duplicate(): void;
  remove(): void;
  nudge(by: -1 | 1): void;
  move(id: string, to: BlockPlace): void;
  selectParent(): void;
}

/** Everything that is done with whole blocks; what is chosen is what it is done to. */
export function blockActions(store: WorkbenchStore): BlockActions {
  const chosen = () => {
    const { document, selectedBlock } = store.getState();
    return findBlock(document.message, selectedBlock);
  };
  /** After what is chosen, else at the end of the step. */
  const nextPlace = (): BlockPlace => {
    const { document, selectedBlock, stepId } = store.getState();
    const place = selectedBlock === null ? undefined : findPlace(document.message, selectedBlock);
    if (place && place.stepId === stepId) return { ...place, at: place.at + 1 };
    const step = document.message.steps.find(({ id }) => id === stepId);
    return { stepId, columnId: null, at: step?.blocks.length ?? 0 };
  };
  const add = (block: Block) => {
    const { document, editMessage, select } = store.getState();
    const fresh = withFreshIds(document.message, block);
    const place = nextPlace();
    editMessage(
      (message) => insertBlock(message, fresh, fresh.kind === 'columns' ? outside(message, place) : place),
      // Each is a step of undo by itself, however quickly they follow one another.
      `add.${fresh.id}`,
    );
    select(fresh.id);
  };
  /** Columns never stand in a column: they go after the ones they were asked into. */
  const outside = (message: Parameters<typeof findPlace>[0], place: BlockPlace): BlockPlace => {
    if (place.columnId === null) return place;
    const blocks = message.steps.find(({ id }) => id === place.stepId)?.blocks ?? [];
    const at = blocks.findIndex(
      (one) => one.kind === 'columns' && one.columns.some(({ id }) => id === place.columnId),
    );
    return { stepId: place.stepId, columnId: null, at: at + 1 };
  };
  return {
    add,
    addKind: (kind) => add(newBlock(kind)),
    copy() {
      const block = chosen();
      if (!block) return;
      copied = MARK + JSON.stringify(block);
      void copy(copied, {
        said: 'The block is on the clipboard. Paste it here or in another campaign.',
        byHand: 'The block can be pasted in this window all the same.',
      });
    },
    async paste() {
      const block = readBlock(await readClipboard()) ?? readBlock(copied);
      if (block) add(block);
      else tell('There is no block on the clipboard.');
    },
    duplicate() {
      const block = chosen();
      if (block) add(block);
    },
    remove() {
      const block = chosen();
      const { editMessage, select, document } = store.getState();
      if (!block) return;
      const place = findPlace(document.message, block.id);
      editMessage((message) => removeBlock(message, block.id), `remove.${block.id}`);
      const step = store.getState().document.message.steps.find(({ id }) => id === place?.stepId);
      select(step?.blocks[Math.min(place?.at ?? 0, step.blocks.length - 1)]?.id ?? null);
    },
    nudge(by) {
      const block = chosen();
      if (block) store.getState().editMessage((message) => nudgeBlock(message, block.id, by), 'block.nudge');
    },
    move: (id, to) => store.getState().editMessage((message) => moveBlock(message, id, to), 'block.move'),
    selectParent() {
      const { document, selectedBlock, select } = store.getState();
      const place = selectedBlock === null ? undefined : findPlace(document.message, selectedBlock);
      const columns = document.message.steps
        .flatMap((step) => step.blocks)
        .find((block) => block.kind === 'columns' && block.columns.some(({ id }) => id === place?.columnId));
      select(columns?.id ?? null);
    },
  };
}
