import { Check, ChevronDown } from 'lucide-react';
import { Select as Radix } from 'radix-ui';
import { cx } from './cx.ts';
import { inputClass } from './field.tsx';
import { useIsReadOnly } from './read-only.ts';

export interface SelectProps<Value extends string> {
  readonly label: string;
  readonly value: Value;
  readonly options: readonly { readonly value: Value; readonly label: string }[];
  readonly onChange: (value: Value) => void;
  readonly isLabelHidden?: boolean;
  readonly className?: string;
}

export function Select<Value extends string>(props: SelectProps<Value>) {
  const { label, value, options, onChange, isLabelHidden = false, className } = props;
  const isReadOnly = useIsReadOnly();
  return (
    <div className={cx('grid gap-1', className)}>
      {!isLabelHidden && <span className="text-xs">{label}</span>}
      <Radix.Root value={value} disabled={isReadOnly} onValueChange={(next) => onChange(next as Value)}>
        <Radix.Trigger
          aria-label={label}
          className={cx(inputClass, 'flex items-center justify-between gap-2 [&>span]:truncate')}
        >
          <Radix.Value />
          <ChevronDown size={14} aria-hidden />
        </Radix.Trigger>
        <Radix.Portal>
          <Radix.Content
            position="popper"
            sideOffset={4}
            className="settle z-50 max-h-72 min-w-(--radix-select-trigger-width) overflow-y-auto rounded-md border border-line bg-sheet p-1 shadow-float"
          >
            <Radix.Viewport>
              {options.map((option) => (
                <Radix.Item
                  key={option.value}
                  value={option.value}
                  className="flex h-8 cursor-pointer items-center justify-between gap-4 rounded px-2.5 outline-none data-highlighted:bg-sail-wash"
                >
                  <Radix.ItemText>{option.label}</Radix.ItemText>
                  <Radix.ItemIndicator>
                    <Check size={14} aria-hidden />
                  </Radix.ItemIndicator>
                </Radix.Item>
              ))}
            </Radix.Viewport>
          </Radix.Content>
        </Radix.Portal>
      </Radix.Root>
    </div>
  );
}
