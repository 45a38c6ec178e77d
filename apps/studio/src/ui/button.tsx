import type { ComponentProps } from 'react';
import { cx } from './cx.ts';
import { useIsReadOnly } from './read-only.ts';

type ButtonTone = 'main' | 'plain' | 'quiet' | 'halt';

const TONE: Readonly<Record<ButtonTone, string>> = {
  main: 'bg-sail text-on-sail forced-color-adjust-none hover:bg-sail-deep',
  plain: 'bg-sheet border border-line-strong hover:border-ink',
  quiet: 'hover:bg-sail-wash',
  halt: 'bg-halt text-sheet forced-color-adjust-none hover:opacity-90',
};

export interface ButtonProps extends ComponentProps<'button'> {
  readonly tone?: ButtonTone;
  /** Under way: cannot be pressed again and says so. */
  readonly isBusy?: boolean;
}

export function Button({
  tone = 'plain',
  isBusy = false,
  className,
  disabled,
  children,
  ...rest
}: ButtonProps) {
  const isReadOnly = useIsReadOnly();
  return (
    <button
      type="button"
      {...rest}
      disabled={disabled || isBusy || isReadOnly}
      aria-busy={isBusy || undefined}
      className={cx(
        'inline-flex h-8 items-center justify-center gap-1.5 rounded px-3 font-medium whitespace-nowrap',
        'disabled:cursor-not-allowed disabled:opacity-50',
        TONE[tone],
        className,
      )}
    >
      {children}
    </button>
  );
}

/** A square button with a sign only; its name is heard and shown as a tip. */
export function IconButton({
  label,
  className,
  ...rest
}: ComponentProps<'button'> & { readonly label: string }) {
  return (
    <button
      type="button"
      {...rest}
      aria-label={label}
      title={label}
      className={cx(
        'inline-grid size-8 place-items-center rounded hover:bg-sail-wash disabled:cursor-not-allowed disabled:opacity-40',
        className,
      )}
    />
  );
}
