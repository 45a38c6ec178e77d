import { useQuery } from '@tanstack/react-query';
import type { Assumptions, CampaignNumbers, Cast, Site, SiteLimits, Traffic } from '@velarium/contract';
import {
  COSTLY_PARTS,
  type CostlyPart,
  figure,
  forecastWords,
  gainShareWords,
  manifestSupposing,
  manifestWithout,
  opposite,
  trafficWords,
  USUAL_ASSUMPTIONS,
} from '@velarium/core';
import { useMemo, useState } from 'react';
import { Link, useParams, useSearchParams } from 'react-router';
import { failureOf } from '../api/failure-of.ts';
import { campaignsQuery } from '../api/queries.ts';
import { castQuery } from '../api/rehearsals.ts';
import { LimitControls } from '../site/settings/limit-controls.tsx';
import { useSite } from '../site/use-site.ts';
import { Button } from '../ui/button.tsx';
import { Fold } from '../ui/fold.tsx';
import { Select } from '../ui/select.tsx';
import { EmptyState, ErrorState, Skeleton } from '../ui/states.tsx';
import { Beside } from './beside.tsx';
import { CampaignTable, NOW, THEN } from './campaign-table.tsx';
import { Granted } from './granted.tsx';
import { HowForecastsHeld } from './how-forecasts-held.tsx';
import { Met } from './met.tsx';
import { useOtherCast, useOtherRule } from './use-other-rule.ts';
import { useReplay } from './use-replay.ts';
import { useVisits, type Visits } from './use-visits.ts';
import { VisitsChooser } from './visits-chooser.tsx';
import { Way } from './way.tsx';

const LIVE = 'live';
const NONE = 'none';
/** The draft under another rule. */
const OTHER = 'other';
/** A campaign with one part of its sentence said in the widest way. */
const WIDER: Readonly<Record<CostlyPart, string>> = {
  devices: 'On every device',
  audience: 'For everybody',
  schedule: 'On all days, at all hours',
  caps: 'As often as they come',
  exclude: 'Also on the pages it is never on',
  pages: 'On every page',
  moment: 'At once',
  pauses: 'Without staying away after a close',
};

/** What would have happened to the site's visitors: their visits, replayed against the campaigns as they are and as they would be. */
export function ForecastPage() {
  const { siteId = '' } = useParams();
  const site = useSite(siteId);
  // Whoever may not see the site, or follows a link to one that is gone, is told.
  const failure = failureOf([useQuery(castQuery(siteId, LIVE))]);
  if (failure) return <ErrorState {...failure} />;
  return site ? <ForecastOfSite key={siteId} site={site} /> : <Skeleton rows={6} label="Loading the site" />;
}

