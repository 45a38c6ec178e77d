import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { addPagesSchema, type SitePage } from '@velarium/contract';
import { counted } from '@velarium/core';
import { Trash2 } from 'lucide-react';
import { useMemo, useState } from 'react';
import { addPages, removePage, sitePagesQuery } from '../api/queries.ts';
import { useCanEdit } from '../app/use-session.ts';
import { Button, IconButton } from '../ui/button.tsx';
import { inputClass } from '../ui/field.tsx';
import { SearchField } from '../ui/search-field.tsx';
import { EmptyState, ErrorState, Skeleton } from '../ui/states.tsx';
import { type Column, Table } from '../ui/table.tsx';
import { tell, tellProblem } from '../ui/toast.tsx';
import { useTextFile } from '../ui/use-text-file.tsx';
import { readPagesFile } from './read-pages-file.ts';
import { SitemapReading } from './sitemap-reading.tsx';

const SHOWN = 100;
const SOURCE_WORDS = {
  sitemap: 'sitemap',
  hand: 'added by hand',
  file: 'from a file',
  visits: 'seen by visitors',
} as const;

/** The site's page catalogue: where its pages are known from, and how often they are seen. */
export function PagesSection({ siteId }: { readonly siteId: string }) {
  const canEdit = useCanEdit();
  const queryClient = useQueryClient();
  const { data: pages, error, refetch } = useQuery(sitePagesQuery(siteId));
  const [words, setWords] = useState('');
  const [path, setPath] = useState('');
  const [shown, setShown] = useState(SHOWN);
  const take = (next: SitePage[]) => queryClient.setQueryData(sitePagesQuery(siteId).queryKey, next);
  const add = useMutation({
    mutationFn: (body: Parameters<typeof addPages>[1]) => addPages(siteId, body),
    onSuccess: (next, { pages: added }) => {
      take(next);
      setPath('');
      tell(
        added.length === 1 ? `${added[0]?.path} is in the catalogue.` : `${added.length} pages were read.`,
      );
    },
    onError: tellProblem,
  });
  const file = useTextFile({
    label: 'CSV file of pages',
    accept: '.csv,text/csv',
    onRead: (text) => {
      const read = readPagesFile(text);
      if (read.fault !== undefined) return tell(read.fault);
      if (read.skipped > 0) tell(`${counted(read.skipped, 'line')} without a path left out.`);
      add.mutate({ source: 'file', pages: read.pages });
    },
  });
  const remove = useMutation({
    mutationFn: (page: SitePage) => removePage(siteId, page.path),
    onSuccess: () => queryClient.invalidateQueries({ queryKey: sitePagesQuery(siteId).queryKey }),
    onError: tellProblem,
  });
  const found = useMemo(() => {
    const wanted = words.trim().toLowerCase();
    return (pages ?? []).filter((page) =>
      `${page.title} ${page.path} ${page.kind ?? ''}`.toLowerCase().includes(wanted),
    );
  }, [pages, words]);
  if (error && !pages) return <ErrorState error={error} onRetry={() => void refetch()} />;
  if (!pages) return <Skeleton rows={4} label="Loading pages" />;

  const typed = addPagesSchema.shape.pages.element.safeParse({ path, title: '', kind: null });
  const columns: Column<SitePage>[] = [
    {
      head: 'Title',
      cell: (page) => (page.title === page.path ? <span className="text-soft">–</span> : page.title),
    },
    { head: 'Path', cell: (page) => page.path },
    { head: 'Kind', cell: (page) => page.kind ?? '' },
    { head: 'Known from', cell: (page) => <span className="text-soft">{SOURCE_WORDS[page.source]}</span> },
    { head: 'Views a month', isNumber: true, cell: (page) => page.views.toLocaleString('en-GB') },
    ...(canEdit
      ? [
          {
            head: '',
            cell: (page: SitePage) =>
              page.source === 'visits' ? null : (
                <IconButton
                  label={`Remove ${page.path} from the catalogue`}
                  onClick={() => remove.mutate(page)}
                >
                  <Trash2 size={13} aria-hidden />
                </IconButton>
              ),
          },
        ]
      : []),
  ];
  return (
    <div className="grid gap-4">
      <div className="flex flex-wrap items-end gap-3">
        <SearchField
          label="Search the pages"
          placeholder="Title, path or kind"
          value={words}
          onChange={(next) => {
            setWords(next);
            setShown(SHOWN);
          }}
          className="mr-auto w-64"
        />
        {canEdit && (
          <>
            <form
              className="flex gap-2"
              onSubmit={(event) => {
                event.preventDefault();
                if (typed.success) add.mutate({ source: 'hand', pages: [typed.data] });
              }}
            >
              <input
                aria-label="Path to add"
                placeholder="/new-page"
                value={path}
                onChange={(event) => setPath(event.target.value)}
                aria-invalid={path !== '' && !typed.success ? true : undefined}
                className={`${inputClass} w-44`}
              />
              <Button type="submit" disabled={!typed.success} isBusy={add.isPending}>
                Add
              </Button>
            </form>
            <Button onClick={file.choose}>From a CSV file</Button>
            {file.node}
            <SitemapReading siteId={siteId} />
          </>
        )}
      </div>
      {pages.length === 0 ? (
        <EmptyState title="No page known yet" drawing="sheets">
          Pages come from the site’s sitemap, from visits once the tag is there, by hand, or from a file with
          the columns path, title and kind.
        </EmptyState>
      ) : found.length === 0 ? (
        <EmptyState title="No page like that" drawing="lens">
          No title, path or kind has these words.
        </EmptyState>
      ) : (
        <>
          <Table caption="Pages" columns={columns} rows={found.slice(0, shown)} keyOf={(page) => page.path} />
          {found.length > shown && (
            <Button className="justify-self-center" onClick={() => setShown(shown + 10 * SHOWN)}>
              {(found.length - shown).toLocaleString('en-GB')} more
            </Button>
          )}
        </>
      )}
    </div>
  );
}
