import { keepPreviousData, useQuery } from '@tanstack/react-query';
import type { Breakdown } from '@velarium/contract';
import { BREAKDOWNS } from '@velarium/contract/values';
import {
  BREAKDOWN_WORDS,
  CLOSE_WAY_WORDS,
  counted,
  figure,
  partWords,
  STAY_SECONDS,
  saysLittle,
  wayDown,
} from '@velarium/core';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { type CampaignFound, campaignResultsQuery } from '../api/results.ts';
import { useTitle } from '../app/use-title.ts';
import { cx } from '../ui/cx.ts';
import { Rate, rateScale } from '../ui/rate.tsx';
import { Select } from '../ui/select.tsx';
import { EmptyState } from '../ui/states.tsx';
import { WideTable } from '../ui/wide-table.tsx';
import { Bars } from './bars.tsx';
import { BeforeAndAfter } from './before-and-after.tsx';
import { BeforeItWasShown } from './before-it-was-shown.tsx';
import { Change } from './change.tsx';
import { ExperimentSection } from './experiment-section.tsx';
import { ForeseenOfCampaign } from './foreseen-of-campaign.tsx';
import { GoalsOfCampaign } from './goals-of-campaign.tsx';
import { Heads } from './heads.tsx';
import { Histogram } from './histogram.tsx';
import { OnMessage } from './on-message.tsx';
import { OverTimeChart } from './over-time-chart.tsx';
import { ResultsFrame } from './results-frame.tsx';
import { UntoldOfGroups } from './untold-of-groups.tsx';
import { isWhole, useQuestion } from './use-question.ts';
import { VersionsOfCampaign } from './versions-of-campaign.tsx';
import { WhenItOpened } from './when-it-opened.tsx';

const LOOK_EVERY_MS = 15_000;

/** What one campaign did: the way down, how it went away, by whom and when. */
export function CampaignResultsPage() {
  const { siteId = '', campaignId = '' } = useParams();
  const question = useQuestion();
  const { asked, read, set } = question;
  const by = BREAKDOWNS.find((one) => one === read('by')) ?? 'device';
  const { data, error, refetch } = useQuery({
    ...campaignResultsQuery(campaignId, asked, by),
    enabled: isWhole(asked),
    refetchInterval: LOOK_EVERY_MS,
    placeholderData: keepPreviousData,
  });
  useTitle(data && `Results of ${data.name}`);
  return (
    <ResultsFrame
      title={data?.name ?? 'Results'}
      above={
        <Link
          to={`/sites/${siteId}/results${window.location.search}`}
          className="underline underline-offset-4"
        >
          Results of the site
        </Link>
      }
      question={question}
      actions={
        <Link
          to={`/sites/${siteId}/campaigns/${campaignId}`}
          className="inline-flex h-8 items-center rounded border border-line-strong bg-sheet px-3 font-medium hover:border-ink"
        >
          To its Workbench
        </Link>
      }
      results={data}
      error={error}
      onRetry={() => void refetch()}
    >
      {data && <Found siteId={siteId} results={data} onBy={(next) => set({ by: next })} />}
    </ResultsFrame>
  );
}

interface FoundProps {
  readonly siteId: string;
  readonly results: CampaignFound;
  readonly onBy: (by: Breakdown) => void;
}

