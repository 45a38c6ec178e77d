import { useVirtualizer } from '@tanstack/react-virtual';
import {
  CELL_WORDS,
  type Cell,
  type CellsSay,
  type Coverage,
  counted,
  figure,
  type HowOften,
  oftenWords,
  shortFigure,
} from '@velarium/core';
import { ChevronDown, ChevronRight } from 'lucide-react';
import { type KeyboardEvent, useEffect, useRef } from 'react';
import { cx } from '../ui/cx.ts';
import type { CoverRow } from './cover-rows.ts';

/** A place of the map: its row, and its campaign or, before the first, the page itself. */
export interface Spot {
  readonly row: number;
  readonly campaign: number;
}
/** The page itself, before its campaigns. */
export const PAGE = -1;

interface CoverGridProps {
  readonly coverage: Coverage;
  readonly rows: readonly CoverRow[];
  readonly say: CellsSay;
  /** Where the cells are to say it, once it is known. */
  readonly often: HowOften | undefined;
  readonly nameOf: (campaign: string) => string;
  readonly spot: Spot;
  readonly onSpot: (spot: Spot) => void;
  readonly onFold: (row: CoverRow) => void;
}

const ROW = 28;
/** Columns are as wide as a sign needs; where they are few, as a glance likes. */
const COLUMN = { few: 56, many: 34 };
const FEW = 10;
/** Room for the names of pages, in a wide window and on a phone. */
const NAMES = { wide: 300, narrow: 170 };
const NARROW = '(max-width: 40rem)';
const HEAD = 148;
/**
 * Pages down, campaigns across: who can appear where. Only what is in sight is drawn, which a table cannot do in both
 * directions; it is the grid of the ARIA practices: one stop for the tab key, and arrow keys from cell to cell.
 */
