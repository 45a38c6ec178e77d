import { useQuery, useQueryClient } from '@tanstack/react-query';
import { forecastWords, keptForecastOf, USUAL_ASSUMPTIONS } from '@velarium/core';
import { useEffect, useMemo, useState } from 'react';
import { Link } from 'react-router';
import { draftForecastKey, trafficQuery } from '../api/forecasts.ts';
import { castQuery } from '../api/rehearsals.ts';
import { useSite } from '../site/use-site.ts';
import { useWorkbench } from '../workbench/store.ts';
import { useReplay } from './use-replay.ts';

const DAYS = 28;
/** Page views that are enough for a line: it is counted anew after every save. */
const SAMPLE = 2500;
/** It is counted when somebody pauses: what they are doing comes first. */
const PAUSE_MS = 2500;

/** The latest of a value that has stood for a while; nothing before one has. */
function useSettled<Value>(value: Value): Value | undefined {
  const [settled, setSettled] = useState<Value>();
  useEffect(() => {
    const timer = setTimeout(() => setSettled(value), PAUSE_MS);
    return () => clearTimeout(timer);
  }, [value]);
  return settled;
}
const THEN = 'then';

/** How many of the site's own visitors the draft would have reached, in one line, as it was saved last. */
export function ReachLine() {
  const siteId = useWorkbench((state) => state.siteId);
  const id = useWorkbench((state) => state.id);
  const revision = useSettled(useWorkbench((state) => state.revision));
  const isPaused = revision !== undefined;
  const site = useSite(siteId);
  const { data: traffic, isLoadingError: isUnread } = useQuery({
    ...trafficQuery(siteId, DAYS, SAMPLE),
    enabled: isPaused,
  });
  const { data, isLoadingError } = useQuery({ ...castQuery(siteId, id, revision), enabled: isPaused });
  const casts = useMemo(() => data && [{ key: THEN, manifest: data.manifest }], [data]);
  const replay = useReplay(
    casts,
    traffic && traffic.list.length > 0 ? traffic : undefined,
    USUAL_ASSUMPTIONS,
    site?.origins[0] ?? 'https://site.example',
  );
  const forecast = replay.forecasts.get(THEN);
  const own = forecast?.campaigns.find(({ campaign }) => campaign === id);
  const queryClient = useQueryClient();
  const isWhole = replay.whole.has(THEN);
  useEffect(() => {
    if (own && forecast && isWhole && revision !== undefined)
      queryClient.setQueryData(draftForecastKey(id, revision), keptForecastOf(own, forecast.visitors));
  }, [queryClient, id, revision, own, forecast, isWhole]);
  return (
    <p className="px-5 pb-1.5 text-xs text-soft max-lg:hidden">
      <Link
        to={`/sites/${siteId}/forecast?of=${id}`}
        className="font-medium text-ink underline underline-offset-4"
      >
        Forecast
      </Link>{' '}
      {own && forecast
        ? `over the last ${DAYS} days: ${forecastWords(own, forecast.visitors)}${isWhole ? '' : ' Still counting …'}`
        : traffic?.list.length === 0
          ? 'nothing has been recorded on this site yet.'
          : isUnread || isLoadingError || replay.hasFailed
            ? 'the site’s visits could not be replayed.'
            : 'replaying the site’s own visits …'}
    </p>
  );
}
