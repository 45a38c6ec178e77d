import { keepPreviousData, useQuery, useQueryClient } from '@tanstack/react-query';
import type { Cast, KeptRehearsal, Reaction, Rehearsal, RehearsedPage, Site } from '@velarium/contract';
import {
  ASSUMED_PAGE_PIXELS,
  beginPage,
  beginRehearsal,
  isSame,
  judge,
  playVisit,
  STAY_DEPTHS,
  STAY_SECONDS,
  usualStay,
  wallClock,
} from '@velarium/core';
import { Redo2, Undo2 } from 'lucide-react';
import { useEffect, useMemo, useState } from 'react';
import { useLocation, useParams, useSearchParams } from 'react-router';
import { campaignsQuery, sitePagesQuery, staysQuery } from '../api/queries.ts';
import { castQuery, playedQuery } from '../api/rehearsals.ts';
import { useCommands } from '../app/commands.ts';
import { useCanEdit } from '../app/use-session.ts';
import { useSite } from '../site/use-site.ts';
import { Button, IconButton } from '../ui/button.tsx';
import { Menu } from '../ui/menu.tsx';
import { Select } from '../ui/select.tsx';
import { ErrorState, Skeleton } from '../ui/states.tsx';
import { UNKNOWN_YET } from '../ui/unknown-yet.ts';
import { Expectations } from './expectations.tsx';
import { Lanes } from './lanes.tsx';
import { PageFields } from './page-fields.tsx';
import { RecordedVisits } from './recorded-visits.tsx';
import { useKept } from './use-kept.tsx';
import { useRehearsal } from './use-rehearsal.ts';
import { VisitStrip } from './visit-strip.tsx';
import { VisitorFields } from './visitor-fields.tsx';

const MOST_PAGES = 50;
const NEW = 'new';

/** Any visit, played against every campaign of the site, second by second. */
export function RehearsalPage() {
  const { siteId = '' } = useParams();
  const [search] = useSearchParams();
  const site = useSite(siteId);
  const of = search.get('of') ?? 'live';
  const {
    data: cast,
    error,
    refetch,
  } = useQuery({ ...castQuery(siteId, of), placeholderData: keepPreviousData });
  if (error && !cast) return <ErrorState error={error} onRetry={() => void refetch()} />;
  if (!cast || !site) return <Skeleton rows={6} label="Loading the campaigns" />;
  return <Place key={siteId} site={site} cast={cast} of={of} />;
}

/** What the clocks of a site show now, to the minute: `2026-11-27T20:15`. */
const nowAt = (timeZone: string): string =>
  new Date(wallClock(Date.now(), timeZone)).toISOString().slice(0, 16);

/** A page the first campaign that is looked at can open on, so that there is something to see. */
function firstPath({ manifest }: Cast, of: string): string {
  const asked = manifest.campaigns.find(({ id }) => id === of) ?? manifest.campaigns[0];
  return asked?.includeKeys.find((key) => key.startsWith('/')) ?? '/';
}

interface PlaceProps {
  readonly site: Site;
  readonly cast: Cast;
  readonly of: string;
}

