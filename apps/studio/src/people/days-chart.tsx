import type { AnswerCounts } from '@velarium/contract';
import { barsOf, counted } from '@velarium/core';

const WIDTH = 224;
const HEIGHT = 36;

/** Answers a day over four weeks, as small bars. */
export function DaysChart({ days }: Pick<AnswerCounts, 'days'>) {
  const { sum, most } = barsOf(days.map(({ answers }) => answers));
  const step = WIDTH / days.length;
  return (
    <figure className="grid justify-items-end">
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        className="h-9 w-56"
        role="img"
        aria-label={`The last ${days.length} days: ${counted(sum, 'answer')}, at most ${most} on one day`}
      >
        <path d={`M0 ${HEIGHT - 0.5}H${WIDTH}`} stroke="var(--color-line-strong)" />
        {days.map(({ day, answers }, at) => {
          const height = (answers / most) * (HEIGHT - 3);
          return (
            <rect
              key={day}
              x={at * step + 1}
              y={HEIGHT - 1 - height}
              width={step - 2}
              height={height}
              fill={at === days.length - 1 ? 'var(--color-sail)' : 'var(--color-ink)'}
            >
              <title>{`${day}: ${counted(answers, 'answer')}`}</title>
            </rect>
          );
        })}
      </svg>
      <figcaption className="text-xs text-soft">
        {counted(sum, 'answer')} in {days.length} days
      </figcaption>
    </figure>
  );
}
