import { Fold, type FoldProps } from '../../../ui/fold.tsx';
import { Segments } from '../../../ui/segments.tsx';
import { type Scope, useWorkbench, useWorkbenchStore } from '../../store.ts';

export const SCOPE_WORDS: Readonly<Record<Scope, string>> = {
  all: 'All devices',
  tablet: 'Tablet',
  mobile: 'Phone',
};

/** A fold whose settings are for the devices that are chosen; it says so while that is one of them, also folded. */
export function ScopedFold({ note, children, ...fold }: FoldProps) {
  const scope = useWorkbench((state) => state.scope);
  const isForOne = scope !== 'all';
  return (
    <Fold
      {...fold}
      note={
        isForOne || note ? (
          <>
            {isForOne && (
              <strong className="font-medium text-sail">▸ set for {SCOPE_WORDS[scope].toLowerCase()}</strong>
            )}
            {isForOne && note ? ' · ' : ''}
            {note}
          </>
        ) : undefined
      }
    >
      <ScopeChoice />
      {children}
    </Fold>
  );
}

/** Which devices what follows is set for. */
export function ScopeChoice() {
  const { setScope } = useWorkbenchStore().getState();
  const scope = useWorkbench((state) => state.scope);
  return (
    <Segments
      label="Set for"
      value={scope}
      onChange={setScope}
      options={(['all', 'tablet', 'mobile'] as const).map((value) => ({ value, label: SCOPE_WORDS[value] }))}
    />
  );
}