function ForecastOfSite({ site }: { readonly site: Site }) {
  const [search, setSearch] = useSearchParams();
  const of = search.get('of') ?? LIVE;
  const without = search.get('without') ?? NONE;
  const beside = search.get('beside') ?? '';
  const put = (key: 'of' | 'without' | 'beside', value: string, plain: string) =>
    setSearch((old) => {
      const next = new URLSearchParams(old);
      if (value === plain) next.delete(key);
      else next.set(key, value);
      return next;
    });
  const visits = useVisits(site);
  const live = useQuery({ ...castQuery(site.id, LIVE), staleTime: 0 });
  const then = useQuery({ ...castQuery(site.id, of), staleTime: 0 });
  const { data: campaigns } = useQuery(campaignsQuery(site.id));
  const numbers = useMemo(
    () => campaigns && new Map(campaigns.map((one) => [one.id, one.numbers])),
    [campaigns],
  );
  const failure = failureOf([...visits.asked, live, then]);
  if (failure) return <ErrorState {...failure} />;
  const { traffic, from } = visits;
  return (
    <div className="mx-auto max-w-[1360px] px-6 pb-16 max-sm:px-4">
      <div className="flex flex-wrap items-end gap-x-4 gap-y-2 pt-7 pb-4">
        <div className="mr-auto">
          <h1 className="font-serif text-3xl">Forecast</h1>
          <p className="text-soft">
            {traffic
              ? trafficWords(from, traffic)
              : from === 'log'
                ? 'Of a server’s log that is brought'
                : from === 'invented'
                  ? 'Inventing visits to the site’s pages …'
                  : 'Reading what was recorded …'}
          </p>
        </div>
        <Select
          label="With the draft of"
          className="w-64"
          value={of}
          options={[
            { value: LIVE, label: 'None: as it runs now' },
            { value: 'drafts', label: 'Every campaign' },
            ...(campaigns ?? [])
              .filter(({ id, state }) => id === of || state !== 'archived')
              .map(({ id, name }) => ({ value: id, label: name })),
          ]}
          onChange={(next) => put('of', next, LIVE)}
        />
        <Select
          label="Without"
          className="w-52"
          value={without}
          options={[
            { value: NONE, label: 'None left out' },
            ...(then.data?.campaigns ?? []).map(({ id, name }) => ({ value: id, label: name })),
          ]}
          onChange={(next) => put('without', next, NONE)}
        />
      </div>
      <VisitsChooser visits={visits} timeZone={site.timeZone} />
      {from === 'log' && !traffic ? null : !traffic || !live.data || !then.data ? (
        <Skeleton rows={6} label="Loading the traffic" />
      ) : traffic.list.length === 0 ? (
        <NobodyCame visits={visits} siteId={site.id} />
      ) : (
        <Replayed
          key={`${of} ${without} ${from}`}
          origin={site.origins[0] ?? 'https://site.example'}
          traffic={traffic}
          live={live.data}
          then={then.data}
          of={of}
          without={without === NONE ? null : without}
          siteId={site.id}
          beside={beside}
          onBeside={(typed) => put('beside', typed, '')}
          numbers={numbers}
        />
      )}
      <HowForecastsHeld siteId={site.id} />
    </div>
  );
}

/** There is nothing to replay; what else there is to do. */
function NobodyCame({ visits, siteId }: { readonly visits: Visits; readonly siteId: string }) {
  if (visits.from !== 'recorded')
    return (
      <EmptyState title="No page view in it" drawing="curve">
        No line of this log tells of a person who saw a page.
      </EmptyState>
    );
  return (
    <EmptyState
      title="Nothing recorded yet"
      drawing="curve"
      action={
        <div className="flex flex-wrap justify-center gap-2">
          <Button tone="main" onClick={() => visits.choose('log')}>
            Bring a server’s log
          </Button>
          <Button onClick={() => visits.choose('invented')}>Invent some visits</Button>
        </div>
      }
    >
      A forecast replays the visits of the site’s own pages, once{' '}
      <Link to={`/sites/${siteId}/site`} className="font-medium text-sail underline underline-offset-4">
        the tag is heard there
      </Link>
      . Until then it can replay those of a server’s log, or some that are plainly invented.
    </EmptyState>
  );
}

interface ReplayedProps {
  readonly origin: string;
  readonly traffic: Traffic;
  readonly live: Cast;
  readonly then: Cast;
  readonly of: string;
  /** A campaign that is left out. */
  readonly without: string | null;
  readonly siteId: string;
  /** Another rule of the campaign whose draft is asked about, in typed words. */
  readonly beside: string;
  readonly onBeside: (typed: string) => void;
  readonly numbers: ReadonlyMap<string, CampaignNumbers> | undefined;
}

