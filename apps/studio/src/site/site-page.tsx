import { useQuery } from '@tanstack/react-query';
import type { SitePage as KnownPage, Site } from '@velarium/contract';
import { useParams } from 'react-router';
import { sitePagesQuery, sitesQuery, snippetQuery } from '../api/queries.ts';
import { Button } from '../ui/button.tsx';
import { EmptyState, ErrorState, Skeleton } from '../ui/states.tsx';
import { type Column, Table } from '../ui/table.tsx';
import { Tabs } from '../ui/tabs.tsx';
import { tell } from '../ui/toast.tsx';

/** The site itself: how it carries the tag, and the pages Velarium knows of it. */
export function SitePage() {
  const { siteId = '' } = useParams();
  const { data: sites, error, refetch } = useQuery(sitesQuery);
  const site = sites?.find(({ id }) => id === siteId);
  if (error && !sites) return <ErrorState error={error} onRetry={() => void refetch()} />;
  if (!sites) return <Skeleton rows={3} label="Loading the site" />;
  if (!site) return <EmptyState title="No such site">This workspace has no site at this address.</EmptyState>;
  return (
    <div className="mx-auto max-w-4xl px-6 pb-16">
      <h1 className="pt-7 pb-1 font-serif text-3xl">{site.name}</h1>
      <p className="pb-5 text-soft">
        {site.origins.map((origin) => (
          <a
            key={origin}
            href={origin}
            target="_blank"
            rel="noreferrer"
            className="mr-3 underline underline-offset-4"
          >
            {origin}
          </a>
        ))}
      </p>
      <Tabs
        label="Site"
        tabs={[
          { id: 'tag', label: 'The tag', content: <TagSection site={site} /> },
          { id: 'pages', label: 'Pages', content: <PagesSection siteId={site.id} /> },
        ]}
      />
    </div>
  );
}

function TagSection({ site }: { readonly site: Site }) {
  const { data, error, refetch } = useQuery(snippetQuery(site.id));
  if (error) return <ErrorState error={error} onRetry={() => void refetch()} />;
  const { mobile, tablet } = site.settings.breakpoints;
  return (
    <div className="grid gap-5">
      <section>
        <h2 className="font-serif text-xl">Put this line into the head of every page</h2>
        <div className="mt-2 flex items-center gap-3 border border-line bg-sheet p-3">
          <code className="min-w-0 flex-1 break-all text-sm">{data?.snippet ?? ' '}</code>
          <Button
            disabled={!data}
            onClick={() =>
              navigator.clipboard.writeText(data?.snippet ?? '').then(
                () => tell('The line is on the clipboard.'),
                () => tell('The browser did not allow copying. Select the line and copy it by hand.'),
              )
            }
          >
            Copy
          </Button>
        </div>
        <p className="mt-2 text-soft">
          Under a Content-Security-Policy, allow its origin in <code>script-src</code> and{' '}
          <code>connect-src</code>. Nothing else is needed: the tag uses no inline script and no inline style.
        </p>
      </section>
      <dl className="grid grid-cols-[12rem_1fr] gap-y-1.5">
        <dt className="text-soft">Time zone</dt>
        <dd>{site.timeZone}</dd>
        <dt className="text-soft">A session ends after</dt>
        <dd>{site.settings.sessionMinutes} minutes without activity</dd>
        <dt className="text-soft">A phone is narrower than</dt>
        <dd>{mobile} px</dd>
        <dt className="text-soft">A tablet is narrower than</dt>
        <dd>{tablet} px, and touched rather than pointed at</dd>
      </dl>
    </div>
  );
}

const PAGE_COLUMNS: readonly Column<KnownPage>[] = [
  { head: 'Title', cell: (page) => page.title },
  { head: 'Path', cell: (page) => page.path },
  { head: 'Kind', cell: (page) => page.kind ?? '' },
];

function PagesSection({ siteId }: { readonly siteId: string }) {
  const { data: pages, error, refetch } = useQuery(sitePagesQuery(siteId));
  if (error) return <ErrorState error={error} onRetry={() => void refetch()} />;
  if (!pages) return <Skeleton rows={4} label="Loading pages" />;
  if (pages.length === 0)
    return <EmptyState title="No page known yet">Pages come from the site’s sitemap.</EmptyState>;
  return <Table caption="Pages" columns={PAGE_COLUMNS} rows={pages} keyOf={(page) => page.path} />;
}
