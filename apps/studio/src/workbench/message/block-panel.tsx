import { useMutation, useQueryClient } from '@tanstack/react-query';
import type { Block, BlockKind } from '@velarium/contract';
import { newBlock } from '@velarium/core';
import { ArrowDown, ArrowUp, Bookmark, Copy, CopyPlus, Trash2 } from 'lucide-react';
import { type ReactNode, useCallback, useMemo, useState } from 'react';
import { keepBlock, savedBlocksQuery } from '../../api/library.ts';
import { IconButton } from '../../ui/button.tsx';
import { NumberField } from '../../ui/number-field.tsx';
import { tell, tellProblem } from '../../ui/toast.tsx';
import { FollowUpControl } from '../follow-up/follow-up-control.tsx';
import { useWorkbench, useWorkbenchStore } from '../store.ts';
import { blockActions } from './block-actions.ts';
import { BLOCK_WORDS, BlockSign, blockWords } from './block-names.tsx';
import { ButtonEditor } from './editors/button-editor.tsx';
import { ColumnsEditor } from './editors/columns-editor.tsx';
import { CountdownEditor, CountEditor } from './editors/countdown-editor.tsx';
import { FilmEditor, FrameEditor, HtmlEditor } from './editors/film-editor.tsx';
import { FormEditor } from './editors/form-editor.tsx';
import { PictureEditor } from './editors/picture-editor.tsx';
import { SavedEditor } from './editors/saved-editor.tsx';
import { CodeEditor, ShareEditor } from './editors/share-editor.tsx';
import { HeadingEditor, TextEditor } from './editors/text-editor.tsx';
import { NameDialog } from './name-dialog.tsx';
import { BlockStyle, type BlockStyleProps } from './style/block-style.tsx';
import { type EditBlock, type EditorProps, useEditBlock, useWorkbenchDesign } from './use-message.ts';

const EDITORS: { readonly [Kind in BlockKind]: (props: EditorProps<Kind>) => ReactNode } = {
  heading: HeadingEditor,
  text: TextEditor,
  picture: PictureEditor,
  button: ButtonEditor,
  form: FormEditor,
  code: CodeEditor,
  countdown: CountdownEditor,
  share: ShareEditor,
  count: CountEditor,
  film: FilmEditor,
  frame: FrameEditor,
  html: HtmlEditor,
  columns: ColumnsEditor,
  saved: (props) => <SavedEditor {...props} Editor={BlockEditor} />,
  divider: () => null,
  space: ({ block, edit }) => (
    <NumberField
      label="Height"
      unit="px"
      value={block.height}
      min={2}
      max={400}
      onChange={(height) => edit((old) => ({ ...old, height }), 'height')}
    />
  ),
};

/** The controls of one kind of block, without the actions on it as a whole. */
function BlockEditor({ block, edit }: { readonly block: Block; readonly edit: EditBlock }) {
  const editStyle = useCallback<BlockStyleProps['onChange']>(
    (change, part) => edit((old) => ({ ...old, style: change(old.style) }), `style.${part}`),
    [edit],
  );
  const Editor = EDITORS[block.kind] as (props: { block: Block; edit: EditBlock }) => ReactNode;
  return (
    <>
      <Editor key={block.id} block={block} edit={edit} />
      {block.kind !== 'saved' && <BlockStyle styled={block.style} kind={block.kind} onChange={editStyle} />}
    </>
  );
}

/** What can be set on the chosen block, and done with it. */
export function BlockPanel({ block }: { readonly block: Block }) {
  const store = useWorkbenchStore();
  const actions = useMemo(() => blockActions(store), [store]);
  const edit = useEditBlock<Block>(block.id);
  const canEdit = useWorkbench((state) => state.canEdit);
  const siteId = useWorkbench((state) => state.siteId);
  const queryClient = useQueryClient();
  const [isNaming, setNaming] = useState(false);
  const { savedOf } = useWorkbenchDesign();
  const meant = block.kind === 'saved' ? savedOf(block.saved) : block;
  // In the message it goes by the id of the block it stands for.
  const form = meant?.kind === 'form' ? { id: block.id, fields: meant.fields } : undefined;
  const keep = useMutation({
    mutationFn: (name: string) => {
      if (block.kind === 'saved') throw new Error('A saved block is kept already.');
      return keepBlock(siteId, { name, block });
    },
    onSuccess: async (saved) => {
      await queryClient.invalidateQueries({ queryKey: savedBlocksQuery(siteId).queryKey });
      edit(({ id }) => ({ ...newBlock('saved'), id, saved: saved.id }), 'keep');
      setNaming(false);
      tell(`“${saved.name}” can now be used in other campaigns.`);
    },
    onError: tellProblem,
  });
  return (
    <div className="grid gap-3 border-t border-line pt-3">
      <div className="flex items-center gap-2">
        <BlockSign block={block} kind={block.kind} />
        <h3 className="flex-1 font-serif text-lg leading-none">{BLOCK_WORDS[block.kind]}</h3>
        {canEdit && (
          <span className="-mr-1 flex">
            <Act
              label="Move up (Ctrl + Shift + ↑)"
              onClick={() => actions.nudge(-1)}
              sign={<ArrowUp size={14} />}
            />
            <Act
              label="Move down (Ctrl + Shift + ↓)"
              onClick={() => actions.nudge(1)}
              sign={<ArrowDown size={14} />}
            />
            <Act label="Duplicate (Ctrl + D)" onClick={actions.duplicate} sign={<CopyPlus size={14} />} />
            <Act label="Copy (Ctrl + Shift + C)" onClick={actions.copy} sign={<Copy size={14} />} />
            {block.kind !== 'saved' && (
              <Act
                label="Keep it for other campaigns"
                onClick={() => setNaming(true)}
                sign={<Bookmark size={14} />}
              />
            )}
            <Act label="Remove (Delete)" onClick={actions.remove} sign={<Trash2 size={14} />} />
          </span>
        )}
      </div>
      <BlockEditor block={block} edit={edit} />
      {form && <FollowUpControl key={form.id} form={form} />}
      {isNaming && (
        <NameDialog
          title="Keep this block"
          description="It can be used in any campaign of the site. Changing it once changes it everywhere."
          action="Keep it"
          suggestion={blockWords(block)}
          isBusy={keep.isPending}
          onName={(name) => keep.mutate(name)}
          onClose={() => setNaming(false)}
        />
      )}
    </div>
  );
}

const Act = ({ label, onClick, sign }: { label: string; onClick: () => void; sign: ReactNode }) => (
  <IconButton label={label} onClick={onClick}>
    <span aria-hidden="true">{sign}</span>
  </IconButton>
);
