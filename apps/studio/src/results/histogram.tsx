import { barsOf, type CurvePoint, counted, percent } from '@velarium/core';

export interface HistogramProps {
  readonly title: string;
  readonly unit: string;
  /** Where each bar begins. */
  readonly edges: readonly number[];
  readonly counts: readonly number[];
  /** How many page views come so far, drawn over the bars; a point at the beginning of each. */
  readonly curve?: readonly CurvePoint[];
}

const WIDTH = 520;
const HEIGHT = 64;
/** Every so many bars are named under them. */
const NAMED_EVERY = 4;

/** Standing bars over seconds or per cent, the same as those the visit line is drawn from. */
export function Histogram({ title, unit, edges, counts, curve = [] }: HistogramProps) {
  const { sum, most } = barsOf(counts);
  const step = WIDTH / edges.length;
  if (sum === 0) return <p className="text-soft">{title}: not told on these days.</p>;
  return (
    <figure className="grid gap-1">
      <figcaption className="text-xs text-soft">{title}</figcaption>
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT + 16}`}
        className="w-full"
        role="img"
        aria-label={`${title}: ${counted(sum, 'showing')} told of`}
      >
        <path d={`M0 ${HEIGHT + 0.5}H${WIDTH}`} stroke="var(--color-line-strong)" />
        {edges.map((edge, at) => {
          const height = ((counts[at] ?? 0) / most) * (HEIGHT - 2);
          return (
            <g key={edge}>
              <rect
                x={at * step + 1}
                y={HEIGHT - height}
                width={step - 2}
                height={height}
                fill="var(--color-ink)"
              >
                <title>
                  {`${edge} ${unit}: ${counts[at] ?? 0}${curve[at] ? `; ${percent(curve[at].share)} of page views still there` : ''}`}
                </title>
              </rect>
              {at % NAMED_EVERY === 0 && (
                <text x={at * step + 1} y={HEIGHT + 13} className="text-xs" fill="var(--color-soft)">
                  {`${edge} ${unit}`}
                </text>
              )}
            </g>
          );
        })}
        {curve.length > 0 && (
          <polyline
            points={curve.map(({ share }, at) => `${at * step},${HEIGHT - share * (HEIGHT - 2)}`).join(' ')}
            fill="none"
            stroke="var(--color-sail)"
            strokeWidth="2"
          />
        )}
      </svg>
    </figure>
  );
}
