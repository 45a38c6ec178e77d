import { barsOf, figure, percent } from '@velarium/core';
import { cx } from '../ui/cx.ts';

export interface Bar {
  readonly label: string;
  readonly count: number;
  /** Said beside the count. */
  readonly note?: string;
}

/** Counts beside each other as lying bars, each with its share of all. */
export function Bars({
  label,
  bars,
  isShared = true,
}: {
  readonly label: string;
  readonly bars: readonly Bar[];
  readonly isShared?: boolean;
}) {
  const { sum, most } = barsOf(bars.map(({ count }) => count));
  return (
    <ul aria-label={label} className="grid gap-1.5">
      {bars.map(({ label: name, count, note }) => (
        <li key={name} className="grid grid-cols-[9rem_1fr_8rem] items-center gap-3">
          <span className="truncate" title={name}>
            {name}
          </span>
          <span aria-hidden="true" className="block h-3 bg-line/40 forced-color-adjust-none">
            <span
              className={cx('block h-3 bg-ink', count > 0 && 'min-w-px')}
              style={{ width: `${(count / most) * 100}%` }}
            />
          </span>
          <span className="text-right">
            {figure(count)}
            {isShared && sum > 0 && <span className="text-xs text-soft"> {percent(count / sum)}</span>}
            {note && <span className="block text-xs text-soft">{note}</span>}
          </span>
        </li>
      ))}
    </ul>
  );
}
