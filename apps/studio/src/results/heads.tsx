import { cx } from '../ui/cx.ts';

interface Head {
  readonly words: string;
  /** Figures stand at the right of their column. */
  readonly isFigure?: boolean;
  /** Its width, and the room before it where it is not the usual. */
  readonly className?: string;
}

/** The heads of a table of results. */
export function Heads({ heads }: { readonly heads: readonly Head[] }) {
  return (
    <thead>
      <tr className="border-b border-line-strong text-xs text-soft">
        {heads.map(({ words, isFigure, className }, at) => (
          <th
            key={words}
            scope="col"
            className={cx(
              'py-2 font-medium',
              at === 0 ? 'pr-4' : isFigure ? 'pl-4 text-right' : 'pl-6',
              className,
            )}
          >
            {words}
          </th>
        ))}
      </tr>
    </thead>
  );
}
