import type { Rehearsal, RehearsedPage } from '@velarium/contract';
import { clockWords, happeningWords } from '@velarium/core';
import { type KeyboardEvent, type PointerEvent, useRef, useState } from 'react';
import { cx } from '../ui/cx.ts';
import { Mark } from '../ui/mark.tsx';

const LONGEST_SECONDS = 3600;
const SHORTEST_SECONDS = 1;
const LANES = 3;

interface VisitStripProps {
  readonly rehearsal: Rehearsal;
  readonly chosen: number;
  readonly nameOf: (campaign: string) => string;
  readonly onChoose: (page: number) => void;
  readonly onChangePage: (page: number, change: Partial<RehearsedPage>, key: string) => void;
}

/** The visit as a line: its pages one after the other, as wide as they last, with what happens on them. */
export function VisitStrip({ rehearsal, chosen, nameOf, onChoose, onChangePage }: VisitStripProps) {
  const { pages } = rehearsal;
  const total = pages.reduce((sum, { seconds }) => sum + seconds, 0) || 1;
  // The line stands still while something is dragged, or it would run away under the pointer.
  const [held, setHeld] = useState<number | null>(null);
  const scale = held ?? total;
  const moveHappening = (page: number, at: number, second: number) =>
    onChangePage(
      page,
      {
        happenings: (pages[page]?.happenings ?? []).map((one, n) =>
          n === at ? { ...one, at: second } : one,
        ),
      },
      `happening ${page} ${at}`,
    );
  return (
    <ol aria-label="Pages of the visit" className="flex min-w-0 border-b border-line-strong">
      {pages.map((page, n) => (
        <li
          // biome-ignore lint/suspicious/noArrayIndexKey: a page is known by its place in the visit.
          key={n}
          className={cx(
            'relative h-24 min-w-6 border-l border-line-strong first:border-l-0',
            n === chosen ? 'bg-sheet' : 'bg-transparent hover:bg-sheet/60',
          )}
          style={{ flex: `0 0 ${(page.seconds / scale) * 100}%` }}
        >
          <button
            type="button"
            aria-pressed={n === chosen}
            onClick={() => onChoose(n)}
            className="absolute inset-0 grid content-end justify-items-start overflow-hidden px-1.5 pb-1 text-left"
          >
            <svg
              viewBox="0 0 100 100"
              preserveAspectRatio="none"
              aria-hidden="true"
              className="absolute inset-0 size-full"
            >
              <path
                d={`M0 100L100 ${100 - page.depth * 0.55}V100Z`}
                fill="var(--color-line)"
                opacity="0.55"
              />
            </svg>
            <span className="relative max-w-full truncate font-medium">{page.path}</span>
            <span className="relative max-w-full truncate text-xs text-soft">
              {clockWords(page.seconds)}, {page.depth} % deep
              {page.afterMinutes > 0 && `, ${page.afterMinutes} min later`}
            </span>
          </button>
          {page.happenings.map((happening, at) => (
            <Mark
              // biome-ignore lint/suspicious/noArrayIndexKey: what happens is known by its place in the list.
              key={at}
              label={`${happeningWords(happening, nameOf)} on ${page.path}`}
              value={happening.at}
              max={page.seconds}
              words={happeningWords(happening, nameOf)}
              lane={at % LANES}
              isSecond
              onChange={(second) => moveHappening(n, at, second)}
              onRemove={() =>
                onChangePage(
                  n,
                  { happenings: page.happenings.filter((_, place) => place !== at) },
                  `remove ${n} ${at}`,
                )
              }
              onHold={() => {}}
            />
          ))}
          <Edge
            label={`Seconds on ${page.path}`}
            seconds={page.seconds}
            onChange={(seconds) => onChangePage(n, { seconds }, `seconds ${n}`)}
            onHold={(is) => setHeld(is ? total : null)}
          />
        </li>
      ))}
    </ol>
  );
}

interface EdgeProps {
  readonly label: string;
  readonly seconds: number;
  readonly onChange: (seconds: number) => void;
  readonly onHold: (isHeld: boolean) => void;
}

/** The end of a page: dragged, or moved by keys, it lasts longer or shorter. */
function Edge({ label, seconds, onChange, onHold }: EdgeProps) {
  const began = useRef({ x: 0, seconds: 0, perPixel: 0 });
  const put = (next: number) =>
    onChange(Math.min(LONGEST_SECONDS, Math.max(SHORTEST_SECONDS, Math.round(next))));
  const onKeyDown = (event: KeyboardEvent) => {
    const step = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1, PageUp: 10, PageDown: -10 }[
      event.key
    ];
    if (step === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    put(seconds + step * (event.shiftKey ? 10 : 1));
  };
  return (
    <div
      role="slider"
      tabIndex={0}
      aria-label={label}
      aria-valuemin={SHORTEST_SECONDS}
      aria-valuemax={LONGEST_SECONDS}
      aria-valuenow={seconds}
      aria-valuetext={clockWords(seconds)}
      onKeyDown={onKeyDown}
      onPointerDown={(event: PointerEvent<HTMLDivElement>) => {
        event.preventDefault();
        event.currentTarget.focus();
        event.currentTarget.setPointerCapture(event.pointerId);
        const width = event.currentTarget.parentElement?.getBoundingClientRect().width || 1;
        began.current = { x: event.clientX, seconds, perPixel: seconds / width };
        onHold(true);
      }}
      onPointerMove={(event) => {
        const { x, seconds: from, perPixel } = began.current;
        if (event.currentTarget.hasPointerCapture(event.pointerId))
          put(from + (event.clientX - x) * perPixel);
      }}
      onPointerUp={() => onHold(false)}
      onPointerCancel={() => onHold(false)}
      className="group absolute top-1/2 -right-3 bottom-0 z-20 w-6 cursor-ew-resize touch-none"
    >
      <span
        aria-hidden="true"
        className="absolute inset-y-2 left-2.5 w-1 rounded bg-line-strong group-hover:bg-ink"
      />
    </div>
  );
}
