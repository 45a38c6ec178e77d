import { useQuery } from '@tanstack/react-query';
import { foreseenWords } from '@velarium/core';
import { foreseenQuery } from '../api/forecasts.ts';
import { ForeseenChart } from '../forecast/foreseen-chart.tsx';
import { when } from '../ui/when.ts';

interface ForeseenOfCampaignProps {
  readonly siteId: string;
  readonly campaignId: string;
}

/** What was foreseen when the campaign was launched last, held against what came; nothing where nothing was. */
export function ForeseenOfCampaign({ siteId, campaignId }: ForeseenOfCampaignProps) {
  const { data } = useQuery(foreseenQuery(siteId));
  const launch = data?.find(({ campaign }) => campaign === campaignId);
  if (!launch) return null;
  return (
    <section aria-label="Foreseen, and what came" className="grid gap-3">
      <h2 className="font-serif text-xl">Foreseen, and what came</h2>
      <p className="max-w-3xl text-soft">
        Since version {launch.version} was launched {when.format(new Date(launch.at))}:{' '}
        {foreseenWords(launch)} The dashed line is the forecast with its interval, the strong one is what
        came.
        {launch.isOver && ' It is over: what came later is not of it.'}
      </p>
      <ForeseenChart launch={launch} />
    </section>
  );
}
