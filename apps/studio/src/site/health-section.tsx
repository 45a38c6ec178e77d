import { useQueries } from '@tanstack/react-query';
import type { Site } from '@velarium/contract';
import { figure, type HealthSign, lettersOf, siteHealth } from '@velarium/core';
import { failureOf } from '../api/failure-of.ts';
import { looksQuery } from '../api/library.ts';
import {
  campaignsQuery,
  daysQuery,
  edgeOf,
  manifestsRunQuery,
  policyQuery,
  seenValuesQuery,
  sightsQuery,
  sitePagesQuery,
  snippetQuery,
} from '../api/queries.ts';
import { ErrorState, Skeleton } from '../ui/states.tsx';
import { useSitePages } from './use-site.ts';

const SIGNS: Readonly<
  Record<HealthSign['state'], { readonly sign: string; readonly word: string; readonly tone: string }>
> = {
  wrong: { sign: '■', word: 'Wrong', tone: 'text-halt' },
  look: { sign: '▲', word: 'Worth a look', tone: 'text-hold' },
  good: { sign: '●', word: 'Well', tone: 'text-ink' },
};

/** How the site carries the tag and what its campaigns need, sign by sign. */
export function HealthSection({ site }: { readonly site: Site }) {
  const pages = useSitePages(site.id);
  const [known, days, campaigns, seen, policy, snippet, run, sights, looks] = useQueries({
    queries: [
      sitePagesQuery(site.id),
      daysQuery(site.id),
      campaignsQuery(site.id),
      seenValuesQuery(site.id),
      policyQuery(site.id),
      snippetQuery(site.id),
      manifestsRunQuery(site.id),
      sightsQuery(site.id),
      looksQuery(site.id),
    ],
  });
  const failure = failureOf([known, days, campaigns, seen, snippet, run, sights]);
  if (failure) return <ErrorState {...failure} />;
  if (
    !known.data ||
    !days.data ||
    !campaigns.data ||
    !seen.data ||
    !snippet.data ||
    !run.data ||
    !sights.data
  )
    return <Skeleton rows={5} label="Looking at the site" />;
  const { countries } = seen.data;
  const signs = siteHealth({
    site,
    known: known.data,
    pages,
    viewsByDay: days.data,
    campaigns: campaigns.data,
    knowsCountries: countries.length === 0 ? null : countries.some(({ value }) => value !== 'unknown'),
    // A home page that does not answer says nothing, and the other signs need not wait for it.
    policies: policy.data?.policies ?? null,
    loadsLetters: looks.data?.some(({ style }) => lettersOf(style).length > 0) ?? false,
    edge: edgeOf(snippet.data.snippet),
    manifestsRun: run.data,
    seen: sights.data,
    nowMs: Date.now(),
  });
  return (
    <div className="grid gap-7">
      <ul aria-label="Signs of health" className="-mt-3">
        {signs.map(({ code, state, text, mend, lines }) => {
          const { sign, word, tone } = SIGNS[state];
          return (
            <li
              key={code}
              className="grid grid-cols-[9rem_minmax(0,1fr)] gap-x-4 border-b max-sm:grid-cols-1 border-line py-3"
            >
              <span className={tone}>
                <span aria-hidden>{sign}</span> {word}
              </span>
              <span>
                {text}
                {mend && <span className="block text-soft">{mend}</span>}
                {lines && (
                  <code className="mt-2 block border border-line bg-sheet p-3 wrap-anywhere whitespace-pre-wrap">
                    {lines}
                  </code>
                )}
              </span>
            </li>
          );
        })}
      </ul>
      <DayBars days={days.data} />
    </div>
  );
}

const BAR_PX = 116;

/** Page views day by day, the latest on the right. */
function DayBars({ days }: { readonly days: readonly number[] }) {
  const most = Math.max(1, ...days);
  const dayOf = (position: number) =>
    new Date(Date.now() - (days.length - position) * 86_400_000).toLocaleDateString('en-GB', {
      day: 'numeric',
      month: 'short',
      timeZone: 'UTC',
    });
  return (
    <figure>
      <figcaption className="mb-2 font-medium">Page views of the last two weeks</figcaption>
      <ol className="flex h-36 items-end gap-1.5 max-sm:gap-0.5 border-b border-line-strong">
        {days.map((views, position) => (
          <li
            key={dayOf(position)}
            className="grid h-full min-w-0 flex-1 content-end justify-items-center gap-1"
            title={`${dayOf(position)}: ${figure(views)}`}
          >
            <span className="text-xs text-soft tabular-nums max-sm:sr-only">{figure(views)}</span>
            <span
              className="block w-full border-t-2 border-line-strong bg-line forced-color-adjust-none"
              style={{ blockSize: `${(views / most) * BAR_PX}px` }}
            />
            <span className="sr-only">{dayOf(position)}</span>
          </li>
        ))}
      </ol>
      <p aria-hidden className="mt-1 flex justify-between text-xs text-soft">
        <span>{dayOf(0)}</span>
        <span>{dayOf(days.length - 1)}</span>
      </p>
    </figure>
  );
}
