import { useQuery } from '@tanstack/react-query';
import type { Goal } from '@velarium/contract';
import { counted, deedWords } from '@velarium/core';
import { useState } from 'react';
import { goalsQuery } from '../api/goals.ts';
import { useCanEdit } from '../app/use-session.ts';
import { useNames } from '../board/use-names.ts';
import { Button } from '../ui/button.tsx';
import { EmptyState, ErrorState, Skeleton } from '../ui/states.tsx';
import { GoalDialog } from './goal-dialog.tsx';

/** What visitors may do whether or not a message was shown to them. */
export function GoalsSection({ siteId }: { readonly siteId: string }) {
  const canEdit = useCanEdit();
  const names = useNames(siteId);
  const { data: goals, error, refetch } = useQuery(goalsQuery(siteId));
  const [edited, setEdited] = useState<Goal | 'new' | null>(null);
  if (error && !goals) return <ErrorState error={error} onRetry={() => void refetch()} />;
  if (!goals) return <Skeleton rows={3} label="Loading goals" />;
  return (
    <div className="grid gap-4">
      <div className="flex items-center justify-between gap-4">
        <p className="text-soft">
          Somebody to whom nothing was shown can reach a goal too: that is what campaigns are measured
          against. One deed can count for several campaigns.
        </p>
        {canEdit && <Button onClick={() => setEdited('new')}>New goal</Button>}
      </div>
      {goals.length === 0 ? (
        <EmptyState title="No goal yet" drawing="flag">
          Say what visitors should come to: a page that thanks them, an answered form, a purchase. Results
          then say how many reached it, of those who saw a campaign and of those it was withheld from.
        </EmptyState>
      ) : (
        <ul aria-label="Goals" className="border-t border-line">
          {goals.map((goal) => (
            <li key={goal.id} className="grid grid-cols-[1fr_auto] gap-x-6 border-b border-line py-3">
              <div className="min-w-0">
                <h3 className="font-semibold">{goal.name}</h3>
                <p className="truncate text-soft">
                  {deedWords(goal.deed, names)}, within {counted(goal.days, 'day')}
                  {goal.counts === 'each' && ', each time'}
                </p>
                <p className="text-xs text-soft">{counted(goal.reached, 'visitor')} in the last 28 days</p>
              </div>
              {canEdit && <Button onClick={() => setEdited(goal)}>Edit {goal.name}</Button>}
            </li>
          ))}
        </ul>
      )}
      {edited && (
        <GoalDialog siteId={siteId} goal={edited === 'new' ? null : edited} onClose={() => setEdited(null)} />
      )}
    </div>
  );
}
