import { useId } from 'react';
import { useIsReadOnly } from '../../ui/read-only.ts';

export interface ChoiceProps<Value extends string> {
  readonly label: string;
  readonly value: Value;
  readonly options: readonly { readonly value: Value; readonly label: string; readonly hint?: string }[];
  readonly onChange: (value: Value) => void;
}

/** A few options, all in sight. */
export function Choice<Value extends string>({ label, value, options, onChange }: ChoiceProps<Value>) {
  const isReadOnly = useIsReadOnly();
  const name = useId();
  return (
    <fieldset className="grid gap-1">
      <legend className="mb-1 font-medium">{label}</legend>
      {options.map((option) => (
        <label
          key={option.value}
          className="flex cursor-pointer items-baseline gap-2 rounded px-1.5 py-1 hover:bg-sail-wash has-checked:bg-sheet"
        >
          <input
            type="radio"
            name={name}
            disabled={isReadOnly}
            checked={option.value === value}
            onChange={() => onChange(option.value)}
            className="translate-y-px accent-sail"
          />
          <span>
            {option.label}
            {option.hint && <span className="block text-xs text-soft">{option.hint}</span>}
          </span>
        </label>
      ))}
    </fieldset>
  );
}
