import type { AddressTrial } from '@velarium/core';
import { quantity } from '@velarium/core';
import { Minus, Plus } from 'lucide-react';
import { useMemo, useState } from 'react';
import { IconButton } from '../../../ui/button.tsx';
import { cx } from '../../../ui/cx.ts';
import { Fold } from '../../../ui/fold.tsx';
import { useWorkbench } from '../../store.ts';
import { treeOf } from './page-tree.ts';
import { useCoverage } from './use-coverage.ts';
import { usePageEdits } from './use-pages.ts';

/** Rows drawn at once; the rest come when they are asked for. */
const ROWS = 60;
const SIGN: Readonly<Record<AddressTrial['fit'], { readonly sign: string; readonly words: string }>> = {
  fits: { sign: '●', words: 'it opens here' },
  excluded: { sign: '◌', words: 'taken out' },
  unmatched: { sign: '○', words: 'not here' },
  nowhere: { sign: '○', words: 'not here' },
};

/** The pages the rules cover and how often they are seen; the tree of the site, from which rules are made. */
export function CoveredPages() {
  const { pages, covered, views, fitOf, isPending, hasFailed } = useCoverage();
  const canEdit = useWorkbench((state) => state.canEdit);
  const { add } = usePageEdits();
  const [closed, setClosed] = useState<ReadonlySet<string>>(new Set());
  const [shown, setShown] = useState(ROWS);
  const rows = useMemo(() => treeOf(pages, closed), [pages, closed]);
  if (hasFailed || (!isPending && pages.length === 0)) return null;
  return (
    <Fold
      title={
        isPending
          ? 'Counting pages …'
          : `Covers ${covered.length.toLocaleString('en-GB')} of ${quantity(pages.length, 'page')}`
      }
      note={!isPending && `${views.toLocaleString('en-GB')} views a month`}
    >
      <ul aria-label="Pages by path" className="-ml-5 grid grid-cols-[minmax(0,1fr)]">
        {rows.slice(0, shown).map((row) => {
          const fit = row.page ? SIGN[fitOf(row.page.path)] : undefined;
          return (
            <li
              key={row.key}
              className="group/row flex h-6 items-center gap-1.5 rounded pr-1 hover:bg-sail-wash"
              style={{ paddingLeft: row.depth * 12 }}
            >
              {row.page ? (
                <span
                  className={cx('w-4 flex-none text-center', fit?.sign === '●' ? 'text-sail' : 'text-soft')}
                  title={fit?.words}
                >
                  {fit?.sign}
                  <span className="sr-only">{fit?.words}</span>
                </span>
              ) : (
                <button
                  type="button"
                  aria-expanded={!closed.has(row.folder)}
                  aria-label={row.folder}
                  onClick={() =>
                    setClosed((old) => {
                      const next = new Set(old);
                      if (!next.delete(row.folder)) next.add(row.folder);
                      return next;
                    })
                  }
                  className="w-4 flex-none text-soft"
                >
                  {closed.has(row.folder) ? '▸' : '▾'}
                </button>
              )}
              <span
                className={cx('min-w-0 flex-1 truncate', !row.page && 'font-medium')}
                title={row.page?.path}
              >
                {row.page ? row.page.title : row.folder}
              </span>
              {canEdit && (
                <span className="flex opacity-0 group-focus-within/row:opacity-100 group-hover/row:opacity-100">
                  <IconButton
                    label={`Open on ${row.page?.path ?? `everything under ${row.folder}`}`}
                    onClick={() => add('include', row.rule)}
                  >
                    <Plus size={12} aria-hidden />
                  </IconButton>
                  <IconButton
                    label={`Never on ${row.page?.path ?? `anything under ${row.folder}`}`}
                    onClick={() => add('exclude', row.rule)}
                  >
                    <Minus size={12} aria-hidden />
                  </IconButton>
                </span>
              )}
              <span className="w-12 flex-none text-right text-xs text-soft tabular-nums">
                {row.views.toLocaleString('en-GB')}
              </span>
            </li>
          );
        })}
      </ul>
      {rows.length > shown && (
        <button
          type="button"
          className="justify-self-start underline underline-offset-4"
          onClick={() => setShown(shown + 10 * ROWS)}
        >
          {(rows.length - shown).toLocaleString('en-GB')} more
        </button>
      )}
    </Fold>
  );
}
