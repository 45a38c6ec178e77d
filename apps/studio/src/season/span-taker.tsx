import type { Schedule } from '@velarium/contract';
import { type Interval, spanBetween, spanInterval, type TimeSpan, type Zoom } from '@velarium/core';
import { CalendarRange } from 'lucide-react';
import { type PointerEvent, useState } from 'react';
import { IconButton } from '../ui/button.tsx';
import { Popover } from '../ui/popover.tsx';
import { barOf } from './place.ts';
import { SpanPanel } from './span-panel.tsx';

interface SpanProps {
  readonly name: string;
  readonly schedule: Schedule | null;
  readonly window: Interval;
  readonly zoom: Zoom;
  readonly zone: string;
  readonly onEdit: (schedule: Schedule | null) => void;
}

const wordsOf = ({ name, zoom }: SpanProps) => `${zoom === 'day' ? 'Hours' : 'Days'} of ${name}`;

/** The ground of a lane: days that are drawn over are taken hold of, and what can be done about them is asked. */
export function SpanTaker(props: SpanProps) {
  const { schedule, window, zoom, zone, onEdit } = props;
  const [span, setSpan] = useState<TimeSpan | null>(null);
  const [isOpen, setOpen] = useState(false);
  const onPointerDown = (event: PointerEvent<HTMLDivElement>) => {
    // A finger moves the weeks; the button beside the name asks the same.
    if (event.button !== 0 || event.pointerType === 'touch') return;
    const ground = event.currentTarget;
    const { left, width } = ground.getBoundingClientRect();
    const atMs = (x: number) =>
      Math.min(
        window[1] - 1,
        Math.max(window[0], window[0] + ((x - left) / width) * (window[1] - window[0])),
      );
    const fromMs = atMs(event.clientX);
    ground.setPointerCapture(event.pointerId);
    setSpan(spanBetween(zoom, fromMs, fromMs, zone));
    const onMove = ({ clientX }: globalThis.PointerEvent) =>
      setSpan(spanBetween(zoom, fromMs, atMs(clientX), zone));
    const stop = (isKept: boolean) => () => {
      ground.removeEventListener('pointermove', onMove);
      if (isKept) setOpen(true);
      else setSpan(null);
    };
    ground.addEventListener('pointermove', onMove);
    ground.addEventListener('pointerup', stop(true), { once: true });
    ground.addEventListener('pointercancel', stop(false), { once: true });
  };
  const close = () => {
    setOpen(false);
    setSpan(null);
  };
  return (
    <>
      <div className="absolute inset-0 cursor-cell" onPointerDown={onPointerDown} />
      {span && (
        <Popover
          label={wordsOf(props)}
          isOpen={isOpen}
          onOpenChange={(next) => !next && close()}
          trigger={
            <button
              type="button"
              tabIndex={-1}
              aria-label={wordsOf(props)}
              className="pointer-events-none absolute inset-y-0 border-x-2 border-sail bg-sail/20"
              style={barOf(spanInterval(span, window, zone), window)}
            />
          }
        >
          <SpanPanel
            schedule={schedule}
            span={span}
            onSpan={setSpan}
            onChoose={(next) => {
              close();
              onEdit(next);
            }}
          />
        </Popover>
      )}
    </>
  );
}

/** The same by keys: the days that are asked about are written down. */
export function SpanButton(props: SpanProps) {
  const { schedule, window, zoom, zone, onEdit } = props;
  const [isOpen, setOpen] = useState(false);
  const [span, setSpan] = useState<TimeSpan>();
  // From today on, where that is in sight.
  const [nowMs] = useState(Date.now);
  const firstMs = nowMs < window[1] ? Math.max(window[0], nowMs) : window[0];
  const shown = span ?? spanBetween(zoom, firstMs, firstMs, zone);
  return (
    <Popover
      label={wordsOf(props)}
      isOpen={isOpen}
      onOpenChange={(next) => {
        setOpen(next);
        setSpan(undefined);
      }}
      trigger={
        <IconButton label={wordsOf(props)} className="flex-none">
          <CalendarRange size={14} aria-hidden />
        </IconButton>
      }
    >
      <SpanPanel
        schedule={schedule}
        span={shown}
        onSpan={setSpan}
        onChoose={(next) => {
          setOpen(false);
          onEdit(next);
        }}
      />
    </Popover>
  );
}
