import { DropdownMenu } from 'radix-ui';
import type { ReactNode } from 'react';
import { cx } from './cx.ts';

export interface MenuItem {
  readonly label: string;
  readonly onSelect: () => void;
  readonly isHalting?: boolean;
}

/** A menu opened by `children`, which must be one button. */
export function Menu({
  items,
  children,
}: {
  readonly items: readonly MenuItem[];
  readonly children: ReactNode;
}) {
  return (
    // What lies behind stays what it is: hidden from readers it could still have the focus.
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger asChild>{children}</DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="end"
          sideOffset={4}
          className="settle z-50 min-w-44 rounded-md border border-line bg-sheet p-1 shadow-float"
        >
          {items.map(({ label, onSelect, isHalting }) => (
            <DropdownMenu.Item
              key={label}
              onSelect={onSelect}
              className={cx(
                'flex h-8 cursor-pointer items-center rounded px-2.5 outline-none data-highlighted:bg-sail-wash',
                isHalting && 'text-halt',
              )}
            >
              {label}
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
