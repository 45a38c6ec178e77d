import { useId } from 'react';
import { cx } from './cx.ts';
import { inputClass } from './field.tsx';
import { useIsReadOnly } from './read-only.ts';
import { useFieldText } from './use-field-text.ts';

export interface NumberFieldProps {
  readonly label: string;
  readonly value: number | undefined;
  readonly min: number;
  readonly max: number;
  readonly unit?: string;
  readonly step?: number;
  /** Shown while nothing is set: what holds then. */
  readonly placeholder?: string;
  readonly isLabelHidden?: boolean;
  readonly onChange: (value: number) => void;
  /** Where nothing may be set: called when the field is emptied. Elsewhere an emptied field takes its value back. */
  readonly onClear?: () => void;
}

/** A whole number that is typed or stepped by the arrow keys; what is out of bounds is taken to the nearest bound. */
export function NumberField(props: NumberFieldProps) {
  const { label, value, min, max, unit, step = 1, placeholder, isLabelHidden, onChange, onClear } = props;
  const id = useId();
  const isReadOnly = useIsReadOnly();
  const written = value === undefined ? '' : String(value);
  const [text, setText] = useFieldText(written);
  const take = (next: number) => onChange(Math.min(max, Math.max(min, Math.round(next))));
  return (
    <div className="grid gap-1">
      <label htmlFor={id} className={isLabelHidden ? 'sr-only' : 'text-xs'}>
        {label}
      </label>
      <div className="relative">
        <input
          id={id}
          inputMode="numeric"
          readOnly={isReadOnly}
          value={text}
          placeholder={placeholder}
          onChange={(event) => {
            setText(event.target.value);
            if (event.target.value.trim() === '') return onClear?.();
            const next = Number(event.target.value);
            if (Number.isFinite(next) && next >= min && next <= max) take(next);
          }}
          onBlur={() => {
            const next = Number(text);
            setText(written);
            if (text !== written && text.trim() !== '' && Number.isFinite(next)) take(next);
          }}
          onKeyDown={(event) => {
            if (isReadOnly || (event.key !== 'ArrowUp' && event.key !== 'ArrowDown')) return;
            event.preventDefault();
            const by = step * (event.shiftKey ? 10 : 1) * (event.key === 'ArrowUp' ? 1 : -1);
            take((value ?? (Number(placeholder) || min)) + by);
          }}
          className={cx(inputClass, unit && 'pr-9')}
        />
        {unit && (
          <span
            aria-hidden="true"
            className="pointer-events-none absolute top-1.5 right-2.5 text-xs text-soft"
          >
            {unit}
          </span>
        )}
      </div>
    </div>
  );
}
