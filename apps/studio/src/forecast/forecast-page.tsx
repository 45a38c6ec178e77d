import { useQuery } from '@tanstack/react-query';
import type { Assumptions, Cast, SiteLimits, Traffic } from '@velarium/contract';
import {
  COSTLY_PARTS,
  type CostlyPart,
  counted,
  type Forecast,
  figure,
  forecastWords,
  gainShareWords,
  manifestSupposing,
  manifestWithout,
  opposite,
  USUAL_ASSUMPTIONS,
} from '@velarium/core';
import { useMemo, useState } from 'react';
import { Link, useParams, useSearchParams } from 'react-router';
import { trafficQuery } from '../api/forecasts.ts';
import { campaignsQuery } from '../api/queries.ts';
import { castQuery } from '../api/rehearsals.ts';
import { LimitControls } from '../site/settings/limit-controls.tsx';
import { useSite } from '../site/use-site.ts';
import { Button } from '../ui/button.tsx';
import { Fold } from '../ui/fold.tsx';
import { NumberField } from '../ui/number-field.tsx';
import { Segments } from '../ui/segments.tsx';
import { Select } from '../ui/select.tsx';
import { EmptyState, ErrorState, Skeleton } from '../ui/states.tsx';
import { CampaignTable, NOW, THEN } from './campaign-table.tsx';
import { useReplay } from './use-replay.ts';
import { Way } from './way.tsx';

const LIVE = 'live';
const NONE = 'none';
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

