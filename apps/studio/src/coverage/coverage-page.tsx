import { keepPreviousData, useQuery } from '@tanstack/react-query';
import type { CampaignSummary, Cast, Device, PageGroup, Site, SitePage } from '@velarium/contract';
import { MET_ON_DAYS } from '@velarium/contract/values';
import {
  CELL_WORDS,
  CELLS,
  CELLS_SAY,
  type CellsSay,
  type Coverage,
  type CoverageNote,
  counted,
  coverageTable,
  DEVICE_WORDS,
  documentSentence,
  figure,
  instantOf,
  longestStay,
  type Met,
  pageTree,
  ruleSentence,
  STAY_SECONDS,
  sentenceText,
  wallClock,
} from '@velarium/core';
import { useMemo, useState } from 'react';
import { Link, useParams, useSearchParams } from 'react-router';
import { failureOf } from '../api/failure-of.ts';
import { campaignsQuery, groupsQuery, runningQuery, sitePagesQuery, staysQuery } from '../api/queries.ts';
import { castQuery } from '../api/rehearsals.ts';
import { useNames } from '../board/use-names.ts';
import { useSite, useSitePages } from '../site/use-site.ts';
import { Button } from '../ui/button.tsx';
import { Field } from '../ui/field.tsx';
import { saveFile } from '../ui/save-file.ts';
import { SearchField } from '../ui/search-field.tsx';
import { Segments } from '../ui/segments.tsx';
import { Select } from '../ui/select.tsx';
import { EmptyState, ErrorState, Skeleton } from '../ui/states.tsx';
import { tell, tellProblem } from '../ui/toast.tsx';
import { CellSign, CoverGrid, PAGE, type Spot } from './cover-grid.tsx';
import { savePicture } from './cover-picture.tsx';
import { type CoverRow, foundRows, groupRows, treeRows } from './cover-rows.ts';
import { Chosen, Notes } from './cover-side.tsx';
import { useCover } from './use-cover.ts';
import { useOften } from './use-often.ts';
import { ANYBODY, useVisitors } from './use-visitors.ts';

/** The site’s pages against its campaigns: who can appear where, and what is missing or too much. */
export function CoveragePage() {
  const { siteId = '' } = useParams();
  const [search] = useSearchParams();
  const site = useSite(siteId);
  const of = search.get('of') === 'drafts' ? 'drafts' : 'live';
  const cast = useQuery({ ...castQuery(siteId, of), staleTime: 0, placeholderData: keepPreviousData });
  const pages = useQuery(sitePagesQuery(siteId));
  const campaigns = useQuery(campaignsQuery(siteId));
  const running = useQuery(runningQuery(siteId));
  const groups = useQuery(groupsQuery(siteId));
  const failure = failureOf([cast, pages, campaigns, running, groups]);
  if (failure) return <ErrorState {...failure} />;
  if (!site || !cast.data || !pages.data || !campaigns.data || !running.data || !groups.data)
    return <Skeleton rows={8} label="Loading pages and campaigns" />;
  if (pages.data.length === 0)
    return (
      <EmptyState
        title="No page is known yet"
        drawing="sheets"
        action={
          <Link to={`/sites/${siteId}/site`} className="font-medium text-sail underline underline-offset-4">
            Read the site’s pages
          </Link>
        }
      >
        Once the site’s pages are known, this map shows which campaigns can appear on each of them.
      </EmptyState>
    );
  return (
    <CoverMap
      key={siteId}
      site={site}
      cast={cast.data}
      pages={pages.data}
      campaigns={campaigns.data}
      running={running.data}
      groups={groups.data}
      of={of}
    />
  );
}

const SAY_WORDS: Readonly<Record<CellsSay, string>> = {
  who: 'Who can',
  met: 'How often met',
  foreseen: 'Foreseen',
};
const NOTHING: readonly Met[] = [];

interface MapProps {
  readonly site: Site;
  readonly cast: Cast;
  readonly pages: readonly SitePage[];
  readonly campaigns: readonly CampaignSummary[];
  readonly running: readonly Met[];
  readonly groups: readonly PageGroup[];
  readonly of: 'live' | 'drafts';
}

