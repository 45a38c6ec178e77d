import type { Span } from '@velarium/contract';
import { SPAN_UNITS } from '@velarium/contract/values';
import { capital } from '@velarium/core';
import { NumberField } from '../../../ui/number-field.tsx';
import { Select } from '../../../ui/select.tsx';

/** A length of time: a number and its unit. A month is 30 days. */
export function SpanField({
  label,
  value,
  onChange,
}: {
  readonly label: string;
  readonly value: Span;
  readonly onChange: (span: Span) => void;
}) {
  const unit = capital(value.unit);
  return (
    <div className="grid grid-cols-[5rem_1fr] items-end gap-2">
      {/* Named by its unit, so that "Days" is a field that can be asked for. */}
      <NumberField
        label={unit}
        value={value.count}
        min={1}
        max={999}
        onChange={(count) => onChange({ ...value, count })}
      />
      <Select
        label={label}
        isLabelHidden
        value={value.unit}
        options={SPAN_UNITS.map((one) => ({
          value: one,
          label: one === 'months' ? 'months of 30 days' : one,
        }))}
        onChange={(next) => onChange({ ...value, unit: next })}
      />
    </div>
  );
}
