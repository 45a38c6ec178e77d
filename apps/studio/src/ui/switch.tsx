import { Switch as Radix } from 'radix-ui';
import { type ReactNode, useId } from 'react';
import { useIsReadOnly } from './read-only.ts';

export interface SwitchProps {
  readonly label: string;
  readonly isOn: boolean;
  readonly onChange: (isOn: boolean) => void;
  readonly hint?: ReactNode;
}

export function Switch({ label, isOn, onChange, hint }: SwitchProps) {
  const id = useId();
  const isReadOnly = useIsReadOnly();
  return (
    <div className="grid grid-cols-[1fr_auto] items-center gap-x-3">
      <label htmlFor={id}>{label}</label>
      <Radix.Root
        id={id}
        disabled={isReadOnly}
        checked={isOn}
        onCheckedChange={onChange}
        aria-describedby={hint ? `${id}-hint` : undefined}
        className="h-6 w-10 forced-color-adjust-none rounded-full border border-line-strong bg-sheet p-0.5 data-[state=checked]:border-ink data-[state=checked]:bg-ink disabled:cursor-not-allowed disabled:opacity-60"
      >
        <Radix.Thumb className="block size-4.5 rounded-full bg-line-strong transition-transform duration-100 data-[state=checked]:translate-x-4 data-[state=checked]:bg-sheet" />
      </Radix.Root>
      {hint && (
        <p id={`${id}-hint`} className="col-span-2 text-xs text-soft">
          {hint}
        </p>
      )}
    </div>
  );
}
