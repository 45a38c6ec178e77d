import { type ComponentProps, type ReactNode, useId } from 'react';
import { cx } from './cx.ts';
import { useIsReadOnly } from './read-only.ts';

export interface FieldProps extends ComponentProps<'input'> {
  readonly label: string;
  readonly hint?: ReactNode;
  /** What is wrong and how to mend it. */
  readonly error?: string | undefined;
}

export const inputClass =
  'h-8 w-full rounded border border-line-strong bg-sheet px-2.5 placeholder:text-soft hover:border-ink aria-invalid:border-halt aria-invalid:border-2';

interface FieldNoteProps extends Pick<FieldProps, 'hint' | 'error'> {
  readonly id: string;
}

/** What is wrong with a field, or else what helps to fill it in. */
export const FieldNote = ({ id, hint, error }: FieldNoteProps) =>
  (error || hint) && (
    <p id={id} className={cx('text-xs', error ? 'font-medium text-halt' : 'text-soft')}>
      {error ?? hint}
    </p>
  );

export function Field({ label, hint, error, className, ...rest }: FieldProps) {
  const id = useId();
  const noteId = `${id}-note`;
  const isReadOnly = useIsReadOnly();
  return (
    <div className={cx('grid gap-1', className)}>
      <label htmlFor={id} className="text-xs">
        {label}
      </label>
      <input
        readOnly={isReadOnly}
        {...rest}
        id={id}
        aria-invalid={error ? true : undefined}
        aria-describedby={hint || error ? noteId : undefined}
        className={inputClass}
      />
      <FieldNote id={noteId} hint={hint} error={error} />
    </div>
  );
}
