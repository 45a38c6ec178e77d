import type { Schedule } from '@velarium/contract';
import {
  type Interval,
  instantOf,
  isSame,
  type Lane as LaneOf,
  movedSchedule,
  type ScheduleEdge,
  type Zoom,
} from '@velarium/core';
import { type KeyboardEvent, type PointerEvent, useEffect, useRef, useState } from 'react';
import { cx } from '../ui/cx.ts';
import { barOf, placeOf } from './place.ts';
import { SpanTaker } from './span-taker.tsx';

const DAY_MS = 86_400_000;
/** Arrow keys pressed one after the other are one change. */
const KEYS_SETTLED_MS = 500;
const EDGE_WORDS: Readonly<Record<ScheduleEdge, string>> = {
  start: 'First day',
  end: 'Last day',
  both: 'All its days',
};

/** A moment by the site's own clocks. */
const momentWords = (atMs: number, timeZone: string): string =>
  new Date(atMs).toLocaleString('en-GB', { timeZone, dateStyle: 'medium', timeStyle: 'short' });

interface LaneProps {
  readonly lane: LaneOf;
  /** Of its draft, which is what can be moved. */
  readonly schedule: Schedule | null;
  readonly window: Interval;
  readonly zoom: Zoom;
  readonly zone: string;
  /** Where it meets another that is looked at. */
  readonly met: readonly Interval[];
  readonly plannedAtMs: number | null;
  readonly canEdit: boolean;
  /** Settles once the change is saved, or is not. */
  readonly onEdit: (schedule: Schedule | null) => Promise<unknown>;
}
interface Move {
  readonly edge: ScheduleEdge;
  readonly days: number;
}

/**
 * What visitors meet of a campaign in the window, and what its draft says where that is something else. Its first and last day
 * are taken by the hand, or moved by the arrow keys, a day at a time; days that are drawn over are asked about.
 */
