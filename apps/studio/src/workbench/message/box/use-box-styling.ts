import { boxStyle } from '@velarium/core';
import { useWorkbench, useWorkbenchStore } from '../../store.ts';
import { type Styling, useStyling } from '../style/use-styling.ts';
import { useLookStyle } from '../use-message.ts';

/** The style of the box as a whole, in the scope that is being set. */
export function useBoxStyling(): Styling {
  const { editMessage } = useWorkbenchStore().getState();
  const message = useWorkbench((state) => state.document.message);
  const look = useLookStyle();
  const scope = useWorkbench((state) => state.scope);
  const plain = { ...message, style: { all: {}, tablet: {}, mobile: {} } };
  const defaults = boxStyle(plain, look, scope === 'all' ? 'desktop' : scope);
  return useStyling(message.style, defaults, (change, part) =>
    editMessage((old) => ({ ...old, style: change(old.style) }), `box.${part}`),
  );
}
