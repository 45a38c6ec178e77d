import { useQuery } from '@tanstack/react-query';
import type { Site } from '@velarium/contract';
import { agoWords, counted, figure, QUIET_MS } from '@velarium/core';
import { useEffect, useState } from 'react';
import { edgeOf, sitePagesQuery, sitesQuery, snippetQuery } from '../api/queries.ts';
import { Button } from '../ui/button.tsx';
import { copy } from '../ui/copy.ts';
import { Fold } from '../ui/fold.tsx';
import { ErrorState } from '../ui/states.tsx';

/** How the site carries the tag, and whether it is heard from. */
export function TagSection({ site }: { readonly site: Site }) {
  const { data, error, refetch } = useQuery(snippetQuery(site.id));
  if (error && !data) return <ErrorState error={error} onRetry={() => void refetch()} />;
  const snippet = data?.snippet ?? '';
  const edge = edgeOf(snippet);
  return (
    <div className="grid gap-6">
      <Heard site={site} />
      <section>
        <h2 className="font-serif text-xl">Put this line into the head of every page</h2>
        <Line text={snippet} />
        <p className="mt-2 text-soft">
          It loads beside the page and never holds it up. Put it once into the template all pages share.
        </p>
      </section>
      <div>
        <Fold title="With a tag manager">
          <p>
            Make a tag of the kind “custom HTML”, paste the line, and let it fire on every page view. The tag
            notices page changes of single-page sites by itself, so it must fire once only per document.
          </p>
        </Fold>
        <Fold title="Under a Content-Security-Policy">
          <p>
            Add this to the policy’s directives; films and frames need their own hosts in{' '}
            <code>frame-src</code> too. Nothing else is needed: the tag uses no inline script, no inline style
            and no evaluation.
          </p>
          <Line text={`script-src ${edge}; connect-src ${edge}; img-src ${edge}`} />
        </Fold>
        <Fold title="What the page can tell it">
          <p>Before or after the tag has loaded, in any order:</p>
          <Line
            text={`window.velarium = window.velarium || { q: [] };
velarium.q.push(['visitor', { signedIn: true }]);
velarium.q.push(['basket', { items: 3, total: 62, currency: 'GBP' }]);
velarium.q.push(['page', { kind: 'article' }]);`}
          />
        </Fold>
        <Fold title="What the page can hear">
          <p>
            What messages do, for whatever measures on your pages: turn it on under <em>What holds here</em>.
            Each is an event on the document with the campaign’s id and version, only for visitors who agreed
            to be remembered: <code>velarium:shown</code>, <code>viewable</code>, <code>clicked</code>,{' '}
            <code>answering</code> (the first that is written into a field), <code>closed</code>,{' '}
            <code>converted</code>, <code>refused</code>.
          </p>
          <Line
            text={`document.addEventListener('velarium:converted', ({ detail }) => {
  console.log(detail.campaign, detail.version);
});`}
          />
        </Fold>
      </div>
    </div>
  );
}

function Line({ text }: { readonly text: string }) {
  return (
    <div className="mt-2 flex items-start gap-3 border border-line bg-sheet p-3">
      <pre className="min-w-0 flex-1 wrap-anywhere whitespace-pre-wrap">
        <code>{text || ' '}</code>
      </pre>
      <Button disabled={!text} onClick={() => copy(text, { said: 'It is on the clipboard.' })}>
        Copy
      </Button>
    </div>
  );
}

/** Waiting for the tag, or where and when it was last seen. */
function Heard({ site }: { readonly site: Site }) {
  const { data: sites } = useQuery({ ...sitesQuery, refetchInterval: 5000 });
  const { data: pages, refetch: askPages } = useQuery(sitePagesQuery(site.id));
  const [nowMs, setNow] = useState(Date.now);
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), 10_000);
    return () => clearInterval(timer);
  }, []);
  const lastSeenAt = sites?.find(({ id }) => id === site.id)?.lastSeenAt ?? site.lastSeenAt;
  // The pages are many and seldom new: they are asked for when the tag has been heard again.
  useEffect(() => {
    if (lastSeenAt !== null) void askPages({ cancelRefetch: false });
  }, [lastSeenAt, askPages]);
  const where =
    pages &&
    ` on ${figure(pages.filter(({ views }) => views > 0).length)} of ${counted(pages.length, 'page')}`;
  const lastMs = lastSeenAt === null ? null : Date.parse(lastSeenAt);
  const isQuiet = lastMs !== null && nowMs - lastMs > QUIET_MS;
  return (
    <p role="status" className="flex items-center gap-3 border border-line bg-sheet p-3">
      {lastMs === null ? (
        <>
          <span aria-hidden className="text-soft">
            ◌
          </span>
          <span>
            <strong className="font-semibold">Waiting for the tag.</strong> Open any page of the site that
            carries it; this line changes by itself.
          </span>
        </>
      ) : (
        <>
          <span aria-hidden className={isQuiet ? 'text-hold' : 'text-sail'}>
            {isQuiet ? '▲' : '●'}
          </span>
          <span>
            <strong className="font-semibold">Seen{where}</strong>, last {agoWords(lastMs, nowMs)}.
            {isQuiet && ' It has been quiet for more than a day: is the line still in the pages?'}
          </span>
        </>
      )}
    </p>
  );
}
