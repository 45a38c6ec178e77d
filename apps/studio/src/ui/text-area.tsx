import { type ComponentProps, useId } from 'react';
import { cx } from './cx.ts';
import { inputClass } from './field.tsx';
import { useIsReadOnly } from './read-only.ts';

/** Several lines of text under a label. */
export function TextArea({
  label,
  hint,
  className,
  ...rest
}: ComponentProps<'textarea'> & { readonly label: string; readonly hint?: string }) {
  const id = useId();
  const isReadOnly = useIsReadOnly();
  return (
    <div className="grid gap-1">
      <label htmlFor={id} className="text-xs">
        {label}
      </label>
      <textarea
        readOnly={isReadOnly}
        {...rest}
        id={id}
        aria-describedby={hint ? `${id}-hint` : undefined}
        className={cx(inputClass, 'h-auto min-h-16 py-1.5', className)}
      />
      {hint && (
        <p id={`${id}-hint`} className="text-xs text-soft">
          {hint}
        </p>
      )}
    </div>
  );
}
