import { type ComponentProps, useId } from 'react';
import { cx } from './cx.ts';
import { FieldNote, type FieldProps, inputClass } from './field.tsx';
import { useIsReadOnly } from './read-only.ts';

/** Several lines of text under a label. */
export function TextArea({
  label,
  hint,
  error,
  className,
  ...rest
}: ComponentProps<'textarea'> & Pick<FieldProps, 'label' | 'hint' | 'error'>) {
  const id = useId();
  const noteId = `${id}-note`;
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
        aria-invalid={error ? true : undefined}
        aria-describedby={hint || error ? noteId : undefined}
        className={cx(inputClass, 'h-auto min-h-16 py-1.5', className)}
      />
      <FieldNote id={noteId} hint={hint} error={error} />
    </div>
  );
}
