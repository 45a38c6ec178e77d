import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { PageReading } from '@velarium/contract';
import { counted, figure } from '@velarium/core';
import { RefreshCw, Square } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { beginPageReading, pageReadingQuery, sitePagesQuery, stopPageReading } from '../api/queries.ts';
import { Button } from '../ui/button.tsx';
import { Field } from '../ui/field.tsx';
import { tell, tellProblem } from '../ui/toast.tsx';

/** What a reading that has ended has to say. */
function endWords({ state, found, unread, fault, source }: PageReading): string | undefined {
  if (state === 'done') {
    const whole = `${counted(found, 'page')} found by ${source ?? 'the sitemap'}.`;
    return unread === 0
      ? whole
      : `${whole} ${figure(unread)} of them gave no title and stand by their paths.`;
  }
  if (state === 'stopped') return 'Reading was stopped. The catalogue is as it was before.';
  if (state === 'failed')
    return `The pages could not be read: ${fault ?? 'no reason was given'}. Add pages by hand or from a file, or wait for visits.`;
  return undefined;
}

/** Asks for the site's pages to be read, says how far that has come, and stops it. */
export function SitemapReading({ siteId }: { readonly siteId: string }) {
  const queryClient = useQueryClient();
  const [sitemap, setSitemap] = useState('');
  const { data: reading } = useQuery(pageReadingQuery(siteId));
  const take = (next: PageReading | null) =>
    queryClient.setQueryData(pageReadingQuery(siteId).queryKey, next);
  const begin = useMutation({
    mutationFn: () => beginPageReading(siteId, sitemap.trim() === '' ? null : sitemap.trim()),
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
      <form
        className="flex flex-wrap items-end gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          begin.mutate();
        }}
      >
        <Field
          label="Sitemap, if it stands elsewhere"
          type="url"
          value={sitemap}
          placeholder="Found by itself"
          onChange={(event) => setSitemap(event.target.value)}
          className="w-56"
        />
        <Button type="submit" isBusy={begin.isPending}>
          <RefreshCw size={14} aria-hidden /> Read the pages
        </Button>
      </form>
    );
  const words =
    reading.found === 0
      ? 'Looking for the pages …'
      : `${figure(reading.read)} of ${counted(reading.found, 'page')}`;
  return (
    <div className="flex items-center gap-3">
      <label className="grid gap-0.5 text-soft">
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
