import { useQuery } from '@tanstack/react-query';
import type { Answer } from '@velarium/contract';
import { counted, standingWords } from '@velarium/core';
import { useDeferredValue, useState } from 'react';
import { useParams } from 'react-router';
import { type AskedAnswers, answerCountsQuery, keptAnswersQuery } from '../api/people.ts';
import { campaignsQuery } from '../api/queries.ts';
import { useCanEdit, useSession } from '../app/use-session.ts';
import { Button } from '../ui/button.tsx';
import { Menu } from '../ui/menu.tsx';
import { EmptyState } from '../ui/states.tsx';
import { AnswerFilters } from './answer-filters.tsx';
import { AnswerSheet } from './answer-sheet.tsx';
import { AnswerTable } from './answer-table.tsx';
import { DaysChart } from './days-chart.tsx';
import { ExportDialog } from './export-dialog.tsx';
import { HeldBar } from './held-bar.tsx';
import { KeepingDialog } from './keeping-dialog.tsx';

/** Everybody who answered: found, read, put right, exported, erased. */
export function PeoplePage() {
  const { siteId = '' } = useParams();
  const canRead = useCanEdit();
  const isOwner = useSession()?.role === 'owner';
  const [typed, setTyped] = useState<AskedAnswers>({});
  const filter = useDeferredValue(typed);
  const [open, setOpen] = useState<Answer | null>(null);
  const [isKeeping, setKeeping] = useState(false);
  const { data: campaigns = [] } = useQuery(campaignsQuery(siteId));
  const { data: counts, isLoadingError } = useQuery({
    ...answerCountsQuery(siteId, filter),
    refetchInterval: 10_000,
    placeholderData: (old) => old,
  });
  const { data: kept } = useQuery({ ...keptAnswersQuery(siteId), enabled: canRead });
  const isHeld = filter.isHeld === 'yes';
  const [taken, setTaken] = useState<'csv' | 'jsonl' | null>(null);
  return (
    <div className="mx-auto max-w-[1360px] px-6 pb-16 max-sm:px-4">
      <div className="flex flex-wrap items-end gap-x-6 gap-y-3 pt-7 pb-4">
        <div className="mr-auto">
          <h1 className="font-serif text-3xl">People</h1>
          <p aria-live="polite" className="text-soft">
            {counts && foundWords(counts.found, counts.isMore)}
            {!counts && (isLoadingError ? 'The answers could not be counted' : 'Counting …')}
            {counts && <span className="ml-3">{standingWords(counts.people, counts.expired)}</span>}
            {kept?.days != null && <span className="ml-3">kept for {counted(kept.days, 'day')}</span>}
          </p>
        </div>
        {counts && <DaysChart days={counts.days} />}
        {canRead && (
          <div className="flex gap-2">
            {isOwner && <Button onClick={() => setKeeping(true)}>Keeping</Button>}
            <Menu
              items={[
                { label: 'As a table (CSV)', onSelect: () => setTaken('csv') },
                { label: 'As JSON, one a line', onSelect: () => setTaken('jsonl') },
              ]}
            >
              <Button>Take a file</Button>
            </Menu>
          </div>
        )}
      </div>
      {!canRead ? (
        <EmptyState title="Counts only" drawing="key">
          Your role reads how many answered. Who they are is for owners and editors.
        </EmptyState>
      ) : (
        <>
          <AnswerFilters
            filter={typed}
            onChange={setTyped}
            campaigns={campaigns}
            forms={counts?.forms ?? []}
          />
          {counts && counts.held > 0 && (
            <HeldBar
              siteId={siteId}
              held={counts.held}
              isOpen={isHeld}
              onOpen={(is) => setTyped({ ...typed, isHeld: is ? 'yes' : 'no' })}
            />
          )}
          <AnswerTable siteId={siteId} filter={filter} isHeld={isHeld} onOpen={setOpen} />
        </>
      )}
      {open && <AnswerSheet siteId={siteId} answer={open} onClose={() => setOpen(null)} />}
      {taken && (
        <ExportDialog siteId={siteId} filter={filter} format={taken} onClose={() => setTaken(null)} />
      )}
      {isKeeping && <KeepingDialog siteId={siteId} onClose={() => setKeeping(false)} />}
    </div>
  );
}

const foundWords = (found: number, isMore: boolean): string =>
  isMore ? `more than ${counted(found, 'answer')}` : counted(found, 'answer');
