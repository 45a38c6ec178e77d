import type { ReactNode } from 'react';
import { cx } from './cx.ts';

export interface WideTableProps {
  readonly caption: string;
  readonly isCaptionSeen?: boolean;
  /** How narrow it may be before it scrolls, and its other looks. */
  readonly className: string;
  readonly children: ReactNode;
}

/** A table that keeps its width in a narrow window and is moved across there; what it and its rows are called stays. */
export function WideTable({ caption, isCaptionSeen, className, children }: WideTableProps) {
  return (
    <div className="overflow-x-auto">
      <table
        className={cx(
          'w-full border-collapse text-left [&_tbody_th]:sticky [&_tbody_th]:left-0 [&_tbody_th]:z-10 [&_tbody_th]:bg-paper',
          className,
        )}
      >
        <caption className={cx('text-left text-xs text-soft', !isCaptionSeen && 'sr-only')}>
          <span className="sticky left-0 inline-block max-w-[calc(100vw-2rem)] pb-2">{caption}</span>
        </caption>
        {children}
      </table>
    </div>
  );
}
