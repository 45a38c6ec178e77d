import type { Block, BlockKind, BlockOf, LookStyle, Message, Palette } from '@velarium/contract';
import { changeBlock, findBlock, paletteOf } from '@velarium/core';
import { useCallback, useMemo } from 'react';
import { type Design, useDesign } from '../../library/use-design.ts';
import { useWorkbench, useWorkbenchStore } from '../store.ts';

/** The design material of the campaign's site. */
export const useWorkbenchDesign = (): Design => useDesign(useWorkbench((state) => state.siteId));

export function useLookStyle(): LookStyle {
  const design = useWorkbenchDesign();
  const look = useWorkbench((state) => state.document.message.look);
  return design.lookOf({ look });
}

/** The colours a message is drawn in: its Look's and its own. */
export function usePalette(): Palette {
  const look = useLookStyle();
  const palette = useWorkbench((state) => state.document.message.palette);
  return useMemo(() => paletteOf({ palette }, look), [palette, look]);
}

export const useSelectedBlock = (): Block | undefined =>
  useWorkbench((state) => findBlock(state.document.message, state.selectedBlock));

export type EditBlock<Kind extends Block = Block> = (change: (block: Kind) => Block, part: string) => void;

/** What the sides of the message are called by who looks at it: left is where its texts begin, or where they end. */
export function useSides(): Readonly<Record<'top' | 'bottom' | 'start' | 'end', string>> {
  const isRightToLeft = useWorkbench((state) => state.document.message.direction === 'rtl');
  return {
    top: 'top',
    bottom: 'bottom',
    start: isRightToLeft ? 'right' : 'left',
    end: isRightToLeft ? 'left' : 'right',
  };
}

/** What the controls of one kind of block are given. */
export interface EditorProps<Kind extends BlockKind> {
  readonly block: BlockOf<Kind>;
  readonly edit: EditBlock<BlockOf<Kind>>;
}

/** Changes one block; `part` names what is changed, so that a word typed is one step of undo. */
export function useEditBlock<Kind extends Block>(id: string): EditBlock<Kind> {
  const store = useWorkbenchStore();
  return useCallback<EditBlock<Kind>>(
    (change, part) =>
      store
        .getState()
        .editMessage(
          (message) => changeBlock(message, id, (block) => change(block as Kind)),
          `${id}.${part}`,
        ),
    [store, id],
  );
}

/** Changes single things of the message. */
export function useEditMessage(): (change: Partial<Message>, key: string) => void {
  const store = useWorkbenchStore();
  return (change, key) => store.getState().editMessage((message) => ({ ...message, ...change }), key);
}
