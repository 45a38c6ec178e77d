import { X } from 'lucide-react';
import { Dialog as Radix } from 'radix-ui';
import type { ReactNode } from 'react';
import { IconButton } from './button.tsx';
import { cx } from './cx.ts';

export interface DialogProps {
  readonly isOpen: boolean;
  readonly onClose: () => void;
  readonly title: string;
  readonly description?: string;
  readonly children: ReactNode;
  readonly className?: string;
}

export function Dialog({ isOpen, onClose, title, description, children, className }: DialogProps) {
  return (
    <Radix.Root open={isOpen} onOpenChange={(open) => !open && onClose()}>
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 z-40 bg-ink/35" />
        <Radix.Content
          {...(description ? {} : { 'aria-describedby': undefined })}
          className={cx(
            'settle fixed top-1/2 left-1/2 z-40 max-h-[88vh] w-[min(92vw,32rem)] -translate-x-1/2 -translate-y-1/2 overflow-auto rounded-lg bg-paper p-6 shadow-float outline-none',
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
          {children}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
