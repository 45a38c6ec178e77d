import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { LookStyle, Site } from '@velarium/contract';
import { listOf, TEMPLATES } from '@velarium/core';
import { useState } from 'react';
import { createLook, looksQuery, makeDefaultLook, readLook } from '../api/library.ts';
import { sitePagesQuery } from '../api/queries.ts';
import { useCanEdit } from '../app/use-session.ts';
import { LookDialog } from '../library/look-dialog.tsx';
import { Button } from '../ui/button.tsx';
import { Field } from '../ui/field.tsx';
import { ErrorState, Skeleton } from '../ui/states.tsx';
import { tell, tellProblem } from '../ui/toast.tsx';
import { StageFrame } from '../workbench/stage/stage-frame.tsx';

const SAMPLE = TEMPLATES.find(({ id }) => id === 'sky-letter')?.message;

/** What the site’s messages look like; a Look can be read from one of its own pages, and is shown before it is taken. */
export function LooksSection({ site }: { readonly site: Site }) {
  const canEdit = useCanEdit();
  const { data: looks, error, refetch } = useQuery(looksQuery(site.id));
  const [opened, setOpened] = useState<string | null>(null);
  if (error && !looks) return <ErrorState error={error} onRetry={() => void refetch()} />;
  if (!looks) return <Skeleton rows={3} label="Loading Looks" />;
  return (
    <div className="grid gap-6">
      <p className="text-soft">
        A message follows the site’s own Look unless it says otherwise, and changes with it.
      </p>
      <ul aria-label="Looks" className="grid grid-cols-[repeat(auto-fill,12.5rem)] gap-x-4 gap-y-6">
        {looks.map(({ id, name, style, isDefault }) => (
          <li key={id} className="grid gap-2">
            <Sample style={style} />
            <span className="flex items-baseline justify-between gap-2">
              <span className="font-medium">{name}</span>
              {isDefault && <span className="text-xs text-soft">the site’s own</span>}
            </span>
            {canEdit && (
              <Button className="h-7 justify-self-start" onClick={() => setOpened(id)}>
                Change {name}
              </Button>
            )}
          </li>
        ))}
      </ul>
      {canEdit && <ReadFromPage site={site} />}
      {opened && <LookDialog siteId={site.id} lookId={opened} onClose={() => setOpened(null)} />}
    </div>
  );
}

const Sample = ({ style, width = 198 }: { readonly style: LookStyle; readonly width?: number }) => (
  <div className="overflow-hidden rounded-md border border-line" aria-hidden>
    {SAMPLE && (
      <StageFrame
        message={SAMPLE}
        look={style}
        device="desktop"
        width={width}
        height={(width * 5) / 8}
        isThumbnail
      />
    )}
  </div>
);

function ReadFromPage({ site }: { readonly site: Site }) {
  const queryClient = useQueryClient();
  const { data: pages = [] } = useQuery(sitePagesQuery(site.id));
  const [path, setPath] = useState('/');
  const [name, setName] = useState(`As on ${site.name}`.slice(0, 80));
  const read = useMutation({ mutationFn: () => readLook(site.id, path), onError: tellProblem });
  const take = useMutation({
    mutationFn: async (style: LookStyle) => {
      const made = await createLook(site.id, { name, style });
      await makeDefaultLook(site.id, made.id);
    },
    onSuccess: () => {
      read.reset();
      tell(`“${name}” is the site’s own Look now. Messages without a Look of their own follow it.`);
    },
    onError: tellProblem,
    onSettled: () => queryClient.invalidateQueries({ queryKey: looksQuery(site.id).queryKey }),
  });
  return (
    <section className="grid gap-4 border-t border-line pt-5" aria-labelledby="read-look">
      <div>
        <h2 id="read-look" className="font-serif text-xl">
          As on your own page
        </h2>
        <p className="text-soft">
          Colours, letters, corners and buttons are read from a page’s style sheets. Nothing changes until you
          take them.
        </p>
      </div>
      <form
        className="flex flex-wrap items-end gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          read.mutate();
        }}
      >
        <Field
          label={`Page of ${site.origins[0]} to read`}
          value={path}
          list="pages-to-read"
          pattern="/.*"
          required
          onChange={(event) => setPath(event.target.value)}
        />
        <datalist id="pages-to-read">
          {pages.slice(0, 50).map((page) => (
            <option key={page.path} value={page.path}>
              {page.title}
            </option>
          ))}
        </datalist>
        <Button type="submit" disabled={read.isPending}>
          {read.isPending ? 'Reading the page …' : 'Read it'}
        </Button>
      </form>
      {read.data && (
        <div className="grid gap-3 sm:grid-cols-[322px_1fr]" role="status">
          <Sample style={read.data.style} width={320} />
          <div className="grid content-start gap-3">
            <p>
              Read from the page: {listOf(read.data.read)}. The rest is plain, and what could hardly be read
              was made legible.
            </p>
            <Field
              label="Name of the Look"
              value={name}
              maxLength={80}
              onChange={(event) => setName(event.target.value)}
            />
            <div className="flex gap-2">
              <Button
                tone="main"
                disabled={take.isPending || name.trim() === ''}
                onClick={() => take.mutate(read.data.style)}
              >
                Make it the site’s own Look
              </Button>
              <Button tone="quiet" onClick={() => read.reset()}>
                Leave it
              </Button>
            </div>
          </div>
        </div>
      )}
    </section>
  );
}
