import { Popover as Radix } from 'radix-ui';
import type { ReactNode } from 'react';
import { keepInSight } from './keep-in-sight.ts';

export interface PopoverProps {
  /** One button that opens it. */
  readonly trigger: ReactNode;
  readonly label: string;
  /** Where the owner opens and closes it. */
  readonly isOpen?: boolean;
  readonly onOpenChange?: (isOpen: boolean) => void;
  readonly children: ReactNode;
}

export function Popover({ trigger, label, isOpen, onOpenChange, children }: PopoverProps) {
  return (
    <Radix.Root
      {...(isOpen === undefined ? {} : { open: isOpen })}
      {...(onOpenChange ? { onOpenChange } : {})}
    >
      <Radix.Trigger asChild>{trigger}</Radix.Trigger>
      <Radix.Portal>
        <Radix.Content
          aria-label={label}
          onFocus={keepInSight}
          sideOffset={6}
          collisionPadding={12}
          className="settle z-50 max-h-[70vh] w-80 overflow-y-auto rounded-md border border-line bg-paper p-4 shadow-float outline-none"
        >
          {children}
          <Radix.Arrow className="fill-line" />
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
