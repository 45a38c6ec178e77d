import { Tooltip as Radix } from 'radix-ui';
import type { ReactNode } from 'react';

/** Says more about `children`, one focusable element, on hover and on focus. */
export function Tooltip({ text, children }: { readonly text: string; readonly children: ReactNode }) {
  return (
    <Radix.Root delayDuration={250}>
      <Radix.Trigger asChild>{children}</Radix.Trigger>
      <Radix.Portal>
        <Radix.Content
          sideOffset={6}
          collisionPadding={8}
          className="z-50 max-w-64 rounded bg-ink px-2.5 py-1.5 text-xs text-sheet shadow-float"
        >
          {text}
          <Radix.Arrow className="fill-ink" />
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
export const TooltipProvider = Radix.Provider;
