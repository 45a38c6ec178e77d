import type { Experiment } from '@velarium/contract';
import { type ArmStory, pointsWords, verdictOfExperiment } from '@velarium/core';

const WIDTH = 560;
const HEIGHT = 120;
const LEFT = 44;

/** The difference of each variant from the present one, day by day, within what is sure over all looks together. */
export function Evidence({ experiment }: { readonly experiment: Experiment }) {
  const { stories } = verdictOfExperiment(experiment);
  const told = stories.filter(({ looks }) => looks.length > 1);
  if (told.length === 0) return null;
  return (
    <div className="flex flex-wrap gap-8">
      {told.map((story) => (
        <Story key={story.id} story={story} smallest={experiment.smallest} />
      ))}
    </div>
  );
}

function Story({
  story: { id, looks, decided },
  smallest,
}: {
  readonly story: ArmStory;
  readonly smallest: number;
}) {
  const last = looks.at(-1);
  // Early looks reach so far that nothing else could be seen: the picture ends where the later half lies.
  const later = looks.slice(Math.floor(looks.length / 2));
  const most = Math.max(smallest * 1.5, ...later.flatMap(({ low, high }) => [Math.abs(low), Math.abs(high)]));
  const x = (at: number) => LEFT + (at / Math.max(1, looks.length - 1)) * (WIDTH - LEFT - 8);
  const y = (value: number) =>
    HEIGHT / 2 - (Math.max(-most, Math.min(most, value)) / most) * (HEIGHT / 2 - 6);
  const band = [
    ...looks.map(({ high }, at) => `${x(at)},${y(high)}`),
    ...looks.map(({ low }, at) => `${x(at)},${y(low)}`).reverse(),
  ].join(' ');
  const decidedAt = decided ? looks.indexOf(decided) : -1;
  return (
    <figure className="grid gap-1">
      <figcaption className="text-xs text-soft">
        Variant {id.toUpperCase()} against the present one, points of rate
        {last ? `, ${looks[0]?.day} to ${last.day}` : ''}
      </figcaption>
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        className="w-[35rem] max-w-full"
        role="img"
        aria-label={
          last
            ? `On ${last.day} ${pointsWords(last.difference)} points, between ${pointsWords(last.low)} and ${pointsWords(last.high)}`
            : undefined
        }
      >
        <polygon points={band} fill="var(--color-line)" opacity="0.6" />
        {[most, 0, -most].map((value) => (
          <g key={value}>
            <text x={LEFT - 6} y={y(value) + 4} textAnchor="end" className="text-xs" fill="var(--color-soft)">
              {pointsWords(value)}
            </text>
            <path
              d={`M${LEFT} ${y(value)}H${WIDTH - 8}`}
              stroke={value === 0 ? 'var(--color-ink)' : 'var(--color-line)'}
            />
          </g>
        ))}
        <polyline
          points={looks.map(({ difference }, at) => `${x(at)},${y(difference)}`).join(' ')}
          fill="none"
          stroke="var(--color-sail)"
          strokeWidth="2"
        />
        {decidedAt >= 0 && (
          <g>
            <path d={`M${x(decidedAt)} 4V${HEIGHT - 4}`} stroke="var(--color-clear)" />
            <text x={x(decidedAt) + 4} y="14" className="text-xs" fill="var(--color-clear)">
              sure
            </text>
          </g>
        )}
      </svg>
    </figure>
  );
}
