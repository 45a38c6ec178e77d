import { useQuery } from '@tanstack/react-query';
import { counted, figure, USUAL_ASSUMPTIONS } from '@velarium/core';
import { useMemo } from 'react';
import { Link } from 'react-router';
import { trafficQuery } from '../api/forecasts.ts';
import { castQuery } from '../api/rehearsals.ts';
import { useReplay } from '../forecast/use-replay.ts';
import { Way } from '../forecast/way.tsx';
import { useSite } from '../site/use-site.ts';

const DAYS = 28;
/** Page views that are enough to see where people are lost. */
const SAMPLE = 10_000;
const AS_IT_RUNS = 'live';
const REPLAYED = 'replayed';

interface BeforeItWasShownProps {
  readonly siteId: string;
  readonly campaignId: string;
}

/** The way down before the first showing: the site's recorded visits, replayed by the rule as it runs now, or by the draft of one that rests. */
export function BeforeItWasShown({ siteId, campaignId }: BeforeItWasShownProps) {
  const site = useSite(siteId);
  const { data: traffic, error: ofTraffic } = useQuery(trafficQuery(siteId, DAYS, SAMPLE));
  const live = useQuery(castQuery(siteId, AS_IT_RUNS));
  const runs = live.data?.campaigns.some(({ id }) => id === campaignId);
  // One that rests is asked what its draft would do.
  const draft = useQuery({ ...castQuery(siteId, campaignId), enabled: runs === false });
  const cast = runs ? live.data : draft.data;
  const casts = useMemo(() => cast && [{ key: REPLAYED, manifest: cast.manifest }], [cast]);
  const replay = useReplay(
    casts,
    traffic && traffic.list.length > 0 ? traffic : undefined,
    USUAL_ASSUMPTIONS,
    site?.origins[0] ?? 'https://site.example',
  );
  const forecast = replay.forecasts.get(REPLAYED);
  const own = forecast?.campaigns.find(({ campaign }) => campaign === campaignId);
  return (
    // What comes later finds its room there already: nothing below it jumps.
    <section aria-label="Before it is shown" className="grid min-h-[22rem] content-start gap-3">
      <h2 className="font-serif text-xl">Before it is shown</h2>
      {own && forecast && traffic ? (
        <>
          <p className="max-w-3xl text-soft">
            {counted(forecast.visitors, 'visitor')} of the last {DAYS} days
            {traffic.isSample ? ` (a fair sample of ${figure(traffic.list.length)})` : ''}, replayed by{' '}
            {runs ? 'its rule as it runs now' : 'its draft, for it does not run now'}. What no record tells is{' '}
            <Link to={`/sites/${siteId}/forecast?of=${campaignId}`} className="underline underline-offset-4">
              taken for granted
            </Link>
            .{replay.whole.has(REPLAYED) ? '' : ' Still counting …'}
          </p>
          <Way way={own.way} />
        </>
      ) : (
        <p role="status" className="text-soft">
          {ofTraffic || live.error || draft.error || replay.hasFailed
            ? 'The site’s visits could not be replayed. Load the page again.'
            : traffic?.list.length === 0
              ? 'Nothing has been recorded on this site in the last weeks.'
              : 'Replaying the site’s own visits …'}
        </p>
      )}
    </section>
  );
}
