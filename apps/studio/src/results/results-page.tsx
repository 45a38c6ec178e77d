import { keepPreviousData, useQuery } from '@tanstack/react-query';
import type { SiteResults } from '@velarium/contract';
import {
  byCertainty,
  closedSoonWords,
  conversionRate,
  counted,
  figure,
  periodWords,
  saysLittle,
} from '@velarium/core';
import { Link, useParams } from 'react-router';
import { siteResultsFile, siteResultsQuery } from '../api/results.ts';
import { Button } from '../ui/button.tsx';
import { cx } from '../ui/cx.ts';
import { Rate, rateScale } from '../ui/rate.tsx';
import { EmptyState, ErrorState, Skeleton } from '../ui/states.tsx';
import { tell } from '../ui/toast.tsx';
import { Bars } from './bars.tsx';
import { Change } from './change.tsx';
import { OverTimeChart } from './over-time-chart.tsx';
import { PeriodBar } from './period-bar.tsx';
import { isWhole, useQuestion } from './use-question.ts';

const LOOK_EVERY_MS = 15_000;

/** What every campaign of the site did, of any days. */
export function ResultsPage() {
  const { siteId = '' } = useParams();
  const question = useQuestion();
  const { asked } = question;
  const { data, error, refetch } = useQuery({
    ...siteResultsQuery(siteId, asked),
    enabled: isWhole(asked),
    refetchInterval: LOOK_EVERY_MS,
    placeholderData: keepPreviousData,
  });
  return (
    <div className="mx-auto max-w-[1360px] px-6 pb-16">
      <div className="flex flex-wrap items-end gap-x-6 gap-y-3 pt-7 pb-4">
        <div className="mr-auto">
          <h1 className="font-serif text-3xl">Results</h1>
          <p aria-live="polite" className="text-soft">
            {data && !error ? `${periodWords(data)}, by the clocks of ${data.timeZone}` : ' '}
          </p>
        </div>
        <PeriodBar question={question}>
          <Button
            onClick={() => {
              void navigator.clipboard.writeText(window.location.href);
              tell('The link to exactly this view is copied.');
            }}
          >
            Copy the link
          </Button>
          <a
            href={siteResultsFile(siteId, asked)}
            download
            className="inline-flex h-8 items-center rounded border border-line-strong bg-sheet px-3 font-medium hover:border-ink"
          >
            Save as a table
          </a>
        </PeriodBar>
      </div>
      {!isWhole(asked) ? (
        <p className="py-10 text-center text-soft">Choose the first and the last day.</p>
      ) : error ? (
        <ErrorState error={error} onRetry={() => void refetch()} />
      ) : !data ? (
        <Skeleton rows={6} label="Loading the results" />
      ) : (
        <Found siteId={siteId} results={data} search={window.location.search} />
      )}
    </div>
  );
}

interface FoundProps {
  readonly siteId: string;
  readonly results: SiteResults;
  readonly search: string;
}

function Found({ siteId, results, search }: FoundProps) {
  const { campaigns, against, met } = results;
  const told = campaigns.filter(
    ({ counts, before }) => counts.visitors + counts.withheld + (before?.visitors ?? 0) > 0,
  );
  if (told.length === 0)
    return (
      <EmptyState title="Nothing was shown on these days">
        Choose other days, or look on the Board whether a campaign is running.
      </EmptyState>
    );
  return (
    <div className="grid gap-8">
      <OverTimeChart {...results} />
      <CampaignTable siteId={siteId} campaigns={told} hasAgainst={against !== null} search={search} />
      <section className="grid max-w-3xl gap-3">
        <h2 className="font-serif text-xl">How many messages a visitor met on one day</h2>
        <Bars
          label="Visitors of a day by the messages they met"
          bars={met.map((count, at) => ({
            label: at === met.length - 1 ? `${at + 1} or more` : counted(at + 1, 'message'),
            count,
          }))}
        />
        <p className="text-soft">{closedSoonWords(told.map(({ counts }) => counts))}</p>
      </section>
    </div>
  );
}

interface CampaignTableProps {
  readonly siteId: string;
  readonly campaigns: SiteResults['campaigns'];
  readonly hasAgainst: boolean;
  readonly search: string;
}

const HEADS = ['Visitors', 'Showings', 'Seen', 'Clicked', 'Converted'] as const;

function CampaignTable({ siteId, campaigns, hasAgainst, search }: CampaignTableProps) {
  const rows = byCertainty(campaigns, ({ counts }) => counts);
  const scaleTo = rateScale(rows.map(({ counts }) => counts));
  return (
    <table className="w-full border-collapse text-left">
      <caption className="pb-2 text-left text-xs text-soft">
        Sorted by what is certain: by the lower end of the rate’s interval. Faded: too few visitors to say
        anything.
      </caption>
      <thead>
        <tr className="border-b border-line-strong text-xs text-soft">
          <th scope="col" className="py-2 pr-4 font-medium">
            Campaign
          </th>
          {HEADS.map((head) => (
            <th key={head} scope="col" className="py-2 pl-4 text-right font-medium">
              {head}
            </th>
          ))}
          <th scope="col" className="w-48 py-2 pl-8 font-medium">
            Rate of visitors
          </th>
          {hasAgainst && (
            <th scope="col" className="w-56 py-2 pl-6 font-medium">
              Against the other days
            </th>
          )}
        </tr>
      </thead>
      <tbody>
        {rows.map(({ id, name, isArchived, counts, before }) => (
          <tr key={id} className={cx('border-b border-line align-top', saysLittle(counts) && 'text-soft')}>
            <th scope="row" className="py-2.5 pr-4 font-medium">
              <Link
                to={`/sites/${siteId}/campaigns/${id}/results${search}`}
                className="underline-offset-4 hover:underline"
              >
                {name}
              </Link>
              {isArchived && <span className="ml-2 text-xs font-normal text-soft">archived</span>}
              {counts.withheld > 0 && (
                <span className="block text-xs font-normal text-soft">
                  withheld from {counted(counts.withheld, 'visitor')}
                </span>
              )}
            </th>
            {[counts.visitors, counts.showings, counts.viewers, counts.clickers, counts.converters].map(
              (count, at) => (
                <td key={HEADS[at]} className="py-2.5 pl-4 text-right">
                  {figure(count)}
                </td>
              ),
            )}
            <td className="py-2.5 pl-8">
              {conversionRate(counts).value === null ? (
                <span>–</span>
              ) : (
                <Rate {...counts} scaleTo={scaleTo} />
              )}
            </td>
            {hasAgainst && (
              <td className="py-2.5 pl-6">{before && <Change before={before} now={counts} />}</td>
            )}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