export function Lane({ lane, schedule, window, zoom, zone, met, plannedAtMs, canEdit, onEdit }: LaneProps) {
  /** By how much something is being moved; until the list says the same, it stays where it was let go. */
  const [move, setMove] = useState<Move | null>(null);
  /** What keys have moved and is not saved yet. */
  const byKeys = useRef<{ readonly move: Move; readonly timer: ReturnType<typeof setTimeout> } | null>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: once another schedule has come, nothing is being moved.
  useEffect(() => setMove(null), [schedule]);
  const save = ({ edge, days }: Move) => {
    const moved = schedule && days !== 0 ? movedSchedule(schedule, edge, days) : undefined;
    if (!moved) return setMove(null);
    onEdit(moved).catch(() => setMove(null));
  };
  const saveKeys = useRef(() => {});
  saveKeys.current = () => {
    const pressed = byKeys.current;
    if (!pressed) return;
    clearTimeout(pressed.timer);
    byKeys.current = null;
    save(pressed.move);
  };
  // Who leaves at once loses nothing.
  useEffect(() => () => saveKeys.current(), []);

  const at = (local: string) => instantOf(Date.parse(`${local}:00Z`), zone);
  const shown = (schedule && move && movedSchedule(schedule, move.edge, move.days)) ?? schedule;
  const isIn = (ms: number) => ms >= window[0] && ms <= window[1];
  const onPointerDown = (edge: ScheduleEdge) => (event: PointerEvent<HTMLButtonElement>) => {
    if (!schedule || event.button !== 0) return;
    saveKeys.current();
    const handle = event.currentTarget;
    const width = handle.parentElement?.getBoundingClientRect().width ?? 1;
    const fromX = event.clientX;
    handle.setPointerCapture(event.pointerId);
    let days = 0;
    const onMove = ({ clientX }: globalThis.PointerEvent) => {
      const next = Math.round((((clientX - fromX) / width) * (window[1] - window[0])) / DAY_MS);
      if (!movedSchedule(schedule, edge, next)) return;
      days = next;
      setMove({ edge, days });
    };
    const stop = (isKept: boolean) => () => {
      handle.removeEventListener('pointermove', onMove);
      save({ edge, days: isKept ? days : 0 });
    };
    handle.addEventListener('pointermove', onMove);
    handle.addEventListener('pointerup', stop(true), { once: true });
    handle.addEventListener('pointercancel', stop(false), { once: true });
  };
  const onKeyDown = (edge: ScheduleEdge) => (event: KeyboardEvent) => {
    const step = { ArrowLeft: -1, ArrowRight: 1, PageUp: -7, PageDown: 7 }[event.key];
    if (!step || !schedule) return;
    event.preventDefault();
    const pressed = byKeys.current;
    const next = { edge, days: (pressed?.move.edge === edge ? pressed.move.days : 0) + step };
    if (!movedSchedule(schedule, edge, next.days)) return;
    if (pressed) clearTimeout(pressed.timer);
    byKeys.current = { move: next, timer: setTimeout(() => saveKeys.current(), KEYS_SETTLED_MS) };
    setMove(next);
  };
  const handle = (edge: ScheduleEdge, local: string, atMs: number) =>
    isIn(atMs) && (
      <button
        key={edge}
        type="button"
        aria-label={`${EDGE_WORDS[edge]} of ${lane.name}, ${momentWords(at(local), zone)}`}
        aria-keyshortcuts="ArrowLeft ArrowRight"
        title={`${EDGE_WORDS[edge]}: ${momentWords(at(local), zone)}`}
        onPointerDown={onPointerDown(edge)}
        onKeyDown={onKeyDown(edge)}
        onBlur={() => saveKeys.current()}
        className={cx(
          'absolute top-0 z-10 h-full w-6 -translate-x-1/2 touch-none',
          edge === 'both' ? 'cursor-grab' : 'cursor-ew-resize',
          'after:absolute after:inset-y-1 after:left-1/2 after:-translate-x-1/2 after:bg-sail',
          edge === 'both' ? 'after:inset-y-3 after:w-4' : 'after:w-1.5',
        )}
        style={{ left: `${placeOf(atMs, window)}%` }}
      />
    );
  const { start = null, end = null } = shown ?? {};
  const isAsPublished = isSame(lane.live, lane.open);
  const moving: readonly Interval[] | null = move && [
    [start ? at(start) : window[0], end ? at(end) : window[1]],
  ];
  return (
    <div className="relative h-full forced-color-adjust-none">
      {lane.live.map((stretch) => (
        <span
          key={stretch[0]}
          className="absolute inset-y-1.5 border border-ink bg-ink/80"
          style={barOf(stretch, window)}
        />
      ))}
      {(moving ?? (isAsPublished ? [] : lane.open)).map((stretch) => (
        <span
          key={stretch[0]}
          className={cx(
            'absolute inset-y-1 border',
            moving
              ? 'border-dashed border-sail bg-sail-wash'
              : lane.live.length > 0
                ? 'border-2 border-dashed border-hold'
                : 'border-ink bg-sheet',
          )}
          style={barOf(stretch, window)}
        />
      ))}
      {met.map((stretch) => (
        <span
          key={stretch[0]}
          className="absolute inset-y-0 border-x-2 border-hold bg-[repeating-linear-gradient(45deg,var(--color-hold)_0_2px,transparent_2px_8px)]"
          style={barOf(stretch, window)}
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
      {canEdit && (
        <SpanTaker
          {...{ schedule, window, zoom, zone }}
          name={lane.name}
          onEdit={(next) => void onEdit(next).catch(() => {})}
        />
      )}
      {canEdit && start && handle('start', start, at(start))}
      {canEdit && end && handle('end', end, at(end))}
      {canEdit && start && end && handle('both', start, (at(start) + at(end)) / 2)}
    </div>
  );
}

const NAMED = 3;

/** When a lane is open, in words, for those who do not see it. */
export function laneWords({ open, live }: LaneOf, zone: string): string {
  const said = (stretches: readonly Interval[]): string => {
    if (stretches.length === 0) return 'not in this time';
    const first = stretches
      .slice(0, NAMED)
      .map(([from, to]) => `${momentWords(from, zone)} to ${momentWords(to, zone)}`);
    const more = stretches.length - first.length;
    return [...first, ...(more > 0 ? [`${more} more times`] : [])].join('; ');
  };
  return live.length > 0
    ? `Visitors meet it: ${said(live)}. Its draft: ${said(open)}.`
    : `Its draft: ${said(open)}.`;
}
