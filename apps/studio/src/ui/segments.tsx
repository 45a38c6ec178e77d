import { type ReactNode, useId } from 'react';
import { useIsReadOnly } from './read-only.ts';

export interface SegmentsProps<Value extends string> {
  readonly label: string;
  readonly value: Value | undefined;
  readonly options: readonly { readonly value: Value; readonly label: string; readonly sign?: ReactNode }[];
  readonly onChange: (value: Value) => void;
  readonly isLabelHidden?: boolean;
}

/** A few short options side by side, one of them chosen. */
export function Segments<Value extends string>({
  label,
  value,
  options,
  onChange,
  isLabelHidden,
}: SegmentsProps<Value>) {
  const name = useId();
  const isReadOnly = useIsReadOnly();
  return (
    <fieldset className="min-w-0">
      <legend className={isLabelHidden ? 'sr-only' : 'mb-1 text-xs'}>{label}</legend>
      <div className="flex overflow-hidden rounded border border-line-strong bg-sheet">
        {options.map((option) => (
          <label
            key={option.value}
            title={option.sign ? option.label : undefined}
            className="relative grid h-7.5 min-w-0 flex-1 cursor-pointer place-items-center truncate border-l border-line px-1.5 first:border-l-0 hover:bg-sail-wash has-checked:bg-ink has-checked:text-sheet has-focus-visible:outline-2 has-focus-visible:-outline-offset-2 has-focus-visible:outline-sail"
          >
            <input
              type="radio"
              name={name}
              disabled={isReadOnly}
              aria-label={option.label}
              checked={option.value === value}
              onChange={() => onChange(option.value)}
              className="absolute inset-0 m-0 cursor-pointer opacity-0"
            />
            <span aria-hidden="true">{option.sign ?? option.label}</span>
          </label>
        ))}
      </div>
    </fieldset>
  );
}
