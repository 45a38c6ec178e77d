import { LIMITS } from '@velarium/contract/values';
import { useEffect, useState } from 'react';
import { Field } from '../../../ui/field.tsx';

/** Reads what a person typed for a delay: empty is at once; `undefined` is no delay at all. */
export function readSeconds(text: string): number | undefined {
  if (text.trim() === '') return 0;
  const seconds = Number(text.replace(',', '.'));
  if (!Number.isFinite(seconds) || seconds < 0 || seconds > LIMITS.triggerSeconds) return undefined;
  return Math.round(seconds * 10) / 10;
}

const writeSeconds = (seconds: number): string => (seconds ? String(seconds) : '');

export interface SecondsFieldProps {
  readonly label: string;
  readonly value: number;
  readonly least?: number;
  /** What nothing means. */
  readonly placeholder: string;
  readonly onChange: (seconds: number) => void;
}

/** A delay that is typed: follows the mark on the line, but never rewrites what means the same. */
export function SecondsField({ label, value, least = 0, placeholder, onChange }: SecondsFieldProps) {
  const [text, setText] = useState(writeSeconds(value));
  useEffect(() => setText((old) => (readSeconds(old) === value ? old : writeSeconds(value))), [value]);
  const read = readSeconds(text);
  const isWrong = read === undefined || read < least;
  return (
    <Field
      label={label}
      inputMode="decimal"
      placeholder={placeholder}
      value={text}
      error={
        isWrong
          ? `Write a number from ${least} to ${LIMITS.triggerSeconds}${least === 0 ? ', or nothing for at once' : ''}.`
          : undefined
      }
      onChange={(event) => {
        setText(event.target.value);
        const next = readSeconds(event.target.value);
        if (next !== undefined && next >= least) onChange(next);
      }}
    />
  );
}
