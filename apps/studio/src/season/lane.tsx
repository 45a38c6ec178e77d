import type { Schedule } from '@velarium/contract';
import { instantOf, type Lane as LaneOf, movedBy, type Stretch, wallClock } from '@velarium/core';
import { type KeyboardEvent, type PointerEvent, useEffect, useRef, useState } from 'react';
import { cx } from '../ui/cx.ts';
import { when } from '../ui/when.ts';

const DAY_MS = 86_400_000;
/** Arrow keys pressed one after the other are one change. */
const KEYS_SETTLED_MS = 500;

/** Where an instant lies in a window, per cent from its left. */
export const placeOf = (atMs: number, [fromMs, toMs]: Stretch): number =>
  ((Math.min(toMs, Math.max(fromMs, atMs)) - fromMs) / (toMs - fromMs)) * 100;

/** Which of a schedule's days is moved. */
type Grip = 'start' | 'end' | 'both';

const move = (schedule: Schedule, grip: Grip, days: number): Schedule => ({
  ...schedule,
  start: schedule.start && grip !== 'end' ? movedBy(schedule.start, days) : schedule.start,
  end: schedule.end && grip !== 'start' ? movedBy(schedule.end, days) : schedule.end,
});
const isPossible = ({ start, end }: Schedule): boolean => start === null || end === null || start < end;

interface LaneProps {
  readonly lane: LaneOf;
  readonly schedule: Schedule | null;
  readonly window: Stretch;
  readonly zone: string;
  /** Where it meets another that is looked at. */
  readonly met: readonly Stretch[];
  readonly plannedAtMs: number | null;
  readonly canEdit: boolean;
  /** Settles once the change is saved, or is not. */
  readonly onEdit: (schedule: Schedule) => Promise<unknown>;
}

