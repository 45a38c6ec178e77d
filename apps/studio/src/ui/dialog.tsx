import { X } from 'lucide-react';
import { Dialog as Radix } from 'radix-ui';
import type { ReactNode } from 'react';
import { IconButton } from './button.tsx';
import { cx } from './cx.ts';
import { keepInSight } from './keep-in-sight.ts';
import { Scrolled } from './scrolled.tsx';

/** What is told over a dialog that is open, to be pressed without closing it. */
export const TOLD_OVER = { 'data-told': true } as const;

export interface DialogProps {
  readonly isOpen: boolean;
  readonly onClose: () => void;
  readonly title: string;
  readonly description?: string;
  readonly children: ReactNode;
  /**
   * What is decided here. With it the dialog keeps its height while what it says comes bit by bit, so that no button
   * moves away from under a pointer.
   */
  readonly foot?: ReactNode;
  readonly className?: string;
}

export function Dialog({ isOpen, onClose, title, description, children, foot, className }: DialogProps) {
  return (
    <Radix.Root open={isOpen} onOpenChange={(open) => !open && onClose()}>
      <Radix.Portal>
        {/* Under what is told over a dialog; but over the dialog that this one was opened in. */}
        <Radix.Overlay className="fixed inset-0 z-38 bg-ink/35 [[role=dialog]~&]:z-40" />
        <Radix.Content
          {...(description ? {} : { 'aria-describedby': undefined })}
          onFocus={keepInSight}
          onInteractOutside={(event) => {
            if (event.target instanceof Element && event.target.closest('[data-told]'))
              event.preventDefault();
          }}
          className={cx(
            'settle fixed top-1/2 left-1/2 z-40 max-h-[88vh] w-[min(92vw,32rem)] -translate-x-1/2 -translate-y-1/2 scroll-pb-16 overflow-y-auto rounded-lg bg-paper p-6 shadow-float outline-none',
            foot !== undefined && 'flex h-[min(88vh,42rem)] flex-col',
            className,
          )}
        >
          <div className="mb-4 flex items-start justify-between gap-4">
            <div>
              <Radix.Title className="font-serif text-2xl leading-tight">{title}</Radix.Title>
              {description && <Radix.Description className="mt-1 text-soft">{description}</Radix.Description>}
            </div>
            <div className="flex-none">
              <Radix.Close asChild>
                <IconButton label="Close">
                  <X size={16} aria-hidden />
                </IconButton>
              </Radix.Close>
            </div>
          </div>
          {foot === undefined ? (
            children
          ) : (
            <>
              <Scrolled label={title} className="-mx-6 min-h-40 flex-1 overflow-y-auto px-6 pb-4">
                {children}
              </Scrolled>
              <div className="-mx-6 flex-none border-t border-line-strong px-6 pt-4">{foot}</div>
            </>
          )}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