export function CoverGrid({ coverage, rows, say, often, nameOf, spot, onSpot, onFold }: CoverGridProps) {
  const scroller = useRef<HTMLDivElement>(null);
  const { campaigns } = coverage;
  const room = matchMedia(NARROW).matches ? NAMES.narrow : NAMES.wide;
  const wide = campaigns.length > FEW ? COLUMN.many : COLUMN.few;
  const down = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW,
    overscan: 10,
  });
  const across = useVirtualizer({
    horizontal: true,
    count: campaigns.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => wide,
    overscan: 6,
  });
  const hasFocus = useRef(false);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the cell in focus follows the spot, and nothing else.
  useEffect(() => {
    down.scrollToIndex(spot.row);
    if (spot.campaign >= 0) across.scrollToIndex(spot.campaign);
    // What was chosen elsewhere is shown, and leaves the focus there.
    if (!hasFocus.current) return;
    // Drawn by then, also where it was out of sight.
    const frame = requestAnimationFrame(() =>
      scroller.current
        ?.querySelector<HTMLElement>('[tabindex="0"][data-spot]')
        ?.focus({ preventScroll: true }),
    );
    return () => cancelAnimationFrame(frame);
  }, [spot]);
  const onKeyDown = (event: KeyboardEvent) => {
    const row = rows[spot.row];
    const step: Readonly<Record<string, Spot>> = {
      ArrowDown: { ...spot, row: Math.min(rows.length - 1, spot.row + 1) },
      ArrowUp: { ...spot, row: Math.max(0, spot.row - 1) },
      ArrowRight: { ...spot, campaign: Math.min(campaigns.length - 1, spot.campaign + 1) },
      ArrowLeft: { ...spot, campaign: Math.max(PAGE, spot.campaign - 1) },
      Home: { ...spot, campaign: PAGE },
      End: { ...spot, campaign: campaigns.length - 1 },
      PageDown: { ...spot, row: Math.min(rows.length - 1, spot.row + 15) },
      PageUp: { ...spot, row: Math.max(0, spot.row - 15) },
    };
    const next = step[event.key];
    if (next) {
      event.preventDefault();
      onSpot(next);
    } else if (event.key === 'Enter' && spot.campaign === PAGE && row?.isFolder) {
      event.preventDefault();
      onFold(row);
    }
  };
  const columns = across.getVirtualItems();
  return (
    <div
      ref={scroller}
      role="grid"
      aria-label="What can appear where"
      aria-rowcount={rows.length + 1}
      aria-colcount={campaigns.length + 1}
      onKeyDown={onKeyDown}
      onFocus={() => {
        hasFocus.current = true;
      }}
      onBlur={() => {
        hasFocus.current = false;
      }}
      className="max-h-[min(68vh,44rem)] overflow-auto border-y border-line-strong"
    >
      <div
        className="relative"
        style={{ width: room + across.getTotalSize(), height: HEAD + down.getTotalSize() }}
      >
        <div role="row" aria-rowindex={1} className="sticky top-0 z-20 bg-paper" style={{ height: HEAD }}>
          <span
            role="columnheader"
            tabIndex={-1}
            className="sticky left-0 z-10 flex h-full items-end border-b border-line-strong bg-paper pb-2 text-xs text-soft"
            style={{ width: room }}
          >
            Pages, with page views of 30 days
          </span>
          {columns.map(({ index, start }) => {
            const name = nameOf(campaigns[index]?.id ?? '');
            return (
              <span
                key={campaigns[index]?.id}
                role="columnheader"
                tabIndex={-1}
                aria-colindex={index + 2}
                title={name}
                className={cx(
                  'absolute bottom-0 flex justify-center border-b border-line-strong pb-2',
                  spot.campaign === index && 'bg-sail-wash font-semibold',
                )}
                style={{ left: room + start, width: wide, height: HEAD }}
              >
                <span className="max-h-full rotate-180 truncate text-left [text-orientation:sideways] [writing-mode:vertical-rl]">
                  {name}
                </span>
              </span>
            );
          })}
        </div>
        {down.getVirtualItems().map(({ index: at, start }) => {
          const row = rows[at];
          if (!row) return null;
          return (
            <div
              key={row.key}
              role="row"
              aria-rowindex={at + 2}
              className={cx('absolute border-b border-line', spot.row === at && 'bg-sail-wash')}
              style={{ top: HEAD + start, width: room + across.getTotalSize(), height: ROW }}
            >
              <PageCell
                row={row}
                room={room}
                coverage={coverage}
                isChosen={spot.row === at && spot.campaign === PAGE}
                onChoose={() => onSpot({ row: at, campaign: PAGE })}
                onFold={() => onFold(row)}
              />
              {columns.map(({ index, start: left }) => (
                <CampaignCell
                  key={campaigns[index]?.id}
                  coverage={coverage}
                  row={row}
                  say={say}
                  often={often}
                  campaign={index}
                  name={nameOf(campaigns[index]?.id ?? '')}
                  left={room + left}
                  width={wide}
                  isChosen={spot.row === at && spot.campaign === index}
                  onChoose={() => onSpot({ row: at, campaign: index })}
                />
              ))}
            </div>
          );
        })}
      </div>
    </div>
  );
}

interface PageCellProps {
  readonly row: CoverRow;
  readonly room: number;
  readonly coverage: Coverage;
  readonly isChosen: boolean;
  readonly onChoose: () => void;
  readonly onFold: () => void;
}

function PageCell({ row, room, coverage, isChosen, onChoose, onFold }: PageCellProps) {
  const views = row.pages.reduce((sum, page) => sum + (coverage.pages[page]?.views ?? 0), 0);
  const Arrow = row.isOpen ? ChevronDown : ChevronRight;
  return (
    <div
      role="rowheader"
      data-spot
      tabIndex={isChosen ? 0 : -1}
      aria-colindex={1}
      {...(row.isFolder ? { 'aria-expanded': row.isOpen } : {})}
      onClick={() => {
        onChoose();
        if (row.isFolder) onFold();
      }}
      className={cx(
        'sticky left-0 z-10 flex h-full cursor-pointer items-center gap-1 border-r border-line pr-3 outline-offset-[-2px]',
        isChosen ? 'bg-sail-wash font-semibold' : 'bg-paper',
      )}
      style={{ width: room, paddingLeft: row.depth * 16 }}
    >
      {row.isFolder ? (
        <Arrow size={14} aria-hidden className="flex-none" />
      ) : (
        <span className="w-3.5 flex-none" />
      )}
      <span className="min-w-0 flex-1 truncate" title={row.name}>
        {row.name}
      </span>
      {row.isFolder && (
        <span className="text-xs text-soft max-sm:hidden">{counted(row.pages.length, 'page')}</span>
      )}
      <span className="w-14 text-right text-xs text-soft tabular-nums">{figure(views)}</span>
    </div>
  );
}

