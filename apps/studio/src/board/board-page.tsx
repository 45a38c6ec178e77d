import { useQuery } from '@tanstack/react-query';
import type { CampaignState, CampaignSummary } from '@velarium/contract';
import { ruleSentence, sentenceText } from '@velarium/core';
import { lazy, Suspense, useMemo, useRef, useState } from 'react';
import { useParams, useSearchParams } from 'react-router';
import { campaignsQuery } from '../api/queries.ts';
import { useCommands } from '../app/commands.ts';
import { useCanEdit } from '../app/use-session.ts';
import { Button } from '../ui/button.tsx';
import { cx } from '../ui/cx.ts';
import { rateScale } from '../ui/rate.tsx';
import { SearchField } from '../ui/search-field.tsx';
import { Select } from '../ui/select.tsx';
import { EmptyState, ErrorState, Skeleton } from '../ui/states.tsx';
import { CampaignRow, FigureHeads } from './campaign-row.tsx';
import { CopyDialog } from './copy-dialog.tsx';
import { SelectionBar } from './selection-bar.tsx';
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

const isIn = (filter: Filter, { state }: CampaignSummary) =>
  filter === 'current' ? state !== 'archived' : state === filter;

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

  const rows = useMemo(() => {
    const wanted = words.trim().toLowerCase();
    return (campaigns ?? [])
      .map((campaign) => ({ campaign, sentence: sentenceText(ruleSentence(campaign, names)) }))
      .filter(({ campaign }) => isIn(filter, campaign))
      .filter(({ campaign }) => label === ANY_LABEL || campaign.labels.includes(label))
      .filter(({ campaign, sentence }) =>
        `${campaign.name} ${campaign.labels.join(' ')} ${sentence}`.toLowerCase().includes(wanted),
      )
      .sort((a, b) => (COMPARE[sort] ?? COMPARE.state)(a.campaign, b.campaign));
  }, [campaigns, names, filter, words, label, sort]);
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
          <div
            className={cx(
              'sticky top-0 z-20 grid h-11 items-end bg-paper',
              selection.chosen.length === 0 && 'max-lg:h-auto',
            )}
          >
            {selection.chosen.length > 0 ? (
              <SelectionBar selection={selection} labels={labels} onLaunch={() => setLaunching(true)} />
            ) : (
              <FigureHeads />
            )}
          </div>
          <ol aria-label="Campaigns" className="border-t border-line-strong">
            {rows.map(({ campaign, sentence }) => (
              <CampaignRow
                key={campaign.id}
                campaign={campaign}
                sentence={sentence}
                scaleTo={scaleTo}
                canEdit={canEdit}
                isChosen={selection.ids.has(campaign.id)}
                onChoose={selection.toggle}
                onCopy={setCopied}
              />
            ))}
          </ol>
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
      action={
        onNew && (
          <Button tone="main" onClick={onNew}>
            Make the first one
          </Button>
        )
      }
    >
      A campaign is one message and the sentence that says when it opens.
    </EmptyState>
  ) : (
    <EmptyState title="Nothing matches" action={<Button onClick={onClear}>Show everything</Button>}>
      No campaign of this site has these words or this state.
    </EmptyState>
  );
}
