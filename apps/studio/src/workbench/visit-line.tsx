import { quantity } from '@velarium/core';
import { Slider } from 'radix-ui';
import { useState } from 'react';
import { SecondsOnLine, useSeconds, useSetSeconds } from './controls/moment-control.tsx';

/** Lengths of visit the line can show, seconds; it takes the first with room to the right of the mark. */
const SCALES = [60, 180, 600, 3600] as const;

export function scaleFor(seconds: number): number {
  return SCALES.find((scale) => seconds <= scale * 0.85) ?? 3600;
}

function ticksOf(scale: number): number[] {
  const step = scale <= 60 ? 5 : scale <= 180 ? 15 : scale <= 600 ? 60 : 300;
  return Array.from({ length: Math.floor(scale / step) + 1 }, (_, position) => position * step);
}
const clock = (seconds: number) =>
  `${Math.floor(seconds / 60)}:${String(Math.floor(seconds % 60)).padStart(2, '0')}`;

/** A visit to a page from arrival on; the mark is where the message opens. */
export function VisitLine() {
  const seconds = useSeconds();
  const setSeconds = useSetSeconds();
  // The scale stands still while the mark is dragged, or it would run away under the pointer.
  const [held, setHeld] = useState<number | null>(null);
  const scale = held ?? scaleFor(seconds ?? 0);
  const at = (second: number) => `${(second / scale) * 100}%`;
  return (
    <section aria-label="Visit line" className="border-t border-line px-5 pt-2 pb-3">
      <div className="mb-1 flex items-baseline gap-4">
        <h2 className="text-sm font-medium">A visit to the page</h2>
        <SecondsOnLine />
        <p className="ml-auto text-xs text-soft">
          Drag the mark, or use the arrow keys: one second a press, ten with Shift.
        </p>
      </div>
      <div className="relative mx-14 h-[70px]">
        <div aria-hidden="true" className="absolute inset-x-0 top-9 border-t border-line-strong">
          {ticksOf(scale).map((second) => (
            <span
              key={second}
              className="absolute top-0 border-l border-line-strong pt-2.5"
              style={{ left: at(second) }}
            >
              <span className="absolute top-2.5 -translate-x-1/2 text-xs text-soft">{clock(second)}</span>
            </span>
          ))}
          <span
            className="absolute top-0 left-0 h-[3px] -translate-y-[2px] bg-sail/25"
            style={{ width: at(seconds ?? 0) }}
          />
        </div>
        <span aria-hidden="true" className="absolute top-7 -left-14 text-xs text-soft">
          arrival
        </span>
        {seconds !== null && (
          <Slider.Root
            value={[Math.min(seconds, scale)]}
            min={0}
            max={scale}
            step={1}
            onPointerDown={() => setHeld(scale)}
            onValueChange={([next]) => next !== undefined && setSeconds(next)}
            onValueCommit={() => setHeld(null)}
            className="absolute inset-x-0 top-0 h-12 touch-none"
          >
            <Slider.Track className="absolute inset-x-0 top-0 block h-12" />
            <Slider.Thumb
              aria-label="Moment it opens"
              aria-valuetext={seconds === 0 ? 'at once' : `after ${quantity(seconds, 'second')}`}
              // No width of its own: the slider keeps a wide thumb inside its ends, which would move the mark off its second.
              className="group block h-12 w-0 cursor-grab active:cursor-grabbing"
            >
              <span aria-hidden="true" className="absolute -left-3 h-12 w-6" />
              <span aria-hidden="true" className="absolute top-0 -left-px h-9 border-l-2 border-sail" />
              <span
                aria-hidden="true"
                className="absolute top-0 left-0 rounded-r-sm bg-sail px-2 py-0.5 text-xs font-semibold whitespace-nowrap text-white group-hover:bg-sail-deep"
              >
                {seconds === 0 ? 'opens at once' : `opens after ${seconds} s`}
              </span>
            </Slider.Thumb>
          </Slider.Root>
        )}
      </div>
    </section>
  );
}
