import type { CurvePoint } from '@velarium/core';
import type { ReactNode } from 'react';

export interface StripProps {
  readonly title: string;
  readonly max: number;
  readonly ticks: readonly { readonly at: number; readonly words: string }[];
  readonly curve: readonly CurvePoint[];
  /** Stretches in which nothing opens, with the reason. */
  readonly shades: readonly { readonly from: number; readonly to: number; readonly words: string }[];
  /** Where the visit that is played has come to. */
  readonly cursor: number | null;
  readonly height: number;
  readonly children: ReactNode;
}

/** One scale of a visit: its curve, the stretches in which nothing opens, and the marks on it. */
export function Strip({ title, max, ticks, curve, shades, cursor, height, children }: StripProps) {
  const left = (at: number) => `${(Math.min(at, max) / max) * 100}%`;
  return (
    <fieldset aria-label={title} className="min-w-0">
      <div className="relative border-b border-line-strong bg-sheet" style={{ height }}>
        <Curve curve={curve} max={max} />
        {shades.map(({ from, to, words }) => (
          <div
            key={words}
            title={words}
            className="absolute inset-y-0 bg-[repeating-linear-gradient(135deg,--alpha(var(--color-line-strong)/13%)_0_5px,transparent_5px_10px)] forced-color-adjust-none"
            style={{ left: left(from), width: `calc(${left(to)} - ${left(from)})` }}
          >
            <span className="sr-only">{words}</span>
          </div>
        ))}
        {cursor !== null && (
          <div
            aria-hidden="true"
            className="absolute inset-y-0 border-l border-ink"
            style={{ left: left(cursor) }}
          />
        )}
        {children}
      </div>
      <div aria-hidden="true" className="relative h-4 text-xs text-soft">
        {ticks.map(({ at, words }) => (
          <span
            key={at}
            className={`absolute top-0.5 whitespace-nowrap max-sm:[&:nth-child(even)]:hidden ${at === 0 ? '' : at === max ? '-translate-x-full' : '-translate-x-1/2'}`}
            style={{ left: left(at) }}
          >
            {words}
          </span>
        ))}
      </div>
    </fieldset>
  );
}

function Curve({ curve, max }: { readonly curve: readonly CurvePoint[]; readonly max: number }) {
  if (curve.length === 0) return null;
  const points = curve.map(({ at, share }) => `${(at / max) * 100},${100 - share * 100}`);
  const last = curve.at(-1);
  return (
    <svg
      aria-hidden="true"
      viewBox="0 0 100 100"
      preserveAspectRatio="none"
      className="absolute inset-0 size-full overflow-hidden"
    >
      <polygon
        points={`0,100 ${points.join(' ')} ${((last?.at ?? 0) / max) * 100},100`}
        className="fill-line/55"
      />
      <polyline
        points={points.join(' ')}
        vectorEffect="non-scaling-stroke"
        className="fill-none stroke-line-strong"
        strokeWidth={1.5}
      />
    </svg>
  );
}
