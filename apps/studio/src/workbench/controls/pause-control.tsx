import type { Pause } from '@velarium/contract';
import { useWorkbench, useWorkbenchStore } from '../store.ts';
import { Choice } from './choice.tsx';
import { SpanField } from './limits/span-field.tsx';

type Kind = 'none' | 'session' | 'ever' | 'days';
const DEFAULT_DAYS = 30;

const LABEL = {
  afterClose: 'After a close',
  afterNo: 'After a no',
  afterConversion: 'After a conversion',
} as const;

/** How long it stays away from a visitor who closed it, or who did what it asks. */
export function PauseControl({ after }: { readonly after: keyof typeof LABEL }) {
  const { editRule } = useWorkbenchStore().getState();
  const pause = useWorkbench((state) => state.document.rule.limits[after]);
  const set = (next: Pause) =>
    editRule((rule) => ({ ...rule, limits: { ...rule.limits, [after]: next } }), after);
  const kind: Kind = typeof pause === 'string' ? pause : 'days';
  return (
    <div className="grid gap-2">
      <Choice
        label={LABEL[after]}
        value={kind}
        onChange={(next) => set(next === 'days' ? { count: DEFAULT_DAYS, unit: 'days' } : next)}
        options={[
          { value: 'none', label: 'It may come again' },
          { value: 'session', label: 'Stays away this session' },
          { value: 'days', label: 'Stays away for a while' },
          { value: 'ever', label: 'Never comes again' },
        ]}
      />
      {typeof pause === 'object' && <SpanField label="Unit" value={pause} onChange={set} />}
    </div>
  );
}
