import { useMemo } from 'react';
import { useCommands } from '../../app/commands.ts';
import { LanguagesFold } from '../../languages/languages-fold.tsx';
import { useWorkbench, useWorkbenchStore } from '../store.ts';
import { AddBlock } from './add-block.tsx';
import { blockActions } from './block-actions.ts';
import { BlockPanel } from './block-panel.tsx';
import { BoxPanel } from './box/box-panel.tsx';
import { FindingsFold } from './findings-fold.tsx';
import { Outline } from './outline.tsx';
import { StepsBar } from './steps-bar.tsx';
import { TemplateBar } from './template-bar.tsx';
import { useSelectedBlock } from './use-message.ts';

/** What the message says and looks like: its steps, their blocks, and whatever is chosen of them. */
export function MessageSide() {
  const store = useWorkbenchStore();
  const actions = useMemo(() => blockActions(store), [store]);
  const block = useSelectedBlock();
  const canEdit = useWorkbench((state) => state.canEdit);
  useCommands(
    'Blocks',
    block && canEdit
      ? [
          {
            id: 'block.up',
            label: 'Move the block up',
            keys: 'Mod+Shift+ArrowUp',
            run: () => actions.nudge(-1),
          },
          {
            id: 'block.down',
            label: 'Move the block down',
            keys: 'Mod+Shift+ArrowDown',
            run: () => actions.nudge(1),
          },
          { id: 'block.twice', label: 'Duplicate the block', keys: 'Mod+d', run: actions.duplicate },
          { id: 'block.copy', label: 'Copy the block', keys: 'Mod+Shift+c', run: actions.copy },
          { id: 'block.paste', label: 'Paste a block', keys: 'Mod+Shift+v', run: () => void actions.paste() },
          { id: 'block.remove', label: 'Remove the block', keys: 'Delete', run: actions.remove },
          {
            id: 'block.parent',
            label: 'Choose what the block stands in',
            keys: 'Escape',
            run: actions.selectParent,
          },
        ]
      : canEdit
        ? [
            {
              id: 'block.paste',
              label: 'Paste a block',
              keys: 'Mod+Shift+v',
              run: () => void actions.paste(),
            },
          ]
        : [],
  );
  return (
    <>
      <StepsBar />
      <Outline />
      {canEdit && (
        <div className="-mt-3 flex items-center gap-2">
          <AddBlock />
          <TemplateBar />
        </div>
      )}
      {block ? <BlockPanel key={block.id} block={block} /> : <BoxPanel />}
      <LanguagesFold />
      <FindingsFold />
    </>
  );
}
