import type { useSortable } from '@dnd-kit/sortable';
import { GripVertical } from 'lucide-react';

interface GripProps {
  readonly label: string;
  /** The row that is taken up by it. */
  readonly row: Pick<ReturnType<typeof useSortable>, 'attributes' | 'listeners' | 'setActivatorNodeRef'>;
}

/** By which a row of a sortable list is taken up: by a pointer, a finger, which does not scroll the list there, or keys. */
export function Grip({ label, row: { attributes, listeners, setActivatorNodeRef } }: GripProps) {
  return (
    <button
      type="button"
      ref={setActivatorNodeRef}
      {...attributes}
      {...listeners}
      aria-label={label}
      className="grid size-6 flex-none cursor-grab touch-none place-items-center rounded text-soft hover:text-ink"
    >
      <GripVertical size={13} aria-hidden />
    </button>
  );
}
