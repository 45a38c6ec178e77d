import { useQuery } from '@tanstack/react-query';
import type { CampaignSummary, Schedule, Season, Site, SitePage } from '@velarium/contract';
import {
  type Interval,
  lanesOf,
  type Meeting,
  type Met,
  quietWeeks,
  seasonWindow,
  ticksOf,
  windowWords,
  type Zoom,
} from '@velarium/core';
import { ChevronLeft, ChevronRight } from 'lucide-react';
import { useMemo, useState } from 'react';
import { Link, useParams, useSearchParams } from 'react-router';
import { failureOf } from '../api/failure-of.ts';
import { campaignsQuery, runningQuery, sitePagesQuery } from '../api/queries.ts';
import { seasonQuery } from '../api/season.ts';
import { useCommands } from '../app/commands.ts';
import { useCanEdit } from '../app/use-session.ts';
import { isLive } from '../board/state-mark.tsx';
import { useSite } from '../site/use-site.ts';
import { Button, IconButton } from '../ui/button.tsx';
import { cx } from '../ui/cx.ts';
import { Segments } from '../ui/segments.tsx';
import { EmptyState, ErrorState, Skeleton } from '../ui/states.tsx';
import { Lane, laneWords } from './lane.tsx';
import { Meetings, QuietWeeks } from './meetings.tsx';
import { NotesRow } from './notes-row.tsx';
import { barOf, placeOf } from './place.ts';
import { SeasonTools } from './season-tools.tsx';
import { SpanButton } from './span-taker.tsx';
import { useMeetings } from './use-meetings.ts';
import { useScheduleEdit } from './use-schedule-edit.ts';

const LANE = 34;

/** What runs when: weeks as a line, a lane for every campaign, and what the team knows of the days. */
export function SeasonPage() {
  const { siteId = '' } = useParams();
  const site = useSite(siteId);
  const campaigns = useQuery(campaignsQuery(siteId));
  const season = useQuery(seasonQuery(siteId));
  const pages = useQuery(sitePagesQuery(siteId));
  const running = useQuery(runningQuery(siteId));
  const failure = failureOf([campaigns, season, pages, running]);
  if (failure) return <ErrorState {...failure} />;
  if (!site || !campaigns.data || !season.data || !pages.data || !running.data)
    return <Skeleton rows={6} label="Loading the season" />;
  return (
    <Weeks
      key={siteId}
      site={site}
      season={season.data}
      pages={pages.data}
      running={running.data}
      campaigns={campaigns.data.filter(({ state }) => state !== 'archived' && state !== 'ended')}
    />
  );
}

interface WeeksProps {
  readonly site: Site;
  readonly season: Season;
  readonly pages: readonly SitePage[];
  /** As they run, which their drafts need not say any more. */
  readonly running: readonly Met[];
  readonly campaigns: readonly CampaignSummary[];
}

