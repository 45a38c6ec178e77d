import type { Foreseen } from '@velarium/contract';
import { figure, foreseenWords } from '@velarium/core';

const WIDTH = 560;
const HEIGHT = 150;
/** Room for the words at the edges. */
const LEFT = 46;
const BOTTOM = 22;
const TOP = 8;

/** What was foreseen by the end of each day, with its interval, and what came, in one picture. */
export function ForeseenChart({ launch }: { readonly launch: Pick<Foreseen, 'forecast' | 'came'> }) {
  const { forecast, came } = launch;
  const days = forecast.byDay.length;
  const most = Math.max(1, ...forecast.byDay.map(({ high }) => high), ...came);
  const x = (day: number) => LEFT + (day / days) * (WIDTH - LEFT - 8);
  const y = (visitors: number) => TOP + (1 - visitors / most) * (HEIGHT - TOP - BOTTOM);
  const line = (points: readonly number[]) =>
    [`${x(0)},${y(0)}`, ...points.map((visitors, day) => `${x(day + 1)},${y(visitors)}`)].join(' ');
  const band = [
    `${x(0)},${y(0)}`,
    ...forecast.byDay.map(({ high }, day) => `${x(day + 1)},${y(high)}`),
    ...forecast.byDay.map(({ low }, day) => `${x(day + 1)},${y(low)}`).reverse(),
  ].join(' ');
  return (
    <svg
      role="img"
      aria-label={foreseenWords(launch)}
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className="w-full max-w-2xl text-ink"
    >
      <line x1={LEFT} x2={WIDTH - 8} y1={y(0)} y2={y(0)} className="stroke-line-strong" />
      <text x={LEFT - 6} y={y(0)} textAnchor="end" className="fill-soft text-xs">
        0
      </text>
      <text x={LEFT - 6} y={y(most) + 8} textAnchor="end" className="fill-soft text-xs">
        {figure(most)}
      </text>
      <text x={x(0)} y={HEIGHT - 6} className="fill-soft text-xs">
        launched
      </text>
      <text x={x(days)} y={HEIGHT - 6} textAnchor="end" className="fill-soft text-xs">
        after {days} {days === 1 ? 'day' : 'days'}
      </text>
      <polygon points={band} className="fill-hold/15" />
      <polyline
        points={line(forecast.byDay.map(({ value }) => value))}
        className="fill-none stroke-hold"
        strokeWidth={1.5}
        strokeDasharray="5 4"
      />
      {came.length > 0 && (
        <>
          <polyline points={line(came)} className="fill-none stroke-current" strokeWidth={2.5} />
          <circle cx={x(came.length)} cy={y(came.at(-1) ?? 0)} r={3.5} className="fill-current" />
        </>
      )}
    </svg>
  );
}
