import type { Cast, Reaction, Rehearsal } from '@velarium/contract';
import {
  clockWords,
  type LaneShape,
  type LaneStretch,
  laneShape,
  type Played,
  REACTION_WORDS,
  SHAPE_WORDS,
  verdictSentence,
} from '@velarium/core';
import { Link } from 'react-router';
import { StateMark } from '../board/state-mark.tsx';
import { cx } from '../ui/cx.ts';
import { Fold } from '../ui/fold.tsx';
import { NumberField } from '../ui/number-field.tsx';
import { Select } from '../ui/select.tsx';

/** Each has a shape of its own beside its colour. */
const SHAPES: Readonly<Record<LaneShape, string>> = {
  open: 'inset-y-1 rounded-sm bg-sail',
  waits: 'top-1/2 h-0.5 -translate-y-1/2 bg-line-strong',
  queues:
    'inset-y-2 border border-hold bg-[repeating-linear-gradient(135deg,var(--color-hold)_0_2px,transparent_2px_7px)]',
  held: 'inset-y-1.5 rounded-sm border-2 border-dashed border-ink',
  shut: 'top-1/2 h-px -translate-y-1/2 border-t border-dotted border-line-strong',
};
const REACTION_SECONDS = 5;
const IGNORES = 'ignore';

interface LanesProps {
  readonly siteId: string;
  readonly played: Played;
  readonly cast: Cast;
  readonly rehearsal: Rehearsal;
  readonly write: (atMs: number) => string;
  readonly onReact: (campaign: string, reaction: Reaction | null) => void;
}

type Lane = Played['lanes'][number];
const matters = ({ stretches }: Lane) => stretches.some(({ verdict }) => laneShape(verdict) !== 'shut');

/** What every campaign would do on this visit, a lane for each: first those that could matter. */
export function Lanes({ siteId, played, cast, rehearsal, write, onReact }: LanesProps) {
  const nameOf = new Map(cast.campaigns.map((one) => [one.id, one]));
  const firstOf = (campaign: string) =>
    played.openings.find((one) => one.campaign === campaign)?.onLine ?? Number.POSITIVE_INFINITY;
  const inOrder = [...played.lanes].sort((a, b) => firstOf(a.campaign) - firstOf(b.campaign));
  const near = inOrder.filter(matters);
  const far = inOrder.filter((lane) => !matters(lane));
  const total = played.pages.at(-1)?.to || 1;
  return (
    <section aria-label="What each campaign would do" className="grid gap-2">
      {near.length === 0 && (
        <p className="py-6 text-center text-soft">No campaign could open on this visit.</p>
      )}
      <ul className="grid">
        {near.map((lane) => (
          <LaneRow
            key={lane.campaign}
            siteId={siteId}
            lane={lane}
            campaign={nameOf.get(lane.campaign)}
            total={total}
            pages={played.pages}
            reaction={rehearsal.reactions.find(({ campaign }) => campaign === lane.campaign)}
            write={write}
            onReact={(reaction) => onReact(lane.campaign, reaction)}
          />
        ))}
      </ul>
      <p aria-hidden="true" className="flex flex-wrap gap-x-5 gap-y-1 text-xs text-soft">
        {(['open', 'waits', 'queues', 'held', 'shut'] as const).map((shape) => (
          <span key={shape} className="flex items-center gap-1.5">
            <span className="relative inline-block h-5 w-8">
              <span className={cx('absolute inset-x-0 forced-color-adjust-none', SHAPES[shape])} />
            </span>
            {SHAPE_WORDS[shape]}
          </span>
        ))}
      </p>
      {far.length > 0 && (
        <Fold title="Not for this visit" note={String(far.length)}>
          <ul className="grid gap-1">
            {far.map(({ campaign, stretches }) => (
              <li key={campaign} className="flex flex-wrap gap-x-3">
                <b className="font-medium">{nameOf.get(campaign)?.name}</b>
                <span className="text-soft">{reasons(stretches, write)}</span>
              </li>
            ))}
          </ul>
        </Fold>
      )}
    </section>
  );
}

