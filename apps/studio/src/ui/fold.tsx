import { ChevronRight } from 'lucide-react';
import type { ReactNode } from 'react';

export interface FoldProps {
  readonly title: string;
  /** What is set, in a few words, in sight while it is folded. */
  readonly note?: ReactNode;
  readonly isOpen?: boolean;
  readonly children: ReactNode;
}

/** A part of a panel that is folded away until it is wanted. */
export function Fold({ title, note, isOpen = false, children }: FoldProps) {
  return (
    <details open={isOpen} className="group border-t border-line">
      <summary className="flex h-9 list-none items-center gap-1.5 rounded hover:bg-sail-wash [&::-webkit-details-marker]:hidden">
        <ChevronRight
          size={14}
          aria-hidden
          className="text-soft transition-transform duration-100 group-open:rotate-90"
        />
        <span className="font-medium">{title}</span>
        {note && <span className="ml-auto truncate pr-1 text-xs text-soft">{note}</span>}
      </summary>
      <div className="grid gap-3 pt-1 pb-4 pl-5">{children}</div>
    </details>
  );
}