function Found({ siteId, results, onBy }: FoundProps) {
  const { counts, before, closes } = results;
  const [openedVersion, setOpenedVersion] = useState<number | null>(null);
  if (counts.visitors + counts.withheld === 0)
    return (
      <>
        <EmptyState title="It was shown to nobody on these days" drawing="intervals">
          Choose other days, or see below what keeps the site’s visitors from it.
        </EmptyState>
        <BeforeItWasShown siteId={siteId} campaignId={results.id} />
        <ForeseenOfCampaign siteId={siteId} campaignId={results.id} />
        <BeforeAndAfter campaignId={results.id} />
      </>
    );
  const scaleTo = rateScale([
    counts,
    ...results.parts,
    ...results.goals.flatMap(({ visitors, reached, withheld, withheldReached }) => [
      { visitors, converters: reached },
      { visitors: withheld, converters: withheldReached },
    ]),
  ]);
  return (
    <div className="grid gap-10">
      <section className="grid grid-cols-1 gap-x-12 gap-y-4 lg:grid-cols-[1fr_22rem]">
        <h2 className="sr-only">The way down</h2>
        <WayDown results={results} />
        <div className="grid content-start gap-3">
          <p className="text-xs text-soft">Rate of visitors</p>
          <Rate {...counts} scaleTo={scaleTo} />
          {before && <Change before={before} now={counts} />}
          {counts.withheld > 0 && (
            <p className="text-soft">
              Withheld from {counted(counts.withheld, 'visitor')}, who are not among these.
            </p>
          )}
        </div>
      </section>
      <BeforeItWasShown siteId={siteId} campaignId={results.id} />
      <ForeseenOfCampaign siteId={siteId} campaignId={results.id} />
      <OnMessage results={results} />
      <ExperimentSection campaignId={results.id} />
      <OverTimeChart {...results} onVersion={setOpenedVersion} />
      <GoalsOfCampaign siteId={siteId} results={results} scaleTo={scaleTo} />
      <section className="grid gap-3">
        <div className="flex items-end gap-4">
          <h2 className="font-serif text-xl">By</h2>
          <Select<Breakdown>
            label="By what its visitors are told apart"
            isLabelHidden
            className="w-52"
            value={results.by}
            options={BREAKDOWNS.map((value) => ({ value, label: BREAKDOWN_WORDS[value] }))}
            onChange={onBy}
          />
        </div>
        <Parts results={results} scaleTo={scaleTo} />
        {results.by === 'group' && <UntoldOfGroups siteId={siteId} />}
      </section>
      <div className="grid grid-cols-1 gap-10 lg:grid-cols-2">
        <section className="grid content-start gap-3">
          <h2 className="font-serif text-xl">How it went away</h2>
          {closes.length === 0 ? (
            <p className="text-soft">Nobody closed it on these days.</p>
          ) : (
            <>
              <Bars
                label="Ways of closing"
                bars={closes.map(({ way, events }) => ({ label: CLOSE_WAY_WORDS[way], count: events }))}
              />
              <Histogram
                title="How soon it was closed"
                unit="s"
                edges={STAY_SECONDS}
                counts={STAY_SECONDS.map((_, at) =>
                  closes.reduce((sum, { seconds }) => sum + (seconds[at] ?? 0), 0),
                )}
              />
            </>
          )}
        </section>
        <WhenItOpened siteId={siteId} results={results} />
      </div>
      <VersionsOfCampaign
        siteId={siteId}
        results={results}
        scaleTo={scaleTo}
        opened={openedVersion}
        onOpen={setOpenedVersion}
      />
      <BeforeAndAfter campaignId={results.id} />
    </div>
  );
}

/** Each step with how many came to it, and how many of the step before did not. */
function WayDown({ results }: { readonly results: CampaignFound }) {
  const steps = wayDown(results);
  return (
    <ol className="grid gap-2">
      {steps.map(({ id, words, count, left, ofFirst }) => (
        <li
          key={id}
          className="grid grid-cols-[13rem_1fr_9rem] items-center gap-4 max-sm:grid-cols-[1fr_6rem] max-sm:[&>[aria-hidden]]:hidden"
        >
          <span>{words}</span>
          <span aria-hidden="true" className="block h-5 bg-line/40 forced-color-adjust-none">
            <span
              className={cx('block h-5', id === 'converted' ? 'bg-sail' : 'bg-ink')}
              style={{ width: `${ofFirst * 100}%` }}
            />
          </span>
          <span className="text-right">
            <b className="text-base font-semibold">{figure(count)}</b>
            <span className="block text-xs text-soft">
              {left === null ? 'met it' : left > 0 ? `${figure(left)} did not` : 'all of them'}
            </span>
          </span>
        </li>
      ))}
    </ol>
  );
}

function Parts({ results, scaleTo }: { readonly results: CampaignFound; readonly scaleTo: number }) {
  const { parts, by } = results;
  return (
    <WideTable
      caption={`${BREAKDOWN_WORDS[by]}: visitors as they were when they first met it`}
      className="min-w-xl max-w-4xl"
    >
      <Heads
        heads={[
          { words: BREAKDOWN_WORDS[by] },
          { words: 'Visitors', isFigure: true },
          { words: 'Converted', isFigure: true },
          { words: 'Rate of visitors', className: 'w-56' },
        ]}
      />
      <tbody>
        {parts.map((part) => (
          <tr
            key={part.key ?? 'not known'}
            className={cx('border-b border-line', saysLittle(part) && 'text-soft')}
          >
            <th scope="row" className="max-w-sm truncate py-2 pr-4 font-medium">
              {partWords(by, part.key)}
            </th>
            <td className="py-2 pl-4 text-right">{figure(part.visitors)}</td>
            <td className="py-2 pl-4 text-right">{figure(part.converters)}</td>
            <td className="py-2 pl-6">
              <Rate visitors={part.visitors} converters={part.converters} scaleTo={scaleTo} />
              {saysLittle(part) && <span className="text-xs">too few to say anything</span>}
            </td>
          </tr>
        ))}
      </tbody>
    </WideTable>
  );
}