const reasons = (stretches: readonly LaneStretch[], write: (atMs: number) => string): string =>
  [...new Set(stretches.map(({ verdict }) => verdictSentence(verdict, write)))].join(' ');

interface LaneRowProps {
  readonly siteId: string;
  readonly lane: Lane;
  readonly campaign: Cast['campaigns'][number] | undefined;
  readonly total: number;
  readonly pages: Played['pages'];
  readonly reaction: Reaction | undefined;
  readonly write: (atMs: number) => string;
  readonly onReact: (reaction: Reaction | null) => void;
}

function LaneRow({ siteId, lane, campaign, total, pages, reaction, write, onReact }: LaneRowProps) {
  const { stretches } = lane;
  const hasOpened = stretches.some(({ verdict }) => laneShape(verdict) === 'open');
  const secondOf = ({ from, page }: LaneStretch) => clockWords(from - (pages[page]?.from ?? 0));
  return (
    <li className="grid gap-x-4 gap-y-1 border-b border-line py-2">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
        <Link
          to={`/sites/${siteId}/campaigns/${lane.campaign}`}
          className="font-semibold underline-offset-4 hover:underline"
        >
          {campaign?.name}
        </Link>
        {campaign && <StateMark state={campaign.state} />}
        {hasOpened && (
          <div className="ml-auto flex items-center gap-2">
            <Select
              label={`The visitor, when ${campaign?.name} opens`}
              isLabelHidden
              className="w-36"
              value={reaction?.does ?? IGNORES}
              options={[
                { value: IGNORES, label: 'leaves it be' },
                ...Object.entries(REACTION_WORDS).map(([value, label]) => ({ value, label })),
              ]}
              onChange={(does) =>
                onReact(
                  does === IGNORES
                    ? null
                    : {
                        campaign: lane.campaign,
                        does: does as Reaction['does'],
                        afterSeconds: reaction?.afterSeconds ?? REACTION_SECONDS,
                      },
                )
              }
            />
            {reaction && (
              <div className="w-20">
                <NumberField
                  label={`Seconds until then, ${campaign?.name}`}
                  isLabelHidden
                  unit="s"
                  value={reaction.afterSeconds}
                  min={0}
                  max={600}
                  onChange={(afterSeconds) => onReact({ ...reaction, afterSeconds })}
                />
              </div>
            )}
          </div>
        )}
      </div>
      <div aria-hidden="true" className="relative h-7">
        {pages.slice(1).map(({ from }) => (
          <span
            key={from}
            className="absolute inset-y-0 border-l border-line"
            style={{ left: `${(from / total) * 100}%` }}
          />
        ))}
        {stretches.map((stretch) => (
          <span
            key={`${stretch.page} ${stretch.from}`}
            title={`${secondOf(stretch)}: ${verdictSentence(stretch.verdict, write)}`}
            className="absolute inset-y-0"
            style={{
              left: `${(stretch.from / total) * 100}%`,
              width: `${((stretch.to - stretch.from) / total) * 100}%`,
            }}
          >
            <span
              className={cx(
                'absolute inset-x-0 forced-color-adjust-none',
                SHAPES[laneShape(stretch.verdict)],
              )}
            />
          </span>
        ))}
      </div>
      <details className="text-xs text-soft">
        <summary className="w-fit rounded">{summary(lane, pages)}</summary>
        <ol className="mt-1 grid gap-0.5 pl-4">
          {stretches.map((stretch) => (
            <li key={`${stretch.page} ${stretch.from}`}>
              Page {stretch.page + 1}, {secondOf(stretch)}: {verdictSentence(stretch.verdict, write)}
            </li>
          ))}
        </ol>
      </details>
    </li>
  );
}

/** When it opens, in a line. */
function summary({ stretches }: Lane, pages: Played['pages']): string {
  const opened = stretches.filter(({ verdict }) => laneShape(verdict) === 'open');
  return opened.length === 0
    ? 'Does not open'
    : `Opens ${opened
        .map(({ from, page }) => `on page ${page + 1} at ${clockWords(from - (pages[page]?.from ?? 0))}`)
        .join(', ')}`;
}