function CoverMap({ site, cast, pages, campaigns, running, groups, of }: MapProps) {
  const siteId = site.id;
  const [, setSearch] = useSearchParams();
  const names = useNames(siteId);
  const sitePages = useSitePages(siteId);
  const [device, setDevice] = useState<Device>('desktop');
  const stays = useQuery(staysQuery(siteId, { paths: null, device }));
  const [at, setAt] = useState(() =>
    new Date(wallClock(Date.now(), site.timeZone)).toISOString().slice(0, 16),
  );
  const visitors = useVisitors(siteId, at);
  const [who, setWho] = useState(ANYBODY);
  const visitor = visitors.get(who) ?? null;
  const [by, setBy] = useState<'path' | 'group'>('path');
  const [say, setSay] = useState<CellsSay>('who');
  const [words, setWords] = useState('');
  const [open, setOpen] = useState<ReadonlySet<string>>(new Set());
  const [spot, setSpot] = useState<Spot>({ row: 0, campaign: PAGE });
  const wallMs = Date.parse(`${at}:00Z`);
  const task = useMemo(
    () =>
      Number.isNaN(wallMs)
        ? undefined
        : {
            question: {
              manifest: cast.manifest,
              origin: site.origins[0] ?? 'https://site.example',
              pages,
              device,
              atMs: instantOf(wallMs, site.timeZone),
              visitor: visitor && { ...visitor, device },
            },
            notes: {
              campaigns:
                of === 'live'
                  ? running.map(({ id, name, document }) => ({ id, name, rule: document.rule }))
                  : campaigns.map(({ id, name, rule }) => ({ id, name, rule })),
              running: of === 'live' ? running : NOTHING,
              longestStay: stays.data ? longestStay(stays.data.seconds, STAY_SECONDS) : null,
              nowMs: instantOf(wallMs, site.timeZone),
              zone: site.timeZone,
            },
          },
    [cast, site, pages, device, wallMs, visitor, of, running, campaigns, stays.data],
  );
  const { found, isBusy, hasFailed } = useCover(task);
  const coverage = found?.coverage;
  const { often, status, stop } = useOften(say, site, cast.manifest, coverage, device);
  const nameOf = (id: string) =>
    cast.campaigns.find((one) => one.id === id)?.name ?? 'A campaign that is gone';
  const sentenceOf = (id: string) => {
    const met = of === 'live' ? running.find((one) => one.id === id) : undefined;
    const one = campaigns.find((other) => other.id === id);
    if (met) return sentenceText(documentSentence(met.document, names));
    return one ? sentenceText(ruleSentence(one, names)) : '';
  };
  const tree = useMemo(() => pageTree(pages), [pages]);
  const typed = words.trim();
  const rows: readonly CoverRow[] = useMemo(
    () =>
      !coverage
        ? []
        : typed
          ? foundRows(coverage, typed)
          : by === 'group'
            ? groupRows(groups, coverage, site, sitePages)
            : treeRows(tree, open, coverage),
    [coverage, typed, by, groups, site, sitePages, tree, open],
  );
  const chosen = rows[Math.min(spot.row, rows.length - 1)];
  const fold = ({ key, isOpen }: CoverRow) =>
    setOpen((old) => new Set(isOpen ? [...old].filter((path) => path !== key) : [...old, key]));
  const save = async () => {
    const { unparse } = await import('papaparse');
    // Quoted throughout (RFC 4180), and no sheet takes a page for a formula.
    const text = unparse(coverage ? coverageTable(coverage, nameOf, often) : [], {
      quotes: true,
      escapeFormulae: true,
    });
    saveFile(new Blob([text], { type: 'text/csv' }), 'coverage.csv');
  };
  const saveMap = async (map: Coverage) => {
    const when = at.replace('T', ' ');
    const about =
      often && say !== 'who'
        ? `${SAY_WORDS[say]} on a ${DEVICE_WORDS[device]}, in ${MET_ON_DAYS} days, at ${when}; beside each page its page views of 30 days`
        : `Who can appear on a ${DEVICE_WORDS[device]}, at ${when}; beside each page its page views of 30 days`;
    try {
      const title = `Coverage of ${site.name}`;
      const left = await savePicture({ title, about, coverage: map, rows, often, nameOf });
      if (left > 0)
        tell(`Left out of the picture: the last ${counted(left, 'row')}. Fold what it need not show.`);
    } catch (error) {
      tellProblem(error);
    }
  };
  /** Shows where a note is about: the page among those found, the campaign as its column. */
  const show = ({ page, campaign }: CoverageNote) => {
    if (page !== undefined) setWords(pages[page]?.path ?? '');
    setSpot({ row: page === undefined ? spot.row : 0, campaign: campaign ?? PAGE });
  };
  return (
    <div className="mx-auto max-w-[1560px] px-6 pb-12 max-sm:px-4">
      <div className="flex flex-wrap items-end gap-x-4 gap-y-2 pt-7 pb-4">
        <div className="basis-full">
          <h1 className="font-serif text-3xl">Coverage</h1>
          <p className="text-soft">
            {counted(pages.length, 'page')} against {counted(cast.manifest.campaigns.length, 'campaign')}, on
            a {DEVICE_WORDS[device]}
            {visitor && `, for ${who.charAt(0).toLowerCase()}${who.slice(1)}`}
          </p>
        </div>
        <Segments
          label="Campaigns"
          value={of}
          options={[
            { value: 'live', label: 'As they run' },
            { value: 'drafts', label: 'Every draft' },
          ]}
          onChange={(next) => setSearch(next === 'live' ? {} : { of: next }, { replace: true })}
        />
        <div className="w-56">
          <Segments
            label="Device"
            value={device}
            options={[
              { value: 'desktop', label: 'Desktop' },
              { value: 'tablet', label: 'Tablet' },
              { value: 'mobile', label: 'Phone' },
            ]}
            onChange={setDevice}
          />
        </div>
        <Select
          label="For somebody whose visit begins there"
          className="w-72"
          value={who}
          options={[ANYBODY, ...visitors.keys()].map((value) => ({ value, label: value }))}
          onChange={(next) => {
            setWho(next);
            const met = visitors.get(next);
            if (met) setDevice(met.device);
          }}
        />
        <Field
          label="At"
          type="datetime-local"
          value={at}
          error={task ? undefined : 'Choose a day and time.'}
          onChange={(event) => setAt(event.target.value)}
        />
        <div className="w-44">
          <Segments
            label="Pages"
            value={by}
            options={[
              { value: 'path', label: 'By path' },
              { value: 'group', label: 'By group' },
            ]}
            onChange={setBy}
          />
        </div>
      </div>
      {cast.manifest.campaigns.length === 0 ? (
        <EmptyState
          title={of === 'live' ? 'Nothing runs' : 'No campaign yet'}
          drawing="map"
          action={
            <Link
              to={`/sites/${siteId}/board`}
              className="font-medium text-sail underline underline-offset-4"
            >
              Go to the Board
            </Link>
          }
        >
          {of === 'live'
            ? 'No campaign of this site is live. Look at every draft, or launch one.'
            : 'Make one on the Board, and this map shows where it can appear.'}
        </EmptyState>
      ) : hasFailed ? (
        <p role="alert">The map could not be made. Load the page again.</p>
      ) : !found || !coverage ? (
        <Skeleton rows={8} label="Reading every page by every rule" />
      ) : (
        <div className="grid gap-8 xl:grid-cols-[minmax(0,1fr)_22rem]">
          <div className="grid content-start gap-2">
            <div className="flex flex-wrap items-end gap-x-4 gap-y-2">
              <SearchField label="Find a page" value={words} onChange={setWords} className="w-56" />
              <div className="w-80">
                <Segments
                  label="Cells say"
                  value={say}
                  options={CELLS_SAY.map((value) => ({ value, label: SAY_WORDS[value] }))}
                  onChange={setSay}
                />
              </div>
              <Button onClick={save}>Save as CSV</Button>
              <Button onClick={() => void saveMap(coverage)}>Save as picture</Button>
              <p role="status" className="text-soft">
                {isBusy
                  ? 'Reading every page by every rule …'
                  : (status ?? (typed && `${figure(rows.length)} found`))}
              </p>
              {stop && <Button onClick={stop}>Stop</Button>}
              <ul aria-label="Signs" className="ml-auto flex flex-wrap gap-x-4 text-xs text-soft">
                {[...CELLS].reverse().map(
                  (cell) =>
                    cell !== 'not' && (
                      <li key={cell} className="flex items-center gap-1">
                        <CellSign cell={cell} /> {CELL_WORDS[cell]}
                      </li>
                    ),
                )}
              </ul>
            </div>
            {rows.length === 0 ? (
              <EmptyState title="No such page" drawing="lens">
                No page of the site has these words in its path or title.
              </EmptyState>
            ) : (
              <CoverGrid
                coverage={coverage}
                rows={rows}
                say={say}
                often={often}
                nameOf={nameOf}
                spot={{ ...spot, row: Math.min(spot.row, rows.length - 1) }}
                onSpot={setSpot}
                onFold={fold}
              />
            )}
          </div>
          <div className="grid content-start gap-7">
            {chosen && (
              <Chosen
                {...{ siteId, coverage, say, often, device, of, nameOf, sentenceOf }}
                row={chosen}
                spot={spot}
              />
            )}
            <Notes notes={found.notes} onShow={show} />
          </div>
        </div>
      )}
    </div>
  );
}
