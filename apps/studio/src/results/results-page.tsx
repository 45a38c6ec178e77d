import { keepPreviousData, useQuery } from '@tanstack/react-query';
import type { SiteResults } from '@velarium/contract';
import { byCertainty, closedSoonWords, conversionRate, counted, figure, saysLittle } from '@velarium/core';
import { Link, useParams } from 'react-router';
import { siteResultsFile, siteResultsQuery } from '../api/results.ts';
import { Button } from '../ui/button.tsx';
import { copy } from '../ui/copy.ts';
import { cx } from '../ui/cx.ts';
import { Rate, rateScale } from '../ui/rate.tsx';
import { EmptyState } from '../ui/states.tsx';
import { WideTable } from '../ui/wide-table.tsx';
import { Bars } from './bars.tsx';
import { Change } from './change.tsx';
import { Heads } from './heads.tsx';
import { OverTimeChart } from './over-time-chart.tsx';
import { ResultsFrame } from './results-frame.tsx';
import { isWhole, useQuestion } from './use-question.ts';
import { WeekMailButton } from './week-mail-button.tsx';

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
    <ResultsFrame
      title="Results"
      question={question}
      actions={
        <>
          <WeekMailButton siteId={siteId} />
          <Button
            onClick={() =>
              copy(window.location.href, {
                said: 'The link to exactly this view is copied.',
                byHand: 'The link is the address of this page.',
              })
            }
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
        </>
      }
      results={data}
      error={error}
      onRetry={() => void refetch()}
    >
      {data && <Found siteId={siteId} results={data} search={window.location.search} />}
    </ResultsFrame>
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
      <EmptyState
        title="Nothing was shown on these days"
        drawing="intervals"
        action={
          <Link to={`/sites/${siteId}/board`} className="font-medium text-sail underline underline-offset-4">
            Go to the Board
          </Link>
        }
      >
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
    <WideTable
      caption="Sorted by what is certain: by the lower end of the rate’s interval. Faded: too few visitors to say anything."
      isCaptionSeen
      className={hasAgainst ? 'min-w-5xl' : 'min-w-3xl'}
    >
      <Heads
        heads={[
          { words: 'Campaign' },
          ...HEADS.map((words) => ({ words, isFigure: true })),
          { words: 'Rate of visitors', className: 'w-48' },
          ...(hasAgainst ? [{ words: 'Against the other days', className: 'w-56' }] : []),
        ]}
      />
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
            <td className="py-2.5 pl-6">
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
    </WideTable>
  );
}
