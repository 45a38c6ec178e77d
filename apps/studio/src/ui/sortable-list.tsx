import {
  type Announcements,
  closestCenter,
  DndContext,
  type DragEndEvent,
  KeyboardSensor,
  PointerSensor,
  type UniqueIdentifier,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import { SortableContext, sortableKeyboardCoordinates, verticalListSortingStrategy } from '@dnd-kit/sortable';
import type { ReactNode } from 'react';

export interface SortableListProps {
  readonly ids: readonly string[];
  readonly canDrag: boolean;
  /** What a row is called when it is spoken of. */
  readonly nameOf: (id: string) => string;
  /** What was dragged, and over what it was let go; never over itself. */
  readonly onMove: (id: string, over: string) => void;
  readonly children: ReactNode;
}

const INSTRUCTIONS = {
  draggable:
    'Press Space to pick it up, the arrow keys to move it, Space to put it down, Escape to leave it.',
};

/** A list put in order by pointer or keys; its rows call `useSortable`. */
export function SortableList({ ids, canDrag, nameOf, onMove, children }: SortableListProps) {
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const onDragEnd = ({ active, over }: DragEndEvent) => {
    if (over && active.id !== over.id) onMove(String(active.id), String(over.id));
  };
  const called = (id: UniqueIdentifier) => nameOf(String(id));
  const announcements: Announcements = {
    onDragStart: ({ active }) => `${called(active.id)} is picked up.`,
    // Over itself it is told at once as well, and would take the place of what was just said.
    onDragOver: ({ active, over }) =>
      over && over.id !== active.id
        ? `${called(active.id)} is at the place of ${called(over.id)}.`
        : `${called(active.id)} is picked up.`,
    onDragEnd: ({ active, over }) =>
      over ? `${called(active.id)} is put at the place of ${called(over.id)}.` : undefined,
    onDragCancel: ({ active }) => `${called(active.id)} is back where it was.`,
  };
  return (
    <DndContext
      sensors={canDrag ? sensors : []}
      collisionDetection={closestCenter}
      onDragEnd={onDragEnd}
      accessibility={{ announcements, screenReaderInstructions: INSTRUCTIONS }}
    >
      <SortableContext items={[...ids]} strategy={verticalListSortingStrategy}>
        {children}
      </SortableContext>
    </DndContext>
  );
}
