import { type Ref, useRef, useState } from 'react';
import { cx } from './cx.ts';

interface SearchFieldProps {
  readonly label: string;
  readonly placeholder?: string;
  readonly value: string;
  readonly onChange: (words: string) => void;
  readonly className?: string;
  readonly ref?: Ref<HTMLInputElement>;
}

/**
 * A field to find things by. What stands in it is what was typed, at once: whoever keeps the words, the address for one, may
 * come after and must take no letter away.
 */
export function SearchField({
  label,
  placeholder = label,
  value,
  onChange,
  className,
  ref,
}: SearchFieldProps) {
  const [typed, setTyped] = useState(value);
  const told = useRef(value);
  // Changed by somebody else: a link, a step back, words taken away by a button.
  const [seen, setSeen] = useState(value);
  if (value !== seen) {
    setSeen(value);
    if (value !== told.current && value !== typed) setTyped(value);
  }
  return (
    <input
      ref={ref}
      type="search"
      aria-label={label}
      placeholder={placeholder}
      value={typed}
      maxLength={200}
      onChange={(event) => {
        told.current = event.target.value;
        setTyped(event.target.value);
        onChange(event.target.value);
      }}
      className={cx(
        'h-8 rounded border border-line-strong bg-sheet px-2.5 placeholder:text-soft hover:border-ink',
        className ?? 'w-72',
      )}
    />
  );
}
