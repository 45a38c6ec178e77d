import { useMutation, useQueryClient } from '@tanstack/react-query';
import type { Goal, GoalDeed, SaveGoal } from '@velarium/contract';
import { counted } from '@velarium/core';
import { useState } from 'react';
import { goalsQuery, removeGoal, saveGoal } from '../api/goals.ts';
import { Button } from '../ui/button.tsx';
import { Dialog } from '../ui/dialog.tsx';
import { Field } from '../ui/field.tsx';
import { NumberField } from '../ui/number-field.tsx';
import { Segments } from '../ui/segments.tsx';
import { Select } from '../ui/select.tsx';
import { tell, tellProblem } from '../ui/toast.tsx';
import { stillThere } from '../ui/told-error.ts';
import { useOverTheirs } from '../ui/use-over-theirs.ts';
import { EventFields } from './event-fields.tsx';
import { RuleList } from './page-rules/rule-list.tsx';
import { useCoveredPages } from './use-site.ts';

/** As a goal begins: days after a showing within which it counts, unless one says otherwise. */
const NEW: SaveGoal = { name: '', deed: { kind: 'page', pages: [] }, counts: 'once', days: 7 };
const BEGINNINGS: { readonly [Kind in GoalDeed['kind']]: Extract<GoalDeed, { kind: Kind }> } = {
  page: { kind: 'page', pages: [] },
  answer: { kind: 'answer' },
  event: { kind: 'event', name: 'bought', condition: null, worth: { from: 'data', path: 'total' } },
};

const savedOf = ({ name, deed, counts, days }: SaveGoal): SaveGoal => ({ name, deed, counts, days });

interface GoalDialogProps {
  readonly siteId: string;
  readonly goal: Goal | null;
  readonly onClose: () => void;
}

/** Makes a goal, changes one or removes it. */
export function GoalDialog({ siteId, goal, onClose }: GoalDialogProps) {
  const queryClient = useQueryClient();
  const [draft, setDraft] = useState<SaveGoal>(goal ? savedOf(goal) : NEW);
  const overTheirs = useOverTheirs(draft);
  const set = (change: Partial<SaveGoal>) => setDraft((old) => ({ ...old, ...change }));
  const { name, deed, counts, days } = draft;
  const done = () => {
    void queryClient.invalidateQueries({ queryKey: goalsQuery(siteId).queryKey });
    onClose();
  };
  const save = useMutation({
    mutationFn: async () => {
      const next = goal
        ? await overTheirs(draft, goalsQuery(siteId), (goals) => savedOf(stillThere(goals, goal.id, 'goal')))
        : draft;
      await saveGoal(siteId, next, goal?.id);
      return next;
    },
    onSuccess: (saved) => {
      tell(goal ? `“${saved.name}” is saved.` : `“${saved.name}” is counted from now on.`);
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
  const isWhole = name.trim() !== '' && (deed.kind !== 'page' || deed.pages.length > 0);
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
          onChange={(event) => set({ name: event.target.value })}
        />
        {goal ? (
          <p className="text-xs text-soft">
            What it counts stays as it is: make another goal for something else.
          </p>
        ) : (
          <>
            <Segments<GoalDeed['kind']>
              label="What is done"
              value={deed.kind}
              options={[
                { value: 'page', label: 'A page is reached' },
                { value: 'answer', label: 'A form is answered' },
                { value: 'event', label: 'The page tells of it' },
              ]}
              onChange={(kind) => set({ deed: BEGINNINGS[kind] })}
            />
            {deed.kind === 'page' && (
              <GoalPages siteId={siteId} deed={deed} onChange={(next) => set({ deed: next })} />
            )}
            {deed.kind === 'event' && (
              <GoalEvent deed={deed} onChange={(change) => set({ deed: { ...deed, ...change } })} />
            )}
          </>
        )}
        <Segments<SaveGoal['counts']>
          label="A visitor who does it again"
          value={counts}
          options={[
            { value: 'once', label: 'Counts once' },
            { value: 'each', label: 'Counts each time' },
          ]}
          onChange={(next) => set({ counts: next })}
        />
        <NumberField
          label="Counts within, after the showing or the withholding"
          unit={days === 1 ? 'day' : 'days'}
          value={days}
          min={1}
          max={90}
          onChange={(next) => set({ days: next })}
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

type PageDeed = Extract<GoalDeed, { kind: 'page' }>;

function GoalPages({
  siteId,
  deed,
  onChange,
}: {
  readonly siteId: string;
  readonly deed: PageDeed;
  readonly onChange: (deed: PageDeed) => void;
}) {
  const { pages } = deed;
  const covered = useCoveredPages(siteId, { include: pages, exclude: [], follows: null });
  const set = (next: PageDeed['pages']) => onChange({ ...deed, pages: next });
  return (
    <>
      <RuleList
        label="Its pages"
        siteId={siteId}
        rules={pages}
        hasGroups={false}
        onAdd={(rule) => set([...pages, rule])}
        onRemove={(at) => set(pages.filter((_, n) => n !== at))}
        onSet={(at, rule) => set(pages.map((one, n) => (n === at ? rule : one)))}
      />
      {pages.length > 0 && covered.isKnown && (
        <p aria-live="polite" className="text-soft">
          {covered.covered.length === 0
            ? 'No known page fits: it can be reached all the same once there is one.'
            : `Reached by ${counted(covered.covered.length, 'page')}, ${counted(covered.views, 'view')} a month.`}
        </p>
      )}
    </>
  );
}

type EventDeed = Extract<GoalDeed, { kind: 'event' }>;
const WORTHS = [
  { value: 'none', label: 'Nothing' },
  { value: 'data', label: 'A value it tells' },
  { value: 'basket', label: 'The basket' },
] as const;

function GoalEvent({
  deed,
  onChange,
}: {
  readonly deed: EventDeed;
  readonly onChange: (change: Partial<EventDeed>) => void;
}) {
  const { worth } = deed;
  return (
    <>
      <EventFields event={deed} onChange={onChange} />
      <div className="grid grid-cols-2 items-end gap-2">
        <Select
          label="It is worth"
          value={worth?.from ?? 'none'}
          options={WORTHS}
          onChange={(from) =>
            onChange({
              worth: from === 'data' ? { from, path: 'total' } : from === 'basket' ? { from } : null,
            })
          }
        />
        {worth?.from === 'data' && (
          <Field
            label="Called"
            value={worth.path}
            maxLength={120}
            onChange={(event) =>
              event.target.value.trim() && onChange({ worth: { ...worth, path: event.target.value } })
            }
          />
        )}
      </div>
      {worth?.from === 'basket' && (
        <p className="text-xs text-soft">
          What the basket costs when the event is told: tell the event before the basket is emptied.
        </p>
      )}
      <p className="rounded bg-paper px-3 py-2 font-mono text-xs">
        {`velarium.event(${JSON.stringify(deed.name)}${worth?.from === 'data' ? `, { ${worth.path}: 42.50 }` : ''})`}
      </p>
    </>
  );
}