function Weeks({ site, season, pages, running, campaigns }: WeeksProps) {
  const zone = site.timeZone;
  const canEdit = useCanEdit();
  const [search, setSearch] = useSearchParams();
  const [nowMs] = useState(Date.now);
  const zoom = (search.get('zoom') ?? 'quarter') as Zoom;
  const steps = Number(search.get('on') ?? 0) || 0;
  const window = useMemo(() => seasonWindow(zoom, nowMs, zone, steps), [zoom, nowMs, zone, steps]);
  const ticks = useMemo(() => ticksOf(zoom, window, zone), [zoom, window, zone]);
  const lanes = useMemo(() => {
    const published = new Map(running.map(({ id, document }) => [id, document.rule.limits.schedule]));
    return lanesOf(
      campaigns.map(({ id, name, rule }) => ({
        id,
        name,
        schedule: rule.limits.schedule,
        published: published.get(id),
      })),
      window,
      zone,
    );
  }, [campaigns, running, window, zone]);
  const meet = useMeetings(site, pages, lanes, nowMs, 'drafts');
  const quiet = useMemo(() => quietWeeks(lanes, window, zone), [lanes, window, zone]);
  const [looked, setLooked] = useState<Meeting | null>(null);
  const edit = useScheduleEdit(site.id);
  const go = (next: { readonly zoom?: Zoom; readonly on?: number }) =>
    setSearch({ zoom: next.zoom ?? zoom, ...(next.on ? { on: String(next.on) } : {}) }, { replace: true });
  useCommands('Season', [
    { id: 'season.earlier', label: 'Earlier', keys: ',', run: () => go({ on: steps - 1 }) },
    { id: 'season.later', label: 'Later', keys: '.', run: () => go({ on: steps + 1 }) },
    { id: 'season.today', label: 'Back to today', keys: '0', run: () => go({ on: 0 }) },
  ]);
  return (
    <div className="mx-auto max-w-[1560px] px-6 pb-12 max-sm:px-4">
      <div className="flex flex-wrap items-end gap-x-4 gap-y-2 pt-7 pb-4">
        <div className="mr-auto">
          <h1 className="font-serif text-3xl">Season</h1>
          <p className="text-soft" role="status">
            {windowWords(zoom, window, zone)}, by the clocks of {zone.replace(/^.*\//, '').replace('_', ' ')}
          </p>
        </div>
        <span className="flex items-center gap-1">
          <IconButton label="Earlier" onClick={() => go({ on: steps - 1 })}>
            <ChevronLeft size={16} aria-hidden />
          </IconButton>
          <Button disabled={steps === 0} onClick={() => go({ on: 0 })}>
            Today
          </Button>
          <IconButton label="Later" onClick={() => go({ on: steps + 1 })}>
            <ChevronRight size={16} aria-hidden />
          </IconButton>
        </span>
        <div className="w-80">
          <Segments
            label="How much"
            isLabelHidden
            value={zoom}
            options={[
              { value: 'day', label: 'Day' },
              { value: 'week', label: 'Week' },
              { value: 'month', label: 'Month' },
              { value: 'quarter', label: 'Quarter' },
              { value: 'year', label: 'Year' },
            ]}
            onChange={(next) => go({ zoom: next })}
          />
        </div>
        {canEdit && <SeasonTools siteId={site.id} season={season} />}
      </div>
      {campaigns.length === 0 ? (
        <EmptyState
          title="No campaign yet"
          drawing="days"
          action={
            <Link
              to={`/sites/${site.id}/board`}
              className="font-medium text-sail underline underline-offset-4"
            >
              Go to the Board
            </Link>
          }
        >
          Each campaign has its lane here, from its first day to its last.
        </EmptyState>
      ) : (
        <div className="grid gap-8 xl:grid-cols-[minmax(0,1fr)_20rem]">
          <section aria-label="Weeks" className="overflow-x-auto">
            <div className="relative min-w-[52rem] [--names:16rem] max-sm:[--names:9.5rem]">
              <div
                aria-hidden="true"
                className="pointer-events-none absolute inset-y-0 right-0 left-(--names) forced-color-adjust-none"
              >
                {quiet.map((week) => (
                  <span
                    key={week[0]}
                    className="absolute inset-y-0 bg-[repeating-linear-gradient(135deg,var(--color-line)_0_1px,transparent_1px_7px)]"
                    style={barOf(week, window)}
                  />
                ))}
                {ticks.map(({ atMs }) => (
                  <span
                    key={atMs}
                    className="absolute inset-y-0 border-l border-line"
                    style={{ left: `${placeOf(atMs, window)}%` }}
                  />
                ))}
                {nowMs >= window[0] && nowMs < window[1] && (
                  <span
                    className="absolute inset-y-0 z-10 border-l-2 border-sail"
                    style={{ left: `${placeOf(nowMs, window)}%` }}
                  />
                )}
              </div>
              <Ticks ticks={ticks} window={window} zoom={zoom} />
              <NotesRow siteId={site.id} notes={season.notes} window={window} zone={zone} canEdit={canEdit} />
              <ol aria-label="Campaigns">
                {lanes.map((lane, n) => {
                  const campaign = campaigns[n] as CampaignSummary;
                  const { rule } = campaign;
                  const schedule = rule.limits.schedule;
                  const isLooked = looked?.first === n || looked?.second === n;
                  const changed = (next: Schedule | null) => ({
                    id: lane.id,
                    name: lane.name,
                    schedule: next,
                    before: schedule,
                    isLive: isLive(campaign.state),
                  });
                  const times = { schedule, window, zoom, zone };
                  return (
                    <li
                      key={lane.id}
                      className={cx(
                        'grid grid-cols-[var(--names)_minmax(0,1fr)] border-b border-line',
                        isLooked && 'bg-sail-wash',
                      )}
                      style={{ height: LANE }}
                    >
                      <span
                        className={cx(
                          'sticky left-0 z-20 flex min-w-0 items-center gap-2 pr-3 max-sm:pr-1',
                          isLooked ? 'bg-sail-wash' : 'bg-paper',
                        )}
                      >
                        <span className="flex min-w-0 flex-1 items-center gap-x-2 max-sm:grid max-sm:leading-tight">
                          <Link
                            to={`/sites/${site.id}/campaigns/${lane.id}`}
                            className="truncate font-medium underline-offset-4 hover:underline"
                            title={lane.name}
                          >
                            {lane.name}
                          </Link>
                          <span className="flex-none truncate text-xs text-soft sm:ml-auto">
                            {besideWords(campaign)}
                          </span>
                        </span>
                        {canEdit && (
                          <SpanButton
                            {...times}
                            name={lane.name}
                            onEdit={(next) => edit.mutate(changed(next))}
                          />
                        )}
                      </span>
                      <span className="sr-only">{laneWords(lane, zone)}</span>
                      <Lane
                        lane={lane}
                        {...times}
                        met={isLooked ? (looked?.when ?? []) : []}
                        plannedAtMs={campaign.plannedAt ? Date.parse(campaign.plannedAt) : null}
                        canEdit={canEdit}
                        onEdit={(next) => edit.mutateAsync(changed(next))}
                      />
                    </li>
                  );
                })}
              </ol>
            </div>
            <p className="flex flex-wrap gap-x-4 pt-2 text-xs text-soft">
              <span>■ visitors meet it</span>
              <span>□ a draft, or resting: once it is launched</span>
              <span>┄ what the draft says, where it says something else</span>
              <span>▨ a week in which nothing is open</span>
              {canEdit && (
                <span>
                  Drag a first or last day, or focus it and press ← →; draw over days of a lane (hours, where
                  a day is looked at) to say what happens in them
                </span>
              )}
            </p>
          </section>
          <div className="grid content-start gap-7">
            <Meetings lanes={lanes} meet={meet} looked={looked} onLook={setLooked} />
            <QuietWeeks quiet={quiet} zone={zone} />
          </div>
        </div>
      )}
    </div>
  );
}

/** What a lane cannot show: that its draft differs, an experiment, who sees nothing. */
function besideWords({ state, hasUnpublishedChanges, variants, rule }: CampaignSummary): string {
  const holdout = rule.limits.holdout;
  return [
    state === 'draft' ? 'draft' : state === 'resting' ? 'resting' : hasUnpublishedChanges ? '◇ changed' : '',
    variants.length > 0 ? `tries ${variants.length + 1}` : '',
    holdout > 0 ? `${holdout} % held back` : '',
  ]
    .filter(Boolean)
    .join(', ');
}

interface TicksProps {
  readonly ticks: ReturnType<typeof ticksOf>;
  readonly window: Interval;
  readonly zoom: Zoom;
}
/** Of a day's hours every third is written. */
const Ticks = ({ ticks, window, zoom }: TicksProps) => (
  <div className="grid h-7 grid-cols-[var(--names)_minmax(0,1fr)] border-y border-line-strong text-xs text-soft">
    <span className="sticky left-0 z-20 bg-paper" />
    <div aria-hidden="true" className="relative">
      {ticks
        .filter((_, n) => zoom !== 'day' || n % 3 === 0)
        .map(({ atMs, words }) => (
          <span
            key={atMs}
            className="absolute top-1.5 pl-1 whitespace-nowrap"
            style={{ left: `${placeOf(atMs, window)}%` }}
          >
            {words}
          </span>
        ))}
    </div>
  </div>
);