interface CampaignCellProps {
  readonly coverage: Coverage;
  readonly row: CoverRow;
  readonly say: CellsSay;
  readonly often: HowOften | undefined;
  readonly campaign: number;
  readonly name: string;
  readonly left: number;
  readonly width: number;
  readonly isChosen: boolean;
  readonly onChoose: () => void;
}

function CampaignCell({
  coverage,
  row,
  say,
  often,
  campaign,
  name,
  left,
  width,
  isChosen,
  onChoose,
}: CampaignCellProps) {
  const [only] = row.pages;
  const cell = row.pages.length === 1 && only !== undefined ? coverage.cell(only, campaign) : undefined;
  const covered = coverage.covered(row.pages, campaign);
  const appears = cell
    ? CELL_WORDS[cell].toLowerCase()
    : `on ${figure(covered)} of ${counted(row.pages.length, 'page')}`;
  const times = often?.times(row.pages, campaign);
  const words =
    say === 'who' || !often || times === undefined
      ? appears
      : `${appears}; ${oftenWords(times, often.device, say)}`;
  return (
    <div
      role="gridcell"
      data-spot
      tabIndex={isChosen ? 0 : -1}
      aria-colindex={campaign + 2}
      aria-label={`${name}: ${words}`}
      title={`${name}: ${words}`}
      onClick={onChoose}
      className={cx(
        'absolute top-0 grid cursor-pointer place-items-center outline-offset-[-2px] hover:bg-sail-wash',
        isChosen && 'outline-2 outline-sail',
      )}
      style={{ left, width, height: ROW }}
    >
      {times !== undefined && (times > 0 || covered > 0) ? (
        <TimesSign times={times} most={often?.most ?? 0} />
      ) : cell ? (
        <CellSign cell={cell} />
      ) : (
        <ShareSign share={covered / Math.max(1, row.pages.length)} />
      )}
    </div>
  );
}

/** How often, on a ground that is deeper where it is often: tenfold by tenfold, for few pages have most of it. */
function TimesSign({ times, most }: { readonly times: number; readonly most: number }) {
  const share = times === 0 ? 0 : Math.min(1, Math.log10(1 + times) / Math.log10(1 + Math.max(most, times)));
  return (
    <span
      className={cx('grid size-full place-items-center text-xs tabular-nums', times === 0 && 'text-soft')}
      style={{
        background: `color-mix(in srgb, var(--color-sail-wash) ${Math.round(share * 100)}%, transparent)`,
      }}
    >
      {shortFigure(times)}
    </span>
  );
}

/** A shape each, so that nothing hangs on a colour. */
export function CellSign({ cell }: { readonly cell: Cell }) {
  return (
    <svg viewBox="0 0 16 16" className="size-4" aria-hidden="true">
      {cell === 'can' && <rect x="2" y="2" width="12" height="12" fill="var(--color-ink)" />}
      {cell === 'may' && (
        <path d="M2 14V2h12z" fill="var(--color-ink)" stroke="var(--color-ink)" strokeLinejoin="round" />
      )}
      {cell === 'device' && (
        <rect x="3" y="3" width="10" height="10" fill="none" stroke="var(--color-soft)" />
      )}
      {cell === 'audience' && <path d="M8 3l5 5-5 5-5-5z" fill="none" stroke="var(--color-soft)" />}
      {cell === 'closed' && <circle cx="8" cy="8" r="5" fill="none" stroke="var(--color-soft)" />}
      {cell === 'excluded' && <path d="M3 8h10" stroke="var(--color-soft)" strokeWidth="1.5" />}
    </svg>
  );
}

/** How many of several pages: a square that fills from below. */
export function ShareSign({ share }: { readonly share: number }) {
  const height = share === 0 ? 0 : Math.max(2, Math.round(share * 12));
  return (
    <svg viewBox="0 0 16 16" className="size-4" aria-hidden="true">
      {share > 0 && (
        <rect x="2.5" y="2.5" width="11" height="11" fill="none" stroke="var(--color-line-strong)" />
      )}
      <rect x="2" y={14 - height} width="12" height={height} fill="var(--color-ink)" />
    </svg>
  );
}
