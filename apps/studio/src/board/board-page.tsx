import { useQuery } from '@tanstack/react-query';
import type { CampaignState, CampaignSummary } from '@velarium/contract';
import { type Attention, ruleInShort, ruleSentence, sentenceText } from '@velarium/core';
import { Rows2, Rows4 } from 'lucide-react';
import { lazy, type ReactNode, Suspense, useMemo, useRef, useState } from 'react';
import { useParams, useSearchParams } from 'react-router';
import { campaignsQuery } from '../api/queries.ts';
import { useCommands } from '../app/commands.ts';
import { useCanEdit } from '../app/use-session.ts';
import { Button } from '../ui/button.tsx';
import { rateScale } from '../ui/rate.tsx';
import { SearchField } from '../ui/search-field.tsx';
import { Segments } from '../ui/segments.tsx';
import { Select } from '../ui/select.tsx';
import { EmptyState, ErrorState, Skeleton } from '../ui/states.tsx';
import { CampaignRow, FigureHeads } from './campaign-row.tsx';
import { CopyDialog } from './copy-dialog.tsx';
import { FirstSteps } from './first-steps.tsx';
import { RehearsalsHold } from './rehearsals-hold.tsx';
import { SelectionBar } from './selection-bar.tsx';
import { groupName } from './state-mark.tsx';
import { useAttention } from './use-attention.tsx';
import { DENSITIES, type Density, useDensity } from './use-density.ts';
import { useImport } from './use-import.tsx';
import { useNames } from './use-names.ts';
import { useSelection } from './use-selection.ts';

/** Brings the renderer and the forms with it, which the Board itself does not need. */
const NewCampaign = lazy(async () => ({ default: (await import('./new-campaign.tsx')).NewCampaign }));

const LaunchTogether = lazy(async () => ({
  default: (await import('./launch-together.tsx')).LaunchTogether,
}));

const FILTERS = [
  { value: 'current', label: 'All but archived' },
  { value: 'running', label: 'Running' },
  { value: 'resting', label: 'Resting' },
  { value: 'draft', label: 'Drafts' },
  { value: 'archived', label: 'Archived' },
  { value: 'attention', label: 'Worth a look' },
] as const;
type Filter = (typeof FILTERS)[number]['value'];

const ORDER: readonly CampaignState[] = ['running', 'scheduled', 'resting', 'draft', 'ended', 'archived'];

const ANY_LABEL = '';
/** A list of choices takes no empty value. */
const ANY = 'any label';
const SORTS = [
  { value: 'state', label: 'By state' },
  { value: 'name', label: 'By name' },
  { value: 'showings', label: 'Most showings first' },
  { value: 'changed', label: 'Changed last first' },
] as const;
type Sort = (typeof SORTS)[number]['value'];

const COMPARE: Readonly<Record<Sort, (a: CampaignSummary, b: CampaignSummary) => number>> = {
  state: (a, b) => ORDER.indexOf(a.state) - ORDER.indexOf(b.state),
  name: (a, b) => a.name.localeCompare(b.name),
  showings: (a, b) => b.numbers.showings - a.numbers.showings,
  changed: (a, b) => (a.updatedAt < b.updatedAt ? 1 : -1),
};

const isIn = (filter: Filter, { state }: CampaignSummary, wantsLook: boolean) =>
  filter === 'attention' ? wantsLook : filter === 'current' ? state !== 'archived' : state === filter;

const NOTHING: readonly Attention[] = [];

const DENSITY_SIGNS: Readonly<Record<Density, ReactNode>> = {
  roomy: <Rows2 size={15} className="mx-1.5" />,
  close: <Rows4 size={15} className="mx-1.5" />,
};

/** Rows that are sorted by state, apart. */
function groupedByState<Row extends { readonly campaign: CampaignSummary }>(rows: readonly Row[]) {
  const groups: { state: CampaignState; rows: Row[] }[] = [];
  for (const row of rows) {
    const { state } = row.campaign;
    const last = groups.at(-1);
    if (last?.state === state) last.rows.push(row);
    else groups.push({ state, rows: [row] });
  }
  return groups;
}

