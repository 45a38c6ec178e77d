import { Segments } from '../../../ui/segments.tsx';
import { type Scope, useWorkbench, useWorkbenchStore } from '../../store.ts';

export const SCOPE_WORDS: Readonly<Record<Scope, string>> = {
  all: 'All devices',
  tablet: 'Tablet',
  mobile: 'Phone',
};

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
