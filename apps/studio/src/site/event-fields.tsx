import type { DataCondition } from '@velarium/contract';
import { COMPARISONS } from '@velarium/contract/values';
import { COMPARISON_WORDS } from '@velarium/core';
import { Field } from '../ui/field.tsx';
import { Select } from '../ui/select.tsx';
import { Switch } from '../ui/switch.tsx';

interface AskedEvent {
  readonly name: string;
  readonly condition: DataCondition | null;
}

/** A value as the page would send it: numbers and truths are told from words. */
const readValue = (text: string): DataCondition['value'] =>
  text === 'true' || text === 'false'
    ? text === 'true'
    : text.trim() !== '' && Number.isFinite(Number(text))
      ? Number(text)
      : text.slice(0, 300);

interface EventFieldsProps {
  readonly event: AskedEvent;
  readonly onChange: (change: Partial<AskedEvent>) => void;
}

/** An event the page tells of, by its name and what its data holds. */
export function EventFields({ event: { name, condition }, onChange }: EventFieldsProps) {
  const set = (change: Partial<DataCondition>) =>
    condition && onChange({ condition: { ...condition, ...change } });
  return (
    <>
      <Field
        label="Name of the event"
        value={name}
        maxLength={80}
        list="velarium-events"
        onChange={(event) => event.target.value.trim() && onChange({ name: event.target.value })}
        hint="basket and signIn are told by themselves; others as velarium.event(name, data)."
      />
      <datalist id="velarium-events">
        <option value="basket" />
        <option value="signIn" />
      </datalist>
      <Switch
        label="Only with certain data"
        isOn={condition !== null}
        onChange={(is) =>
          onChange({ condition: is ? { path: 'total', comparison: 'atLeast', value: 60 } : null })
        }
      />
      {condition && (
        <div className="grid grid-cols-[1fr_6.5rem_1fr] items-end gap-2">
          <Field
            label="Value"
            value={condition.path}
            maxLength={120}
            onChange={(event) => event.target.value && set({ path: event.target.value })}
          />
          <Select
            label="Is"
            value={condition.comparison}
            options={COMPARISONS.map((value) => ({ value, label: COMPARISON_WORDS[value] }))}
            onChange={(comparison) => set({ comparison })}
          />
          <Field
            label="This"
            value={String(condition.value)}
            maxLength={300}
            onChange={(event) => set({ value: readValue(event.target.value) })}
          />
        </div>
      )}
    </>
  );
}