export function BoardPage() {
  const { siteId = '' } = useParams();
  const [search, setSearch] = useSearchParams();
  const canEdit = useCanEdit();
  const { data: campaigns, error, refetch } = useQuery(campaignsQuery(siteId));
  const names = useNames(siteId);
  const searchField = useRef<HTMLInputElement>(null);
  const filter = (search.get('show') as Filter | null) ?? 'current';
  const words = search.get('find') ?? '';
  const label = search.get('label') ?? ANY_LABEL;
  const sort = (search.get('sort') as Sort | null) ?? 'state';
  const isCreating = search.has('new');
  const setParam = (name: string, value: string | null) =>
    setSearch(
      (old) => {
        const next = new URLSearchParams(old);
        if (value === null) next.delete(name);
        else next.set(name, value);
        return next;
      },
      { replace: name === 'find' },
    );

  const { attention, node: collisions } = useAttention(siteId, campaigns);
  const { density, choose: chooseDensity } = useDensity();
  const rows = useMemo(() => {
    const wanted = words.trim().toLowerCase();
    return (campaigns ?? [])
      .map((campaign) => ({
        campaign,
        short: ruleInShort(campaign, names, density === 'close'),
        sentence: sentenceText(ruleSentence(campaign, names)),
      }))
      .filter(({ campaign }) => isIn(filter, campaign, attention.of.has(campaign.id)))
      .filter(({ campaign }) => label === ANY_LABEL || campaign.labels.includes(label))
      .filter(({ campaign, sentence }) =>
        `${campaign.name} ${campaign.labels.join(' ')} ${sentence}`.toLowerCase().includes(wanted),
      )
      .sort(
        (a, b) =>
          (COMPARE[sort] ?? COMPARE.state)(a.campaign, b.campaign) ||
          // Of one state what wants a look comes first; what is found out later does not move the rows.
          Number(attention.pressing.has(b.campaign.id)) - Number(attention.pressing.has(a.campaign.id)),
      );
  }, [campaigns, names, filter, words, label, sort, attention, density]);
  const groups = useMemo(
    () => (sort === 'state' ? groupedByState(rows) : [{ state: null, rows }]),
    [rows, sort],
  );
  const labels = useMemo(
    () => [...new Set((campaigns ?? []).flatMap((campaign) => campaign.labels))].sort(),
    [campaigns],
  );
  const selection = useSelection(siteId, campaigns ?? []);
  const files = useImport(siteId);
  const [isLaunching, setLaunching] = useState(false);
  const [copied, setCopied] = useState<CampaignSummary | null>(null);
  const scaleTo = useMemo(() => rateScale(rows.map(({ campaign }) => campaign.numbers)), [rows]);

  useCommands('Board', [
    ...(canEdit ? [{ id: 'new', label: 'New campaign', keys: 'n', run: () => setParam('new', '') }] : []),
    ...(canEdit
      ? [
          { id: 'import', label: 'Import a campaign from a file', run: files.choose },
          {
            id: 'choose-all',
            label: 'Choose all that are shown',
            keys: 'Mod+a',
            run: () => selection.choose(rows.map(({ campaign }) => campaign.id)),
          },
        ]
      : []),
    { id: 'search', label: 'Search the Board', keys: '/', run: () => searchField.current?.focus() },
    ...FILTERS.map(({ value, label }) => ({
      id: `show-${value}`,
      label: `Show: ${label}`,
      run: () => setParam('show', value === 'current' ? null : value),
    })),
  ]);

  return (
    <div className="mx-auto max-w-[1360px] px-6 pb-16 max-sm:px-4">
      <div className="flex flex-wrap items-end gap-x-4 gap-y-2 pt-7 pb-4">
        <h1 className="mr-auto font-serif text-3xl">Board</h1>
        <SearchField
          ref={searchField}
          label="Search by name or sentence"
          value={words}
          onChange={(next) => setParam('find', next || null)}
          className="w-64"
        />
        <Select
          label="Show"
          isLabelHidden
          className="w-44"
          value={filter}
          options={FILTERS}
          onChange={(value) => setParam('show', value === 'current' ? null : value)}
        />
        {labels.length > 0 && (
          <Select
            label="Label"
            isLabelHidden
            className="w-36"
            value={label === ANY_LABEL ? ANY : label}
            options={[
              { value: ANY, label: 'Any label' },
              ...labels.map((one) => ({ value: one, label: one })),
            ]}
            onChange={(value) => setParam('label', value === ANY ? null : value)}
          />
        )}
        <Select
          label="Sort"
          isLabelHidden
          className="w-44"
          value={sort}
          options={SORTS}
          onChange={(value) => setParam('sort', value === 'state' ? null : value)}
        />
        {canEdit && <Button onClick={files.choose}>From a file</Button>}
        {canEdit && (
          <Button tone="main" onClick={() => setParam('new', '')}>
            New campaign
          </Button>
        )}
      </div>
      {canEdit && campaigns?.every(({ numbers }) => numbers.showings === 0) && (
        <FirstSteps siteId={siteId} campaigns={campaigns} />
      )}
      {error && !campaigns ? (
        <ErrorState error={error} onRetry={() => void refetch()} />
      ) : !campaigns ? (
        <Skeleton rows={5} label="Loading campaigns" />
      ) : rows.length === 0 ? (
        <NothingHere
          isEmpty={campaigns.length === 0}
          onNew={canEdit ? () => setParam('new', '') : undefined}
          onClear={() => setSearch({})}
        />
      ) : (
        <>
          {/* One above the list at a time, in the same room: choosing moves nothing. */}
          <div className="sticky top-0 z-20 grid h-11 items-center border-b border-line-strong bg-paper">
            {selection.chosen.length > 0 ? (
              <SelectionBar selection={selection} labels={labels} onLaunch={() => setLaunching(true)} />
            ) : (
              <div className="flex items-center justify-between gap-4">
                <div className="flex min-w-0 items-center gap-4 overflow-x-auto p-0.5">
                  <Segments
                    label="Rows"
                    isLabelHidden
                    value={density}
                    onChange={chooseDensity}
                    options={DENSITIES.map((one) => ({ ...one, sign: DENSITY_SIGNS[one.value] }))}
                  />
                  {attention.of.size > 0 && (
                    <button
                      type="button"
                      aria-pressed={filter === 'attention'}
                      className="min-h-7 rounded px-2 font-medium text-hold hover:bg-hold-wash aria-pressed:bg-hold aria-pressed:text-sheet"
                      onClick={() => setParam('show', filter === 'attention' ? null : 'attention')}
                    >
                      ◇ {attention.of.size} worth a look
                    </button>
                  )}
                  <RehearsalsHold siteId={siteId} campaigns={campaigns} />
                </div>
                <FigureHeads />
              </div>
            )}
          </div>
          {groups.map(({ state, rows: own }) => (
            <section key={state ?? 'all'} aria-label={state ? groupName(state) : 'Campaigns'}>
              {state && (
                <h2 className="sticky top-11 z-10 flex items-baseline gap-2 border-b border-line bg-paper pt-4 pb-1 font-serif text-lg">
                  {groupName(state)} <span className="font-sans text-soft">{own.length}</span>
                </h2>
              )}
              <ol aria-label={state ? `${groupName(state)} campaigns` : 'Campaigns'}>
                {own.map(({ campaign, short, sentence }) => (
                  <CampaignRow
                    key={campaign.id}
                    campaign={campaign}
                    short={short}
                    sentence={sentence}
                    attention={attention.of.get(campaign.id) ?? NOTHING}
                    density={density}
                    scaleTo={scaleTo}
                    canEdit={canEdit}
                    isChosen={selection.ids.has(campaign.id)}
                    onChoose={selection.toggle}
                    onCopy={setCopied}
                  />
                ))}
              </ol>
            </section>
          ))}
          {collisions}
        </>
      )}
      {files.node}
      {isLaunching && (
        <Suspense>
          <LaunchTogether siteId={siteId} campaigns={selection.chosen} onClose={() => setLaunching(false)} />
        </Suspense>
      )}
      {copied && <CopyDialog campaign={copied} onClose={() => setCopied(null)} />}
      {isCreating && (
        <Suspense>
          <NewCampaign siteId={siteId} onClose={() => setParam('new', null)} />
        </Suspense>
      )}
    </div>
  );
}

interface NothingHereProps {
  readonly isEmpty: boolean;
  readonly onNew: (() => void) | undefined;
  readonly onClear: () => void;
}

function NothingHere({ isEmpty, onNew, onClear }: NothingHereProps) {
  return isEmpty ? (
    <EmptyState
      title="The Board is clear"
      action={onNew && <Button onClick={onNew}>Make the first one</Button>}
    >
      A campaign is one message and the sentence that says when it opens.
    </EmptyState>
  ) : (
    <EmptyState
      title="Nothing matches"
      drawing="lens"
      action={<Button onClick={onClear}>Show everything</Button>}
    >
      No campaign of this site has these words or this state.
    </EmptyState>
  );
}
