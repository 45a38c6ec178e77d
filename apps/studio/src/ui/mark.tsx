import { type KeyboardEvent, type PointerEvent, useRef } from 'react';

export interface MarkProps {
  readonly label: string;
  readonly value: number;
  readonly max: number;
  /** What the value means, spoken and on the flag. */
  readonly words: string;
  /** How far down its flag hangs, so that two close marks can both be read. */
  readonly lane: number;
  readonly isSecond: boolean;
  readonly onChange: (value: number) => void;
  readonly onRemove: (() => void) | undefined;
  /** The line stands still while a mark is dragged, or it would run away under the pointer. */
  readonly onHold: (isHeld: boolean) => void;
}

const STEPS: Readonly<Record<string, number>> = {
  ArrowRight: 1,
  ArrowUp: 1,
  ArrowLeft: -1,
  ArrowDown: -1,
  PageUp: 10,
  PageDown: -10,
};

/** One trigger on the line: dragged, or moved by keys; Delete takes it away. */
export function Mark(props: MarkProps) {
  const { label, value, max, words, lane, isSecond, onChange, onRemove, onHold } = props;
  const mark = useRef<HTMLDivElement>(null);
  const put = (next: number) => onChange(Math.min(max, Math.max(0, Math.round(next))));
  const at = (event: PointerEvent) => {
    const strip = mark.current?.parentElement?.getBoundingClientRect();
    if (strip) put(((event.clientX - strip.left) / strip.width) * max);
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const step = STEPS[event.key];
    if (step !== undefined) put(value + step * (event.shiftKey ? 10 : 1));
    else if (event.key === 'Home') put(0);
    else if (event.key === 'End') put(max);
    else if (event.key === 'Delete' && onRemove) onRemove();
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  return (
    <div
      ref={mark}
      role="slider"
      tabIndex={0}
      aria-label={label}
      aria-valuemin={0}
      aria-valuemax={max}
      aria-valuenow={value}
      aria-valuetext={words}
      onKeyDown={onKeyDown}
      onPointerDown={(event) => {
        event.preventDefault();
        event.currentTarget.focus();
        event.currentTarget.setPointerCapture(event.pointerId);
        onHold(true);
      }}
      onPointerMove={(event) => event.currentTarget.hasPointerCapture(event.pointerId) && at(event)}
      onPointerUp={() => onHold(false)}
      onPointerCancel={() => onHold(false)}
      className="group absolute inset-y-0 z-10 w-0 cursor-grab touch-none active:cursor-grabbing"
      style={{ left: `${(Math.min(value, max) / max) * 100}%` }}
    >
      <span aria-hidden="true" className="absolute inset-y-0 -left-2.5 w-5" />
      <span
        aria-hidden="true"
        className={`absolute inset-y-0 -left-px border-l-2 border-sail ${isSecond ? 'border-dashed' : ''}`}
      />
      <span
        aria-hidden="true"
        className={`absolute left-0 rounded-r-sm px-1.5 py-px text-xs font-semibold whitespace-nowrap ${
          isSecond
            ? 'border border-sail bg-sheet text-sail-deep'
            : 'bg-sail text-on-sail forced-color-adjust-none group-hover:bg-sail-deep'
        } ${value / max > 0.8 ? 'right-0 left-auto rounded-r-none rounded-l-sm' : ''}`}
        style={{ top: lane * 21 }}
      >
        {words}
      </span>
    </div>
  );
}