/** What would have happened to the site's own visitors: recorded traffic, replayed against the campaigns as they are and as they would be. */
export function ForecastPage() {
  const { siteId = '' } = useParams();
  const [search, setSearch] = useSearchParams();
  const site = useSite(siteId);
  const of = search.get('of') ?? LIVE;
  const without = search.get('without') ?? NONE;
  const put = (key: 'of' | 'without', value: string, plain: string) =>
    setSearch((old) => {
      const next = new URLSearchParams(old);
      if (value === plain) next.delete(key);
      else next.set(key, value);
      return next;
    });
  const [days, setDays] = useState(28);
  const traffic = useQuery(trafficQuery(siteId, days));
  const live = useQuery({ ...castQuery(siteId, LIVE), staleTime: 0 });
  const then = useQuery({ ...castQuery(siteId, of), staleTime: 0 });
  const { data: campaigns = [] } = useQuery(campaignsQuery(siteId));
  const error = traffic.error ?? live.error ?? then.error;
  if (error)
    return (
      <ErrorState
        error={error}
        onRetry={() => {
          for (const one of [traffic, live, then]) void one.refetch();
        }}
      />
    );
  return (
    <div className="mx-auto max-w-[1360px] px-6 pb-16 max-sm:px-4">
      <div className="flex flex-wrap items-end gap-x-4 gap-y-2 pt-7 pb-4">
        <div className="mr-auto">
          <h1 className="font-serif text-3xl">Forecast</h1>
          <p className="text-soft">
            {traffic.data
              ? `${counted(traffic.data.visitors, 'visitor')} of the last ${days} days, replayed${traffic.data.isSample ? ` (a fair sample of ${figure(traffic.data.list.length)})` : ''}`
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
            ...campaigns
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
        <Segments
          label="Days"
          value={String(days)}
          onChange={(next) => setDays(Number(next))}
          options={['7', '14', '28'].map((value) => ({ value, label: value }))}
        />
      </div>
      {!site || !traffic.data || !live.data || !then.data ? (
        <Skeleton rows={6} label="Loading the traffic" />
      ) : traffic.data.list.length === 0 ? (
        <EmptyState
          title="Nothing recorded yet"
          drawing="curve"
          action={
            <Link to={`/sites/${siteId}/site`} className="font-medium text-sail underline underline-offset-4">
              See whether the tag is heard
            </Link>
          }
        >
          A forecast replays the visits of the site’s own pages. Once the tag has been there for a day, it can
          say something.
        </EmptyState>
      ) : (
        <Replayed
          key={`${siteId} ${of} ${without} ${days}`}
          origin={site.origins[0] ?? 'https://site.example'}
          traffic={traffic.data}
          live={live.data}
          then={then.data}
          of={of}
          without={without === NONE ? null : without}
        />
      )}
    </div>
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
}

function Replayed({ origin, traffic, live, then, of, without }: ReplayedProps) {
  const [assumptions, setAssumptions] = useState<Assumptions>(USUAL_ASSUMPTIONS);
  const [limits, setLimits] = useState<SiteLimits | null>(null);
  const isCompared = of !== LIVE || without !== null || limits !== null;
  const supposed = useMemo(
    () => manifestSupposing(then.manifest, { without, limits }),
    [then, without, limits],
  );
  const one = then.campaigns.find(({ id }) => id === of);
  const casts = useMemo(
    () => [
      { key: THEN, manifest: supposed },
      ...(isCompared ? [{ key: NOW, manifest: live.manifest }] : []),
      ...(one
        ? COSTLY_PARTS.flatMap((part) => {
            const manifest = manifestWithout(supposed, one.id, part);
            return manifest ? [{ key: part, manifest }] : [];
          })
        : []),
    ],
    [supposed, live, one, isCompared],
  );
  const replay = useReplay(casts, traffic, assumptions, origin);
  const result = replay.forecasts.get(THEN);
  // What was compared before is still kept there.
  const now = isCompared ? replay.forecasts.get(NOW) : undefined;
  const isDone = casts.every(({ key }) => replay.whole.has(key));
  const names = new Map(then.campaigns.map(({ id, name }) => [id, name]));
  const own = one && result?.campaigns.find(({ campaign }) => campaign === one.id);
  return (
    <div className="grid gap-8">
      <p role="status" className="flex min-h-8 items-center gap-3 text-sm text-soft">
        {replay.hasFailed
          ? 'The replay failed. Load the page again.'
          : isDone
            ? 'Replayed to the last visitor.'
            : replay.isStopped
              ? 'Stopped. What is shown is of fewer visitors, with wider intervals.'
              : `Replaying: ${figure(replay.whole.size)} of ${figure(casts.length)} questions answered …`}
        {!isDone && !replay.hasFailed && !replay.isStopped && (
          <Button className="h-7 text-sm" onClick={replay.stop}>
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
      {result && (
        <CampaignTable result={result} now={now} gains={replay.gains.get(NOW)?.map(opposite)} names={names} />
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
                  return found && key !== NOW ? [{ part: key as CostlyPart, found }] : [];
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
            <Button className="h-7 w-fit text-sm" onClick={() => setLimits(null)}>
              As they are
            </Button>
          )}
        </Fold>
        <Granted assumptions={assumptions} onChange={setAssumptions} />
      </div>
    </div>
  );
}

function Met({ forecast, now }: { readonly forecast: Forecast; readonly now: Forecast | undefined }) {
  const most = Math.max(1, ...forecast.met);
  return (
    <section aria-label="Messages a visitor meets">
      <h2 className="pb-2 font-semibold">Messages a visitor meets</h2>
      <table className="w-full border-t border-line-strong">
        <thead className="text-left text-xs text-soft">
          <tr>
            <th scope="col" className="py-1 font-normal">
              Messages
            </th>
            <th scope="col" className="py-1 font-normal">
              Visitors
            </th>
            {now && (
              <th scope="col" className="py-1 text-right font-normal">
                As it runs now
              </th>
            )}
          </tr>
        </thead>
        <tbody>
          {forecast.met.map((visitors, messages) => (
            // Its place in the list is the number of messages.
            // biome-ignore lint/suspicious/noArrayIndexKey: see above.
            <tr key={messages} className="border-t border-line">
              <th scope="row" className="w-20 py-1 text-left font-normal">
                {messages === forecast.met.length - 1 ? `${messages} or more` : messages}
              </th>
              <td className="py-1">
                <span className="flex items-center gap-2">
                  {visitors > 0 && (
                    <span
                      aria-hidden="true"
                      className="h-3 flex-none border border-ink bg-ink/80"
                      style={{ width: `${(visitors / most) * 60}%` }}
                    />
                  )}
                  <span className="tabular-nums">{figure(visitors)}</span>
                </span>
              </td>
              {now && <td className="py-1 text-right tabular-nums">{figure(now.met[messages] ?? 0)}</td>}
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

interface GrantedProps {
  readonly assumptions: Assumptions;
  readonly onChange: (assumptions: Assumptions) => void;
}

/** What no record tells, with its value and where that comes from. */
function Granted({ assumptions, onChange }: GrantedProps) {
  const percent = (label: string, key: 'leavesByMouse' | 'leavesByTouch') => (
    <NumberField
      label={label}
      unit="%"
      min={0}
      max={100}
      step={5}
      value={Math.round(assumptions[key] * 100)}
      onChange={(value) => onChange({ ...assumptions, [key]: value / 100 })}
    />
  );
  return (
    <section aria-label="Taken for granted" className="grid content-start gap-3">
      <h2 className="font-semibold">Taken for granted</h2>
      <p className="text-sm text-soft">
        No record tells these; the values are common practice until you know better. Clicks, hovers and
        elements reached are not known either: campaigns that wait for them alone open for nobody here. Nobody
        is held back. Pages are read evenly down to where they were left; a view whose end was not told of
        lasts as long as another of the same page.
      </p>
      <div className="grid gap-3 sm:grid-cols-3">
        {percent('Views at a desk left by the top edge', 'leavesByMouse')}
        {percent('Views on a phone left by a quick scroll up', 'leavesByTouch')}
        <NumberField
          label="A message is closed after"
          unit="s"
          min={1}
          max={600}
          value={assumptions.closesAfterSeconds}
          onChange={(closesAfterSeconds) => onChange({ ...assumptions, closesAfterSeconds })}
        />
      </div>
    </section>
  );
}
