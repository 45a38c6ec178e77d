import { useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { useQuery } from '@tanstack/react-query';
import { placeInOrder } from '@velarium/core';
import { ChevronDown, ChevronUp } from 'lucide-react';
import { campaignsQuery } from '../../../api/queries.ts';
import { IconButton } from '../../../ui/button.tsx';
import { cx } from '../../../ui/cx.ts';
import { Grip } from '../../../ui/grip.tsx';
import { Segments } from '../../../ui/segments.tsx';
import { SortableList } from '../../../ui/sortable-list.tsx';
import { useWorkbench, useWorkbenchStore } from '../../store.ts';

interface Place {
  readonly id: string;
  readonly name: string;
  readonly priority: number;
}

/** Which of the site's campaigns goes first when two want to open at once, and what the other does. */
export function OrderControl() {
  const store = useWorkbenchStore();
  const id = useWorkbench((state) => state.id);
  const name = useWorkbench((state) => state.name);
  const { priority, whenBusy } = useWorkbench((state) => state.document.rule.limits);
  const canEdit = useWorkbench((state) => state.canEdit);
  const { data: campaigns = [] } = useQuery(campaignsQuery(useWorkbench((state) => state.siteId)));
  const set = (change: { priority?: number; whenBusy?: 'wait' | 'yield' }, key: string) =>
    store.getState().editRule((rule) => ({ ...rule, limits: { ...rule.limits, ...change } }), `order.${key}`);
  // They come the newest first; of equals the older goes first, and so it stands.
  const order: Place[] = [...campaigns]
    .reverse()
    .filter((one) => one.id === id || ['running', 'scheduled', 'resting'].includes(one.state))
    .map((one) => ({
      id: one.id,
      name: one.id === id ? name : one.name,
      priority: one.id === id ? priority : one.rule.limits.priority,
    }))
    .sort((a, b) => b.priority - a.priority);
  const nameOf = (of: string) => order.find((one) => one.id === of)?.name ?? '';
  const move = (over: string) => {
    const others = order.filter((one) => one.id !== id);
    const from = order.findIndex((one) => one.id === id);
    const to = order.findIndex((one) => one.id === over);
    const at = others.findIndex((one) => one.id === over) + (to > from ? 1 : 0);
    set(
      {
        priority: placeInOrder(
          others.map((one) => one.priority),
          at,
          to > from ? 'down' : 'up',
        ),
      },
      'priority',
    );
  };
  return (
    <fieldset className="grid gap-3">
      <legend className="mb-1 font-medium">When two want to open at once</legend>
      <SortableList
        ids={order.map((one) => one.id)}
        canDrag={canEdit}
        nameOf={nameOf}
        onMove={(_, over) => move(over)}
      >
        <ol
          aria-label="Order of the site’s campaigns"
          className="max-h-52 overflow-y-auto border-y border-line"
        >
          {order.map((one, at) => (
            <Row
              key={one.id}
              place={one}
              isThis={one.id === id}
              neighbours={canEdit && one.id === id ? [order[at - 1]?.id, order[at + 1]?.id] : null}
              onMove={move}
            />
          ))}
        </ol>
      </SortableList>
      <p className="text-xs text-soft">
        Drag this campaign, press the signs beside it, or move it with Space and the arrow keys. Of equals the
        one triggered earlier goes first, then the older.
      </p>
      <Segments
        label="When another message has the floor, it"
        value={whenBusy}
        onChange={(next) => set({ whenBusy: next }, 'busy')}
        options={[
          { value: 'wait', label: 'Waits' },
          { value: 'yield', label: 'Gives way' },
        ]}
      />
    </fieldset>
  );
}

interface RowProps {
  readonly place: Place;
  readonly isThis: boolean;
  /** Of one that can be moved: who stands above and below it. */
  readonly neighbours: readonly [above: string | undefined, below: string | undefined] | null;
  readonly onMove: (over: string) => void;
}

function Row({ place, isThis, neighbours, onMove }: RowProps) {
  const row = useSortable({ id: place.id, disabled: { draggable: !neighbours, droppable: false } });
  const { setNodeRef, transform, transition, isDragging } = row;
  return (
    <li
      ref={setNodeRef}
      style={{ transform: CSS.Translate.toString(transform), transition: transition ?? undefined }}
      className={cx(
        'flex h-8 items-center gap-2 border-b border-line px-1.5 last:border-b-0',
        isThis ? 'bg-sail-wash font-medium' : 'bg-sheet text-soft',
        isDragging && 'z-10 shadow-float',
      )}
    >
      <span className="w-4 text-right text-xs tabular-nums">{place.priority}</span>
      <span className="min-w-0 flex-1 truncate">{place.name}</span>
      {neighbours?.map((over, at) => {
        const Sign = at === 0 ? ChevronUp : ChevronDown;
        return (
          <IconButton
            key={at === 0 ? 'up' : 'down'}
            label={`Move ${place.name} ${at === 0 ? 'up' : 'down'}`}
            className="-mx-1 aria-disabled:cursor-not-allowed aria-disabled:opacity-40"
            // Whoever has pressed it to the end of the list keeps the focus.
            aria-disabled={over === undefined || undefined}
            onClick={() => over !== undefined && onMove(over)}
          >
            <Sign size={14} aria-hidden />
          </IconButton>
        );
      })}
      {neighbours && <Grip row={row} label={`Move ${place.name} in the order`} />}
    </li>
  );
}