function Place({ site, cast, of }: PlaceProps) {
  const siteId = site.id;
  const canEdit = useCanEdit();
  const queryClient = useQueryClient();
  const [search, setSearch] = useSearchParams();
  const { data: campaigns } = useQuery(campaignsQuery(siteId));
  const { data: pages = [] } = useQuery(sitePagesQuery(siteId));
  const askedPage = search.get('page');
  const begin = () => beginRehearsal(beginPage(askedPage ?? firstPath(cast, of)), nowAt(site.timeZone));
  // An address one comes back to, or loads again: what it asks for is on the line already.
  const isBack = (useLocation().state as { isOnLine?: boolean } | null)?.isOnLine === true;
  const line = useRehearsal({ siteId, begin, isAsked: askedPage !== null && !isBack });
  const { rehearsal, visit, keptId, edit, load, undo, redo } = line;
  const [chosen, setChosen] = useState(0);
  const [isTaking, setTaking] = useState(false);
  const setParam = (params: Readonly<Record<string, string | null>>) =>
    setSearch(
      (old) => {
        const next = new URLSearchParams(old);
        for (const [name, value] of Object.entries(params))
          if (value === null) next.delete(name);
          else next.set(name, value);
        return next;
      },
      { replace: true, state: { isOnLine: true } },
    );
  /** The kept one that a link leads to, until it is on the line. */
  const [linked, setLinked] = useState(isBack ? null : search.get('kept'));
  const put = (other: Rehearsal, keptAs: string | null = null) => {
    load(other, keptAs);
    setChosen(0);
  };
  const open = (one: KeptRehearsal) => put(one.rehearsal, one.id);
  const kept = useKept({
    siteId,
    rehearsal,
    openId: linked ?? keptId,
    visit,
    onKept: line.setKept,
    onOpen: open,
    onRead: put,
  });
  // Whatever becomes of a campaign, or of what is kept, is asked anew.
  const stand = Math.max(
    0,
    ...[...(campaigns ?? []), ...kept.kept].map(({ updatedAt }) => Date.parse(updatedAt)),
  );
  const { data: asked } = useQuery({ ...playedQuery(siteId, of, stand), enabled: kept.open !== undefined });
  const since = asked?.find(({ id }) => id === kept.open?.id)?.since ?? null;
  // biome-ignore lint/correctness/useExhaustiveDependencies: once it is known what is kept.
  useEffect(() => {
    if (linked === null || !kept.isRead) return;
    const one = kept.kept.find(({ id }) => id === linked);
    const isOnLine = keptId === linked && isSame(rehearsal, one?.rehearsal);
    if (one && !isOnLine) open(one);
    setLinked(null);
  }, [linked, kept.isRead]);
  // The address says what is on the line, so that it can be given to somebody.
  // biome-ignore lint/correctness/useExhaustiveDependencies: when another visit is on the line.
  useEffect(() => {
    if (linked === null) setParam({ page: null, kept: keptId });
  }, [linked, keptId]);

  const nameOf = useMemo(() => {
    const names = new Map([...(campaigns ?? []), ...cast.campaigns].map(({ id, name }) => [id, name]));
    return (id: string) => names.get(id) ?? (campaigns ? 'a campaign that is gone' : UNKNOWN_YET);
  }, [campaigns, cast]);
  const write = useMemo(() => {
    const format = new Intl.DateTimeFormat('en-GB', {
      timeZone: site.timeZone,
      dateStyle: 'medium',
      timeStyle: 'short',
    });
    return (atMs: number) => format.format(atMs);
  }, [site.timeZone]);
  const played = useMemo(
    () =>
      playVisit({
        manifest: cast.manifest,
        rehearsal,
        origin: site.origins[0] ?? 'https://site.example',
      }),
    [cast, rehearsal, site.origins],
  );
  const judged = useMemo(() => judge(played, rehearsal, nameOf, write), [played, rehearsal, nameOf, write]);

  const changePage = (at: number, change: Partial<RehearsedPage>, key: string) =>
    edit(
      (old) => ({ ...old, pages: old.pages.map((page, n) => (n === at ? { ...page, ...change } : page)) }),
      key,
    );
  const insert = (at: number, page: RehearsedPage) => {
    edit(
      (old) => ({ ...old, pages: [...old.pages.slice(0, at), page, ...old.pages.slice(at)] }),
      `insert ${at} ${Date.now()}`,
    );
    setChosen(at);
  };
  /** As long and as deep as half of the page's readers stay. */
  const addPage = async (path: string) => {
    const question = { paths: [path.split('?')[0] ?? path], device: null };
    const stays = await queryClient.fetchQuery(staysQuery(siteId, question)).catch(() => undefined);
    const seconds = stays && usualStay(stays.seconds, STAY_SECONDS);
    const depth = stays && usualStay(stays.depth, STAY_DEPTHS);
    insert(
      rehearsal.pages.length,
      beginPage(path, { ...(seconds ? { seconds } : {}), ...(depth ? { depth } : {}) }),
    );
  };
  useCommands('Rehearsal', [
    { id: 'undo', label: 'Undo', keys: 'Mod+z', run: undo },
    { id: 'redo', label: 'Redo', keys: 'Mod+Shift+z', run: redo },
    ...(canEdit ? [{ id: 'keep', label: 'Keep the rehearsal', keys: 'Mod+s', run: kept.keep }] : []),
  ]);
  const position = Math.min(chosen, rehearsal.pages.length - 1);
  const page = rehearsal.pages[position] as RehearsedPage;
  const isGone = (id: string) => !cast.campaigns.some((one) => one.id === id);
  const gone = new Set(
    [...rehearsal.reactions, ...rehearsal.expectations, ...rehearsal.visitor.met]
      .flatMap((one) => ('campaign' in one ? [one.campaign] : []))
      .filter(isGone),
  );
  const react = (campaign: string, reaction: Reaction | null) =>
    edit(
      (old: Rehearsal) => ({
        ...old,
        reactions: [
          ...old.reactions.filter((one) => one.campaign !== campaign),
          ...(reaction ? [reaction] : []),
        ],
      }),
      `reaction ${campaign}`,
    );

  return (
    <div className="mx-auto max-w-[1360px] px-6 pb-16 max-sm:px-4">
      <div className="flex flex-wrap items-end gap-2 pt-7 pb-4">
        <div className="mr-auto">
          <h1 className="font-serif text-3xl">Rehearsal</h1>
          <p className="text-soft">
            {kept.open
              ? `“${kept.open.name}”`
              : 'A visit, played against every campaign before anybody makes it'}
          </p>
        </div>
        <IconButton label="Undo" disabled={!line.canUndo} onClick={undo}>
          <Undo2 size={16} aria-hidden />
        </IconButton>
        <IconButton label="Redo" disabled={!line.canRedo} onClick={redo}>
          <Redo2 size={16} aria-hidden />
        </IconButton>
        <Select
          label="Played against"
          className="w-60"
          value={of}
          options={[
            { value: 'live', label: 'What runs now' },
            { value: 'drafts', label: 'Every draft' },
            ...(campaigns ?? [])
              .filter(({ state }) => state !== 'archived')
              .map(({ id, name }) => ({ value: id, label: `What runs, with the draft of ${name}` })),
          ]}
          onChange={(next) => setParam({ of: next === 'live' ? null : next })}
        />
        <Select
          label="Visit"
          className="w-52"
          value={kept.open?.id ?? NEW}
          options={[
            { value: NEW, label: kept.kept.length === 0 ? 'None is kept yet' : 'Not kept' },
            ...kept.kept.map(({ id, name }) => ({ value: id, label: name })),
          ]}
          onChange={(id) => {
            const one = kept.kept.find((other) => other.id === id);
            if (one) open(one);
            else line.setKept(visit, null);
          }}
        />
        <Menu
          items={[
            ...(canEdit ? [{ label: 'Keep under another name …', onSelect: kept.keepAs }] : []),
            {
              label: 'Begin afresh',
              onSelect: () => put(begin()),
            },
            { label: 'Export to a file', onSelect: kept.toFile },
            { label: 'Read from a file …', onSelect: kept.fromFile },
            { label: 'Take a recorded visit …', onSelect: () => setTaking(true) },
            ...(canEdit && kept.open ? [{ label: 'Remove it', onSelect: kept.remove, isHalting: true }] : []),
          ]}
        >
          <Button>More</Button>
        </Menu>
        {canEdit && (
          <Button tone="main" isBusy={kept.isBusy} onClick={kept.keep}>
            Keep
          </Button>
        )}
      </div>
      {gone.size > 0 && (
        <p role="status" className="mb-4 border border-hold bg-hold-wash px-4 py-2">
          It speaks of {gone.size === 1 ? 'a campaign that is' : `${gone.size} campaigns that are`} not among
          those it is played against. Nothing of it is lost.
        </p>
      )}
      <div className="grid gap-x-10 gap-y-8 lg:grid-cols-[18rem_minmax(0,1fr)]">
        <div className="grid content-start gap-8 max-lg:order-last">
          <VisitorFields
            visitor={rehearsal.visitor}
            campaigns={cast.campaigns}
            timeZone={site.timeZone}
            onChange={(change, key) =>
              edit((old) => ({ ...old, visitor: { ...old.visitor, ...change } }), `visitor ${key}`)
            }
          />
          <Expectations
            rehearsal={rehearsal}
            judged={judged}
            since={since}
            campaigns={cast.campaigns}
            onChange={(expectations) =>
              edit((old) => ({ ...old, expectations: [...expectations] }), `expectations ${Date.now()}`)
            }
          />
        </div>
        <div className="grid min-w-0 content-start gap-5">
          <VisitStrip
            rehearsal={rehearsal}
            chosen={position}
            nameOf={nameOf}
            onChoose={setChosen}
            onChangePage={changePage}
          />
          <Lanes
            siteId={siteId}
            played={played}
            cast={cast}
            rehearsal={rehearsal}
            write={write}
            onReact={react}
          />
          <div className="grid gap-4 border-t border-line-strong pt-4">
            <PageFields
              page={page}
              position={position}
              isOnly={rehearsal.pages.length === 1}
              paths={pages.slice(0, 400).map(({ path, title }) => ({ value: path, note: title }))}
              campaigns={cast.campaigns}
              onChange={(change, key) => changePage(position, change, key)}
              onCopy={() => insert(position + 1, page)}
              onRemove={() =>
                edit(
                  (old) => ({ ...old, pages: old.pages.filter((_, n) => n !== position) }),
                  `remove ${Date.now()}`,
                )
              }
            />
            <NextPage
              paths={pages}
              isFull={rehearsal.pages.length >= MOST_PAGES}
              onAdd={(path) => void addPage(path)}
            />
          </div>
          <p className="text-xs text-soft">
            Taken for granted: pages are read evenly down to where they are left, are {ASSUMED_PAGE_PIXELS} px
            long where a rule speaks of pixels, and tell nothing else of themselves; messages come and go at
            once. Nothing is held back and everybody gets the first variant.
          </p>
        </div>
      </div>
      {kept.node}
      {isTaking && (
        <RecordedVisits
          siteId={siteId}
          cast={cast}
          write={write}
          onClose={() => setTaking(false)}
          onChoose={(recorded) => {
            setTaking(false);
            put(recorded);
          }}
        />
      )}
    </div>
  );
}

interface NextPageProps {
  readonly paths: readonly { readonly path: string; readonly title: string }[];
  readonly isFull: boolean;
  readonly onAdd: (path: string) => void;
}

/** Finds the page that comes next by typing. */
function NextPage({ paths, isFull, onAdd }: NextPageProps) {
  const [typed, setTyped] = useState('');
  const path = typed.trim();
  return (
    <form
      className="flex items-end gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        onAdd(path);
        setTyped('');
      }}
    >
      <label className="grid gap-1">
        <span className="text-xs">Then goes to</span>
        <input
          list="velarium-next-pages"
          value={typed}
          placeholder="/a-page"
          maxLength={2048}
          onChange={(event) => setTyped(event.target.value)}
          className="h-8 w-72 rounded border border-line-strong bg-sheet px-2.5 placeholder:text-soft hover:border-ink max-sm:w-48"
        />
      </label>
      <datalist id="velarium-next-pages">
        {paths.slice(0, 400).map((one) => (
          <option key={one.path} value={one.path} label={one.title} />
        ))}
      </datalist>
      <Button type="submit" disabled={!path.startsWith('/') || isFull}>
        Add the page
      </Button>
    </form>
  );
}