/** A campaign's stretches in the window. Its first and last day are taken by the hand, or moved by the arrow keys, a day at a time. */
export function Lane({ lane, schedule, window, zone, met, plannedAtMs, canEdit, onEdit }: LaneProps) {
  /** Days by which something is being moved; until the list says the same, it stays where it was let go. */
  const [drag, setDrag] = useState<{ readonly grip: Grip; readonly days: number } | null>(null);
  const keys = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  // biome-ignore lint/correctness/useExhaustiveDependencies: a schedule that has come in its place is where it is.
  useEffect(() => setDrag(null), [schedule]);
  const save = (grip: Grip, days: number) => {
    clearTimeout(keys.current);
    keys.current = undefined;
    if (!schedule || days === 0) return setDrag(null);
    onEdit(move(schedule, grip, days)).catch(() => setDrag(null));
  };
  const at = (local: string) => instantOf(Date.parse(`${local}:00Z`), zone);
  const shown = schedule && drag ? move(schedule, drag.grip, drag.days) : schedule;
  const isIn = (ms: number) => ms >= window[0] && ms <= window[1];
  const grips = (['start', 'end'] as const).flatMap((grip) => {
    const local = shown?.[grip];
    return local && isIn(at(local)) ? [{ grip, local }] : [];
  });
  const begin = (grip: Grip) => (event: PointerEvent<HTMLButtonElement>) => {
    if (!schedule || event.button !== 0) return;
    const handle = event.currentTarget;
    const width = handle.parentElement?.getBoundingClientRect().width ?? 1;
    const fromX = event.clientX;
    handle.setPointerCapture(event.pointerId);
    const daysAt = (x: number) => Math.round((((x - fromX) / width) * (window[1] - window[0])) / DAY_MS);
    let days = 0;
    const onMove = (moved: globalThis.PointerEvent) => {
      const next = daysAt(moved.clientX);
      if (!isPossible(move(schedule, grip, next))) return;
      days = next;
      setDrag({ grip, days });
    };
    const stop = (isKept: boolean) => () => {
      handle.removeEventListener('pointermove', onMove);
      save(grip, isKept ? days : 0);
    };
    handle.addEventListener('pointermove', onMove);
    handle.addEventListener('pointerup', stop(true), { once: true });
    handle.addEventListener('pointercancel', stop(false), { once: true });
  };
  const onKey = (grip: Grip) => (event: KeyboardEvent) => {
    const step = { ArrowLeft: -1, ArrowRight: 1, PageUp: -7, PageDown: 7 }[event.key];
    if (!step || !schedule) return;
    event.preventDefault();
    const days = (drag?.grip === grip ? drag.days : 0) + step;
    if (!isPossible(move(schedule, grip, days))) return;
    setDrag({ grip, days });
    clearTimeout(keys.current);
    keys.current = setTimeout(() => save(grip, days), KEYS_SETTLED_MS);
  };
  const bar = ([fromMs, toMs]: Stretch) => ({
    left: `${placeOf(fromMs, window)}%`,
    width: `${placeOf(toMs, window) - placeOf(fromMs, window)}%`,
  });
  const gripWords = { start: 'First day', end: 'Last day', both: 'All its days' } as const;
  const handle = (grip: Grip, local: string, left: number) => (
    <button
      key={grip}
      type="button"
      disabled={!canEdit}
      aria-label={`${gripWords[grip]} of ${lane.name}, ${when.format(wallDate(local))}`}
      aria-keyshortcuts="ArrowLeft ArrowRight"
      title={`${gripWords[grip]}: ${when.format(wallDate(local))}`}
      onPointerDown={begin(grip)}
      onKeyDown={onKey(grip)}
      onBlur={() => keys.current && drag && save(grip, drag.days)}
      className={cx(
        'absolute top-0 z-10 h-full w-6 -translate-x-1/2 touch-none',
        grip === 'both' ? 'cursor-grab' : 'cursor-ew-resize',
        'after:absolute after:inset-y-1 after:left-1/2 after:-translate-x-1/2 after:bg-sail',
        grip === 'both' ? 'after:inset-y-3 after:w-4' : 'after:w-1.5',
        !canEdit && 'hidden',
      )}
      style={{ left: `${left}%` }}
    />
  );
  const [first, last] = [shown?.start, shown?.end];
  const middle = first && last ? (at(first) + at(last)) / 2 : null;
  return (
    <div className="relative h-full">
      {(drag && shown
        ? [[first ? at(first) : window[0], last ? at(last) : window[1]] as const]
        : lane.open
      ).map((stretch) => (
        <span
          key={stretch[0]}
          className={cx(
            'absolute inset-y-1.5 border',
            drag ? 'border-dashed border-sail bg-sail-wash' : 'border-ink',
            !drag && (lane.isLive ? 'bg-ink/80' : 'bg-sheet'),
          )}
          style={bar(stretch)}
        />
      ))}
      {met.map((stretch) => (
        <span
          key={stretch[0]}
          className="absolute inset-y-0 border-x-2 border-hold bg-[repeating-linear-gradient(45deg,var(--color-hold)_0_2px,transparent_2px_8px)]"
          style={bar(stretch)}
        />
      ))}
      {plannedAtMs !== null && isIn(plannedAtMs) && (
        <span
          className="absolute inset-y-0 border-l-2 border-dashed border-sail pl-1 text-xs whitespace-nowrap text-sail"
          style={{ left: `${placeOf(plannedAtMs, window)}%` }}
        >
          ◷ launches
        </span>
      )}
      {grips.map(({ grip, local }) => handle(grip, local, placeOf(at(local), window)))}
      {middle !== null && first && isIn(middle) && handle('both', first, placeOf(middle, window))}
    </div>
  );
}

/** A local day and time as `when` writes it: what a site's clock shows is shown, whatever the zone of this browser. */
const wallDate = (local: string): Date => {
  const shownMs = Date.parse(`${local}:00Z`);
  const own = Intl.DateTimeFormat().resolvedOptions().timeZone;
  return new Date(instantOf(shownMs, own));
};

/** When a lane is open, in words, for those who do not see it. */
export function laneWords({ open }: LaneOf, zone: string): string {
  if (open.length === 0) return 'not open in this time';
  const own = (ms: number) => when.format(wallDate(new Date(wallClock(ms, zone)).toISOString().slice(0, 16)));
  const said = open.slice(0, 3).map(([from, to]) => `${own(from)} to ${own(to)}`);
  return `open ${said.join('; ')}${open.length > 3 ? `, and ${open.length - 3} more times` : ''}`;
}
