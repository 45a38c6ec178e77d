import type { Cap } from '@velarium/contract';
import { Field } from '../../ui/field.tsx';
import { useWorkbench, useWorkbenchStore } from '../store.ts';
import { Choice } from './choice.tsx';

type Kind = 'view' | 'session' | 'visitor' | 'days';
const DEFAULT_DAYS = 7;

const kindOf = (cap: Cap | undefined): Kind =>
  !cap ? 'view' : cap.per === 'session' ? 'session' : cap.per === 'ever' ? 'visitor' : 'days';

/** How often one visitor may see it. */
export function CapsControl() {
  const { editRule } = useWorkbenchStore().getState();
  const cap = useWorkbench((state) => state.document.rule.limits.caps[0]);
  const setCaps = (caps: Cap[], key: string) =>
    editRule((rule) => ({ ...rule, limits: { ...rule.limits, caps } }), key);
  const setDays = (count: number) => setCaps([{ max: 1, per: { count, unit: 'days' } }], 'cap.days');
  const choose = (kind: Kind) => {
    if (kind === 'view') setCaps([], 'cap');
    if (kind === 'session') setCaps([{ max: 1, per: 'session' }], 'cap');
    if (kind === 'visitor') setCaps([{ max: 1, per: 'ever' }], 'cap');
    if (kind === 'days') setDays(DEFAULT_DAYS);
  };
  const days = cap && typeof cap.per === 'object' ? cap.per.count : undefined;
  return (
    <div className="grid gap-2">
      <Choice
        label="How often"
        value={kindOf(cap)}
        onChange={choose}
        options={[
          { value: 'view', label: 'Every time a page is opened' },
          {
            value: 'session',
            label: 'Once per session',
            hint: 'A session ends after 30 minutes without activity.',
          },
          {
            value: 'visitor',
            label: 'Once per visitor',
            hint: 'Until the visitor clears the browser’s storage.',
          },
          { value: 'days', label: 'Once every so many days' },
        ]}
      />
      {days !== undefined && (
        <Field
          label="Days"
          type="number"
          min={1}
          max={365}
          value={days}
          onChange={(event) => {
            const count = Math.round(event.target.valueAsNumber);
            if (count >= 1 && count <= 365) setDays(count);
          }}
          hint="Counted from the showing, to the minute."
          className="max-w-40"
        />
      )}
    </div>
  );
}
