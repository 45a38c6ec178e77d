import { useQuery } from '@tanstack/react-query';
import type { Block, BlockKind } from '@velarium/contract';
import { newBlock } from '@velarium/core';
import { Plus } from 'lucide-react';
import { Popover as Radix } from 'radix-ui';
import { useMemo, useState } from 'react';
import { savedBlocksQuery } from '../../api/library.ts';
import { Button } from '../../ui/button.tsx';
import { useWorkbench, useWorkbenchStore } from '../store.ts';
import { blockActions } from './block-actions.ts';
import { BLOCK_WORDS, BlockSign } from './block-names.tsx';

const KINDS: readonly { readonly name: string; readonly kinds: readonly BlockKind[] }[] = [
  { name: 'To read and to see', kinds: ['heading', 'text', 'picture', 'film'] },
  { name: 'To act on', kinds: ['button', 'form', 'code', 'share'] },
  { name: 'What moves', kinds: ['countdown', 'count'] },
  { name: 'To arrange', kinds: ['columns', 'divider', 'space'] },
  { name: 'From elsewhere', kinds: ['frame', 'html'] },
];

/** Ready arrangements of one or two blocks. */
const READY: readonly { readonly label: string; readonly kind: BlockKind; readonly make: () => Block }[] = [
  {
    label: 'List',
    kind: 'text',
    make: () => ({
      ...newBlock('text'),
      marks: 'tick',
      content: [[{ text: 'One good reason' }], [{ text: 'Another' }]],
    }),
  },
  {
    label: 'Choice of two',
    kind: 'columns',
    make: () => ({
      ...newBlock('columns'),
      id: 'choice',
      columns: [
        { id: 'choice-yes', share: 1, blocks: [{ ...newBlock('button'), id: 'yes', label: 'Yes' }] },
        {
          id: 'choice-no',
          share: 1,
          blocks: [
            { ...newBlock('button'), id: 'no', label: 'No', tone: 'quiet', action: { kind: 'refuse' } },
          ],
        },
      ],
    }),
  },
];

/** Adds a block after the chosen one. */
export function AddBlock() {
  const store = useWorkbenchStore();
  const actions = useMemo(() => blockActions(store), [store]);
  const { data: saved } = useQuery(savedBlocksQuery(useWorkbench((state) => state.siteId)));
  const [isOpen, setOpen] = useState(false);
  const take = (add: () => void) => {
    add();
    setOpen(false);
  };
  return (
    <Radix.Root open={isOpen} onOpenChange={setOpen}>
      <Radix.Trigger asChild>
        <Button className="justify-self-start">
          <Plus size={14} aria-hidden />
          Add a block
        </Button>
      </Radix.Trigger>
      <Radix.Portal>
        <Radix.Content
          aria-label="Add a block"
          side="left"
          align="start"
          sideOffset={8}
          collisionPadding={12}
          className="settle z-50 grid max-h-[80vh] w-[21rem] gap-3 overflow-y-auto rounded-md border border-line bg-paper p-4 shadow-float outline-none"
        >
          {KINDS.map(({ name, kinds }) => (
            <section key={name} aria-label={name}>
              <h3 className="mb-1 text-xs text-soft">{name}</h3>
              <div className="grid grid-cols-2 gap-x-2">
                {kinds.map((kind) => (
                  <Pick
                    key={kind}
                    kind={kind}
                    label={BLOCK_WORDS[kind]}
                    onPick={() => take(() => actions.addKind(kind))}
                  />
                ))}
                {READY.filter((one) => kinds.includes(one.kind) && one.kind !== 'heading').map(
                  ({ label, kind, make }) => (
                    <Pick
                      key={label}
                      kind={kind}
                      label={label}
                      onPick={() => take(() => actions.add(make()))}
                    />
                  ),
                )}
              </div>
            </section>
          ))}
          {saved && saved.length > 0 && (
            <section aria-label="Saved blocks">
              <h3 className="mb-1 text-xs text-soft">Saved blocks: changed once, changed everywhere</h3>
              <div className="grid gap-x-2">
                {saved.map(({ id, name }) => (
                  <Pick
                    key={id}
                    kind="saved"
                    label={name}
                    onPick={() => take(() => actions.add({ ...newBlock('saved'), saved: id }))}
                  />
                ))}
              </div>
            </section>
          )}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}

const Pick = ({ kind, label, onPick }: { kind: BlockKind; label: string; onPick: () => void }) => (
  <button
    type="button"
    onClick={onPick}
    className="flex h-8 items-center gap-2 rounded px-2 text-left hover:bg-sail-wash"
  >
    <BlockSign kind={kind} />
    {label}
  </button>
);
