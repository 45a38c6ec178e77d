import { useQuery } from '@tanstack/react-query';
import type { CampaignState, CampaignSummary } from '@velarium/contract';
import { ruleSentence, sentenceText } from '@velarium/core';
import { lazy, Suspense, useMemo, useRef } from 'react';
import { useParams, useSearchParams } from 'react-router';
import { campaignsQuery } from '../api/queries.ts';
import { useCommands } from '../app/commands.ts';
import { useCanEdit } from '../app/use-session.ts';
import { Button } from '../ui/button.tsx';
import { Select } from '../ui/select.tsx';
import { EmptyState, ErrorState, Skeleton } from '../ui/states.tsx';
import { CampaignRow, FigureHeads } from './campaign-row.tsx';
import { rateScale } from './rate.tsx';

/** Brings the renderer and the forms with it, which the Board itself does not need. */
const NewCampaign = lazy(async () => ({ default: (await import('./new-campaign.tsx')).NewCampaign }));

const FILTERS = [
  { value: 'current', label: 'All but archived' },
  { value: 'running', label: 'Running' },
  { value: 'resting', label: 'Resting' },
  { value: 'draft', label: 'Drafts' },
  { value: 'archived', label: 'Archived' },
] as const;
type Filter = (typeof FILTERS)[number]['value'];

const ORDER: readonly CampaignState[] = ['running', 'scheduled', 'resting', 'draft', 'ended', 'archived'];

const isIn = (filter: Filter, { state }: CampaignSummary) =>
  filter === 'current' ? state !== 'archived' : state === filter;

export function BoardPage() {
  const { siteId = '' } = useParams();
  const [search, setSearch] = useSearchParams();
  const canEdit = useCanEdit();
  const { data: campaigns, error, refetch } = useQuery(campaignsQuery(siteId));
  const searchField = useRef<HTMLInputElement>(null);
  const filter = (search.get('show') as Filter | null) ?? 'current';
  const words = search.get('find') ?? '';
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
      .map((campaign) => ({ campaign, sentence: sentenceText(ruleSentence(campaign)) }))
      .filter(({ campaign }) => isIn(filter, campaign))
      .filter(({ campaign, sentence }) => `${campaign.name} ${sentence}`.toLowerCase().includes(wanted))
      .sort((a, b) => ORDER.indexOf(a.campaign.state) - ORDER.indexOf(b.campaign.state));
  }, [campaigns, filter, words]);
  const scaleTo = useMemo(() => rateScale(rows.map(({ campaign }) => campaign.numbers)), [rows]);

  useCommands('Board', [
    ...(canEdit ? [{ id: 'new', label: 'New campaign', keys: 'n', run: () => setParam('new', '') }] : []),
    { id: 'search', label: 'Search the Board', keys: '/', run: () => searchField.current?.focus() },
    ...FILTERS.map(({ value, label }) => ({
      id: `show-${value}`,
      label: `Show: ${label}`,
      run: () => setParam('show', value === 'current' ? null : value),
    })),
  ]);

  return (
    <div className="mx-auto max-w-[1360px] px-6 pb-16">
      <div className="flex items-end gap-4 pt-7 pb-4">
        <h1 className="mr-auto font-serif text-3xl">Board</h1>
        <input
          ref={searchField}
          type="search"
          aria-label="Search by name or sentence"
          placeholder="Search by name or sentence"
          value={words}
          onChange={(event) => setParam('find', event.target.value || null)}
          className="h-8 w-72 rounded border border-line-strong bg-sheet px-2.5 placeholder:text-soft hover:border-ink"
        />
        <Select
          label="Show"
          isLabelHidden
          className="w-44"
          value={filter}
          options={FILTERS}
          onChange={(value) => setParam('show', value === 'current' ? null : value)}
        />
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
          <FigureHeads />
          <ol aria-label="Campaigns" className="border-t border-line-strong">
            {rows.map(({ campaign, sentence }) => (
              <CampaignRow
                key={campaign.id}
                campaign={campaign}
                sentence={sentence}
                scaleTo={scaleTo}
                canEdit={canEdit}
              />
            ))}
          </ol>
        </>
      )}
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
            New campaign
          </Button>
        )
      }
    >
      A campaign is one message and the sentence that says when it opens. Make the first one.
    </EmptyState>
  ) : (
    <EmptyState title="Nothing matches" action={<Button onClick={onClear}>Show everything</Button>}>
      No campaign of this site has these words or this state.
    </EmptyState>
  );
}