function Replayed(props: ReplayedProps) {
  const { origin, traffic, live, then, of, without, siteId, beside, onBeside, numbers } = props;
  const [assumptions, setAssumptions] = useState<Assumptions>(USUAL_ASSUMPTIONS);
  const [limits, setLimits] = useState<SiteLimits | null>(null);
  const isCompared = of !== LIVE || without !== null || limits !== null;
  const supposed = useMemo(
    () => manifestSupposing(then.manifest, { without, limits }),
    [then, without, limits],
  );
  const one = then.campaigns.find(({ id }) => id === of && id !== without);
  const otherRule = useOtherRule(siteId, beside === '' ? null : (one?.id ?? null), beside);
  const { data: otherCast, error: otherError } = useOtherCast(siteId, one?.id ?? null, otherRule);
  const casts = useMemo(
    () => [
      { key: THEN, manifest: supposed },
      ...(isCompared ? [{ key: NOW, manifest: live.manifest }] : []),
      ...(otherCast
        ? [{ key: OTHER, manifest: manifestSupposing(otherCast.manifest, { without, limits }) }]
        : []),
      ...(one
        ? COSTLY_PARTS.flatMap((part) => {
            const manifest = manifestWithout(supposed, one.id, part);
            return manifest ? [{ key: part, manifest }] : [];
          })
        : []),
    ],
    [supposed, live, one, isCompared, otherCast, without, limits],
  );
  const replay = useReplay(casts, traffic, assumptions, origin);
  const result = replay.forecasts.get(THEN);
  // What was compared before is still kept there.
  const now = isCompared ? replay.forecasts.get(NOW) : undefined;
  const isDone = casts.every(({ key }) => replay.whole.has(key));
  const names = new Map(then.campaigns.map(({ id, name }) => [id, name]));
  const own = one && result?.campaigns.find(({ campaign }) => campaign === one.id);
  return (
    <div className="grid gap-8 pt-3">
      <p role="status" className="flex min-h-8 items-center gap-3 text-soft">
        {replay.hasFailed
          ? 'The replay failed. Load the page again.'
          : isDone
            ? 'Replayed to the last visitor.'
            : replay.isStopped
              ? 'Stopped. What is shown is of fewer visitors, with wider intervals.'
              : `Replaying: ${figure(replay.whole.size)} of ${figure(casts.length)} questions answered …`}
        {!isDone && !replay.hasFailed && !replay.isStopped && (
          <Button className="h-7" onClick={replay.stop}>
            Stop
          </Button>
        )}
      </p>
      {own && result && (
        <p className="border-l-2 border-sail pl-4 font-serif text-lg leading-snug">
          {one.name}: {forecastWords(own, result.visitors)}
        </p>
      )}
      {own && (
        <section aria-label="How far they come" className="max-w-4xl">
          <h2 className="pb-2 font-semibold">How far they come</h2>
          <Way way={own.way} />
        </section>
      )}
      {one && (
        <Beside
          siteId={siteId}
          campaign={one.id}
          typed={beside}
          replayed={otherRule}
          onType={onBeside}
          own={result}
          hasFailed={otherError !== null}
          other={otherCast && replay.forecasts.get(OTHER)}
          gain={otherCast && replay.gains.get(OTHER)?.find(({ campaign }) => campaign === one.id)}
        />
      )}
      {result && (
        <CampaignTable
          result={result}
          now={now}
          gains={replay.gains.get(NOW)?.map(opposite)}
          names={names}
          numbers={numbers}
        />
      )}
      <div className="grid gap-8 lg:grid-cols-2">
        {result && <Met forecast={result} now={now} />}
        {own && (
          <section aria-label="What one change would win">
            <h2 className="pb-2 font-semibold">What one change would win</h2>
            <ul className="border-t border-line-strong">
              {casts
                .flatMap(({ key }) => {
                  const found = replay.gains.get(key)?.find(({ campaign }) => campaign === one.id);
                  return found && key !== NOW && key !== OTHER ? [{ part: key as CostlyPart, found }] : [];
                })
                .sort((a, b) => b.found.value - a.found.value)
                .map(({ part, found }) => (
                  <li key={part} className="flex gap-3 border-b border-line py-1.5">
                    <span className="flex-1">{WIDER[part]}</span>
                    <span className="tabular-nums">{gainShareWords(found, own.reached.value)} visitors</span>
                  </li>
                ))}
            </ul>
          </section>
        )}
        <Fold
          title="With other limits of the site"
          note={limits ? 'as set here' : 'as they are'}
          isOpen={limits !== null}
        >
          <LimitControls limits={limits ?? then.manifest.site.limits} onChange={setLimits} />
          {limits && (
            <Button className="h-7 w-fit" onClick={() => setLimits(null)}>
              As they are
            </Button>
          )}
        </Fold>
        <Granted assumptions={assumptions} onChange={setAssumptions} />
      </div>
    </div>
  );
}
