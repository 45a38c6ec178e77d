import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { PageReading } from '@velarium/contract';
import { RefreshCw, Square } from 'lucide-react';
import { useEffect, useRef } from 'react';
import { beginPageReading, pageReadingQuery, sitePagesQuery, stopPageReading } from '../api/queries.ts';
import { Button } from '../ui/button.tsx';
import { tell, tellProblem } from '../ui/toast.tsx';

const figure = (value: number) => value.toLocaleString('en-GB');

/** What a reading that has ended has to say. */
function endWords({ state, found, unread, fault }: PageReading): string | undefined {
  if (state === 'done')
    return unread === 0
      ? `The sitemap was read: ${figure(found)} pages.`
      : `The sitemap was read: ${figure(found)} pages. ${figure(unread)} of them gave no title and stand by their paths.`;
  if (state === 'stopped') return 'Reading was stopped. The catalogue is as it was before.';
  if (state === 'failed')
    return `The sitemap could not be read: ${fault ?? 'no reason was given'}. Add pages by hand or from a file, or wait for visits.`;
  return undefined;
}

/** Asks for the site's pages to be read, says how far that has come, and stops it. */
export function SitemapReading({ siteId }: { readonly siteId: string }) {
  const queryClient = useQueryClient();
  const { data: reading } = useQuery(pageReadingQuery(siteId));
  const take = (next: PageReading | null) =>
    queryClient.setQueryData(pageReadingQuery(siteId).queryKey, next);
  const begin = useMutation({
    mutationFn: () => beginPageReading(siteId),
    onSuccess: take,
    onError: tellProblem,
  });
  const stop = useMutation({
    mutationFn: () => stopPageReading(siteId),
    onSuccess: take,
    onError: tellProblem,
  });
  const isUnderWay = reading?.state === 'waiting' || reading?.state === 'running';

  // Its end is told to whoever saw it go on, once.
  const followed = useRef('');
  useEffect(() => {
    if (!reading) return;
    if (isUnderWay) followed.current = reading.id;
    else if (followed.current === reading.id) {
      followed.current = '';
      const words = endWords(reading);
      if (words) tell(words);
      void queryClient.invalidateQueries({ queryKey: sitePagesQuery(siteId).queryKey });
    }
  }, [reading, isUnderWay, queryClient, siteId]);

  if (!isUnderWay)
    return (
      <Button isBusy={begin.isPending} onClick={() => begin.mutate()}>
        <RefreshCw size={14} aria-hidden /> Read the sitemap
      </Button>
    );
  const words =
    reading.found === 0
      ? 'Reading the sitemap …'
      : `${figure(reading.read)} of ${figure(reading.found)} pages`;
  return (
    <div className="flex items-center gap-3">
      <label className="grid gap-0.5 text-sm text-soft">
        <span aria-live="polite">{words}</span>
        <progress
          className="h-1.5 w-40 accent-sail"
          max={reading.found || 1}
          value={reading.found === 0 ? undefined : reading.read}
        />
      </label>
      <Button isBusy={stop.isPending} onClick={() => stop.mutate()}>
        <Square size={12} aria-hidden /> Stop
      </Button>
    </div>
  );
}
