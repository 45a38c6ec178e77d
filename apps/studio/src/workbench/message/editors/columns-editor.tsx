import { freshId } from '@velarium/core';
import { Trash2 } from 'lucide-react';
import { Button, IconButton } from '../../../ui/button.tsx';
import { NumberField } from '../../../ui/number-field.tsx';
import { useWorkbench } from '../../store.ts';
import type { EditorProps } from '../use-message.ts';

const MOST = 4;

export function ColumnsEditor({ block, edit }: EditorProps<'columns'>) {
  const message = useWorkbench((state) => state.document.message);
  return (
    <>
      <ul className="grid gap-1" aria-label="Columns">
        {block.columns.map((column, n) => (
          <li key={column.id} className="grid grid-cols-[1fr_auto] items-end gap-1">
            <NumberField
              label={`Column ${n + 1}: parts of the width`}
              value={column.share}
              min={1}
              max={12}
              onChange={(share) =>
                edit(
                  (old) => ({
                    ...old,
                    columns: old.columns.map((one) => (one.id === column.id ? { ...one, share } : one)),
                  }),
                  `share.${n}`,
                )
              }
            />
            <IconButton
              label={`Remove column ${n + 1}`}
              disabled={block.columns.length === 2}
              onClick={() =>
                edit(
                  (old) => ({ ...old, columns: old.columns.filter(({ id }) => id !== column.id) }),
                  'column.remove',
                )
              }
            >
              <Trash2 size={14} aria-hidden />
            </IconButton>
          </li>
        ))}
      </ul>
      {block.columns.length < MOST && (
        <Button
          className="justify-self-start"
          onClick={() =>
            edit(
              (old) => ({
                ...old,
                columns: [...old.columns, { id: freshId(message, 'column'), share: 1, blocks: [] }],
              }),
              'column.add',
            )
          }
        >
          Add a column
        </Button>
      )}
      <p className="text-xs text-soft">
        Drag blocks in the list above into a column, or move them there with Ctrl + Shift + arrows.
      </p>
    </>
  );
}
