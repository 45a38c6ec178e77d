import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { Goal, GoalDeed, PageRule } from '@velarium/contract';
import { counted, listOf, pageWords } from '@velarium/core';
import { useState } from 'react';
import { goalsQuery, removeGoal, saveGoal } from '../api/goals.ts';
import { useCanEdit } from '../app/use-session.ts';
import { useNames } from '../board/use-names.ts';
import { Button } from '../ui/button.tsx';
import { Dialog } from '../ui/dialog.tsx';
import { Field } from '../ui/field.tsx';
import { NumberField } from '../ui/number-field.tsx';
import { Segments } from '../ui/segments.tsx';
import { EmptyState, ErrorState, Skeleton } from '../ui/states.tsx';
import { tell, tellProblem } from '../ui/toast.tsx';
import { RuleList } from './page-rules/rule-list.tsx';
import { useCoveredPages } from './use-site.ts';

/** Days after a showing within which a goal counts, unless one says otherwise. */
const USUAL_DAYS = 7;

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
        <EmptyState title="No goal yet">
          Say what visitors should come to: a page that thanks them, the members’ area, an answered form.
          Results then say how many reached it, of those who saw a campaign and of those it was withheld from.
        </EmptyState>
      ) : (
        <ul aria-label="Goals" className="border-t border-line">
          {goals.map((goal) => (
            <li key={goal.id} className="grid grid-cols-[1fr_auto] gap-x-6 border-b border-line py-3">
              <div className="min-w-0">
                <h3 className="font-semibold">{goal.name}</h3>
                <p className="truncate text-soft">
                  {goal.deed.kind === 'answer'
                    ? 'any form is answered'
                    : `reached ${listOf(
                        goal.deed.pages.map((rule) => pageWords(rule, names)),
                        'or',
                      )}`}
                  , within {counted(goal.days, 'day')}
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

interface GoalDialogProps {
  readonly siteId: string;
  readonly goal: Goal | null;
  readonly onClose: () => void;
}

function GoalDialog({ siteId, goal, onClose }: GoalDialogProps) {
  const queryClient = useQueryClient();
  const [name, setName] = useState(goal?.name ?? '');
  const [days, setDays] = useState(goal?.days ?? USUAL_DAYS);
  const [kind, setKind] = useState<GoalDeed['kind']>(goal?.deed.kind ?? 'page');
  const [pages, setPages] = useState<readonly PageRule[]>(goal?.deed.kind === 'page' ? goal.deed.pages : []);
  const covered = useCoveredPages(siteId, { include: [...pages], exclude: [], follows: null });
  const done = () => {
    void queryClient.invalidateQueries({ queryKey: goalsQuery(siteId).queryKey });
    onClose();
  };
  const save = useMutation({
    mutationFn: () =>
      saveGoal(
        siteId,
        { name, days, deed: kind === 'answer' ? { kind } : { kind, pages: [...pages] } },
        goal?.id,
      ),
    onSuccess: () => {
      tell(goal ? `“${name}” is saved.` : `“${name}” is counted from now on.`);
      done();
    },
    onError: tellProblem,
  });
  const remove = useMutation({
    mutationFn: (id: string) => removeGoal(siteId, id),
    onSuccess: () => {
      tell(`“${name}” is removed, with what it had counted.`);
      done();
    },
    onError: tellProblem,
  });
  const isWhole = name.trim() !== '' && (kind === 'answer' || pages.length > 0);
  return (
    <Dialog
      isOpen
      onClose={onClose}
      title={goal ? `Goal “${goal.name}”` : 'New goal'}
      className="w-[min(92vw,34rem)]"
    >
      <form
        className="grid gap-4"
        onSubmit={(event) => {
          event.preventDefault();
          save.mutate();
        }}
      >
        <Field
          label="Name"
          value={name}
          maxLength={80}
          required
          onChange={(event) => setName(event.target.value)}
        />
        {goal ? (
          <p className="text-xs text-soft">
            What it counts stays as it is: make another goal for something else.
          </p>
        ) : (
          <>
            <Segments<GoalDeed['kind']>
              label="What is done"
              value={kind}
              options={[
                { value: 'page', label: 'A page is reached' },
                { value: 'answer', label: 'A form is answered' },
              ]}
              onChange={setKind}
            />
            {kind === 'page' && (
              <>
                <RuleList
                  label="Its pages"
                  siteId={siteId}
                  rules={pages}
                  hasGroups={false}
                  onAdd={(rule) => setPages((old) => [...old, rule])}
                  onRemove={(at) => setPages((old) => old.filter((_, n) => n !== at))}
                  onSet={(at, rule) => setPages((old) => old.map((one, n) => (n === at ? rule : one)))}
                />
                {pages.length > 0 && covered && (
                  <p aria-live="polite" className="text-sm text-soft">
                    {covered.covered.length === 0
                      ? 'No known page fits: it can be reached all the same once there is one.'
                      : `Reached by ${counted(covered.covered.length, 'page')}, ${counted(covered.views, 'view')} a month.`}
                  </p>
                )}
              </>
            )}
          </>
        )}
        <NumberField
          label="Counts within, after the showing or the withholding"
          unit={days === 1 ? 'day' : 'days'}
          value={days}
          min={1}
          max={90}
          onChange={setDays}
        />
        <div className="flex justify-end gap-2">
          {goal && (
            <Button
              tone="quiet"
              className="mr-auto text-halt"
              isBusy={remove.isPending}
              onClick={() => remove.mutate(goal.id)}
            >
              Remove the goal
            </Button>
          )}
          <Button onClick={onClose}>Cancel</Button>
          <Button tone="main" type="submit" disabled={!isWhole} isBusy={save.isPending}>
            Save
          </Button>
        </div>
      </form>
    </Dialog>
  );
}
