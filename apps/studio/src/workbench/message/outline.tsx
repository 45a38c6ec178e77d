import { useDroppable } from '@dnd-kit/core';
import { useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import type { Block } from '@velarium/contract';
import { blocksOfStep, findPlace } from '@velarium/core';
import { Square } from 'lucide-react';
import { memo, useMemo } from 'react';
import { cx } from '../../ui/cx.ts';
import { Grip } from '../../ui/grip.tsx';
import { SortableList } from '../../ui/sortable-list.tsx';
import { useWorkbench, useWorkbenchStore } from '../store.ts';
import { blockActions } from './block-actions.ts';
import { BLOCK_WORDS, BlockSign, blockWords } from './block-names.tsx';

/** The blocks of the step in their order: chosen, dragged, and moved by keys. */
export function Outline() {
  const store = useWorkbenchStore();
  const actions = useMemo(() => blockActions(store), [store]);
  const step = useWorkbench((state) => state.document.message.steps.find(({ id }) => id === state.stepId));
  const isBoxChosen = useWorkbench((state) => state.selectedBlock === null);
  const canEdit = useWorkbench((state) => state.canEdit);
  if (!step) return null;
  const blocks = blocksOfStep(step);
  const ids = blocks.map(({ id }) => id);
  const nameOf = (id: string) => {
    const block = blocks.find((one) => one.id === id);
    return block ? `${BLOCK_WORDS[block.kind]} ${blockWords(block)}`.trim() : 'An empty column';
  };

  const move = (id: string, target: string) => {
    const { message } = store.getState().document;
    if (target.startsWith('column:')) {
      actions.move(id, { stepId: step.id, columnId: target.slice('column:'.length), at: 0 });
      return;
    }
    const from = findPlace(message, id);
    const to = findPlace(message, target);
    if (!from || !to) return;
    const isDown = from.columnId === to.columnId && to.at > from.at;
    actions.move(id, { ...to, at: isDown ? to.at + 1 : to.at });
  };

  return (
    <div className="-mx-1">
      <button
        type="button"
        aria-pressed={isBoxChosen}
        onClick={() => store.getState().select(null)}
        className="flex h-7 w-full items-center gap-2 rounded px-1.5 text-left hover:bg-sail-wash aria-pressed:bg-sail-wash aria-pressed:font-medium"
      >
        <Square size={14} aria-hidden className="text-soft" />
        The box
      </button>
      <SortableList ids={ids} canDrag={canEdit} nameOf={nameOf} onMove={move}>
        <ul aria-label="Blocks" className="max-h-64 overflow-y-auto">
          {step.blocks.map((block) => (
            <OutlineItem key={block.id} block={block} />
          ))}
        </ul>
      </SortableList>
      {step.blocks.length === 0 && (
        <p className="px-1.5 py-2 text-soft">This step is empty. Add a block below.</p>
      )}
    </div>
  );
}

const OutlineItem = memo(function OutlineItem({ block }: { readonly block: Block }) {
  return (
    <>
      <Row block={block} isInside={false} />
      {block.kind === 'columns' &&
        block.columns.map((column) => (
          <li key={column.id} className="ml-4 border-l border-line pl-1">
            <ul aria-label="Column">
              {column.blocks.map((inner) => (
                <Row key={inner.id} block={inner} isInside />
              ))}
              {column.blocks.length === 0 && <EmptyColumn id={column.id} />}
            </ul>
          </li>
        ))}
    </>
  );
});

function EmptyColumn({ id }: { readonly id: string }) {
  const { setNodeRef, isOver } = useDroppable({ id: `column:${id}` });
  return (
    <li
      ref={setNodeRef}
      className={cx('h-6 rounded px-1.5 text-xs leading-6 text-soft', isOver && 'bg-sail-wash')}
    >
      An empty column
    </li>
  );
}

const Row = memo(function Row({ block, isInside }: { readonly block: Block; readonly isInside: boolean }) {
  const { select } = useWorkbenchStore().getState();
  const isChosen = useWorkbench((state) => state.selectedBlock === block.id);
  const canEdit = useWorkbench((state) => state.canEdit);
  const row = useSortable({ id: block.id, disabled: !canEdit });
  const { setNodeRef, transform, transition, isDragging } = row;
  const isHidden = block.style.all.hidden === true;
  const differs = (['tablet', 'mobile'] as const).some(
    (device) => Object.keys(block.style[device]).length > 0,
  );
  return (
    <li
      ref={setNodeRef}
      style={{ transform: CSS.Translate.toString(transform), transition: transition ?? undefined }}
      className={cx(
        'flex items-center rounded',
        isChosen && 'bg-sail-wash',
        isDragging && 'z-10 bg-sheet shadow-float',
      )}
    >
      <button
        type="button"
        aria-pressed={isChosen}
        onClick={() => select(block.id)}
        className="flex h-7 min-w-0 flex-1 items-center gap-2 rounded px-1.5 text-left hover:bg-sail-wash"
      >
        <BlockSign block={block} kind={block.kind} />
        <span className={cx('flex-none', isChosen && 'font-medium', isHidden && 'line-through')}>
          {BLOCK_WORDS[block.kind]}
        </span>
        <span className="min-w-0 flex-1 truncate text-xs text-soft">{blockWords(block)}</span>
        {differs && (
          <span className="text-xs text-sail" title="Differs on a tablet or a phone">
            ◐<span className="sr-only">, differs on a tablet or a phone</span>
          </span>
        )}
      </button>
      {canEdit && (
        <Grip
          row={row}
          label={`Move ${BLOCK_WORDS[block.kind].toLowerCase()} ${blockWords(block)}${isInside ? ' in its column' : ''}`}
        />
      )}
    </li>
  );
});
