import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { Block, SavedBlock } from '@velarium/contract';
import { type ReactNode, useState } from 'react';
import { changeSavedBlock, savedBlocksQuery } from '../../../api/library.ts';
import { Button } from '../../../ui/button.tsx';
import { Dialog } from '../../../ui/dialog.tsx';
import { Field } from '../../../ui/field.tsx';
import { tell, tellProblem } from '../../../ui/toast.tsx';
import { stillThere } from '../../../ui/told-error.ts';
import { useOverTheirs } from '../../../ui/use-over-theirs.ts';
import { StageFrame } from '../../stage/stage-frame.tsx';
import { useWorkbench } from '../../store.ts';
import type { EditBlock, EditorProps } from '../use-message.ts';

/** The controls of whatever block is kept. */
type AnyEditor = (props: { readonly block: Block; readonly edit: EditBlock }) => ReactNode;

/** A block of the library in its place: changed for all who use it, or detached to be changed here alone. */
export function SavedEditor({ block, edit, Editor }: EditorProps<'saved'> & { readonly Editor: AnyEditor }) {
  const query = savedBlocksQuery(useWorkbench((state) => state.siteId));
  // Who uses it may have changed since it was loaded to be drawn.
  const { data: saved } = useQuery({ ...query, refetchOnMount: 'always' });
  const [isChanging, setChanging] = useState(false);
  const known = saved?.find(({ id }) => id === block.saved);
  if (!saved) return <p className="text-soft">Loading …</p>;
  if (!known) return <p className="text-halt">▲ This saved block is gone. Remove it, or undo.</p>;
  const others = known.usedBy.length;
  return (
    <>
      <p>
        “{known.name}”{' '}
        {others > 1 ? `is used by ${known.usedBy.join(' and ')}` : 'is used by this campaign alone'}. Changing
        it changes it everywhere.
      </p>
      <div className="flex flex-wrap gap-2">
        <Button onClick={() => setChanging(true)}>Change it everywhere</Button>
        <Button onClick={() => edit(({ id }) => ({ ...known.block, id }) as Block, 'detach')}>
          Detach it here
        </Button>
      </div>
      {isChanging && <ChangeSaved saved={known} Editor={Editor} onClose={() => setChanging(false)} />}
    </>
  );
}

interface ChangeSavedProps {
  readonly saved: SavedBlock;
  readonly Editor: AnyEditor;
  readonly onClose: () => void;
}

function ChangeSaved({ saved, Editor, onClose }: ChangeSavedProps) {
  const siteId = useWorkbench((state) => state.siteId);
  const message = useWorkbench((state) => state.document.message);
  const queryClient = useQueryClient();
  const [name, setName] = useState(saved.name);
  const [block, setBlock] = useState<SavedBlock['block']>(saved.block);
  const overTheirs = useOverTheirs({ name, block });
  const save = useMutation({
    mutationFn: async () => {
      const next = await overTheirs({ name, block }, savedBlocksQuery(siteId), (all) => {
        const there = stillThere(all, saved.id, 'saved block');
        return { name: there.name, block: there.block };
      });
      return changeSavedBlock(siteId, saved.id, next);
    },
    onSuccess: async (changed) => {
      await queryClient.invalidateQueries({ queryKey: savedBlocksQuery(siteId).queryKey });
      tell(`“${changed.name}” is changed everywhere.`);
      onClose();
    },
    onError: tellProblem,
  });
  return (
    <Dialog
      isOpen
      onClose={onClose}
      title={`Change “${saved.name}” everywhere`}
      description={`Visitors of ${saved.usedBy.join(' and ') || 'this campaign'} see it as soon as it is saved.`}
      className="w-[min(94vw,46rem)]"
    >
      <div className="grid grid-cols-[20rem_1fr] gap-6">
        <div className="grid max-h-[60vh] content-start gap-3 overflow-y-auto pr-2 pl-1">
          <Field
            label="Name"
            value={name}
            maxLength={120}
            onChange={(event) => setName(event.target.value)}
          />
          <Editor block={block} edit={(change) => setBlock((old) => change(old) as SavedBlock['block'])} />
        </div>
        <StageFrame
          message={{
            ...message,
            format: 'modal',
            anchor: 'center',
            steps: [{ id: 'first', role: 'first', blocks: [block] }],
          }}
          device="mobile"
          width={330}
          height={520}
          isThumbnail
        />
      </div>
      <div className="mt-5 flex justify-end gap-2">
        <Button onClick={onClose}>Leave it as it was</Button>
        <Button tone="main" isBusy={save.isPending} onClick={() => save.mutate()}>
          Save it everywhere
        </Button>
      </div>
    </Dialog>
  );
}
