import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { CampaignGoals } from '@velarium/contract';
import { counted, deedsWords, figure } from '@velarium/core';
import { useState } from 'react';
import { Link } from 'react-router';
import { campaignGoalsQuery, chooseGoals, goalsQuery } from '../api/goals.ts';
import type { CampaignFound } from '../api/results.ts';
import { useCanEdit } from '../app/use-session.ts';
import { Button } from '../ui/button.tsx';
import { Dialog } from '../ui/dialog.tsx';
import { Rate } from '../ui/rate.tsx';
import { ErrorState, Skeleton } from '../ui/states.tsx';
import { Switch } from '../ui/switch.tsx';
import { tell, tellProblem } from '../ui/toast.tsx';
import { useOverTheirs } from '../ui/use-over-theirs.ts';
import { WideTable } from '../ui/wide-table.tsx';
import { Change } from './change.tsx';
import { Heads } from './heads.tsx';

interface GoalsOfCampaignProps {
  readonly siteId: string;
  readonly results: CampaignFound;
  readonly scaleTo: number;
}

/** What visitors came to, of those who met it and of those it was withheld from: what it does beyond what happens anyway. */
export function GoalsOfCampaign({ siteId, results, scaleTo }: GoalsOfCampaignProps) {
  const { goals, counts } = results;
  const canEdit = useCanEdit();
  const [isChoosing, setIsChoosing] = useState(false);
  const { data: ofSite = [] } = useQuery(goalsQuery(siteId));
  if (ofSite.length === 0) return null;
  return (
    <section className="grid gap-3">
      <div className="flex items-end gap-4">
        <h2 className="mr-auto font-serif text-xl">Goals</h2>
        {canEdit && <Button onClick={() => setIsChoosing(true)}>Choose goals</Button>}
      </div>
      {goals.length === 0 ? (
        <p className="text-soft">
          None counts yet for those who met it on these days: a goal is counted from when it was made, and
          only goals that are chosen are told of.
        </p>
      ) : (
        <WideTable
          caption={[
            'Reached after the first showing in these days, or the withholding. One deed can count for several campaigns.',
            counts.withheld === 0 &&
              'Hold it back from some visitors, under Limits, and you see what happens without it.',
          ]
            .filter(Boolean)
            .join(' ')}
          isCaptionSeen
          className="min-w-3xl"
        >
          <Heads
            heads={[
              { words: 'Goal' },
              { words: 'Of those it was shown to', className: 'w-64' },
              { words: 'Of those it was withheld from', className: 'w-64' },
              { words: 'What it does', className: 'w-60' },
            ]}
          />
          <tbody>
            {goals.map((goal) => (
              <GoalRow key={goal.id} goal={goal} scaleTo={scaleTo} />
            ))}
          </tbody>
        </WideTable>
      )}
      {isChoosing && (
        <GoalChoice siteId={siteId} campaignId={results.id} onClose={() => setIsChoosing(false)} />
      )}
    </section>
  );
}

function GoalRow({
  goal,
  scaleTo,
}: {
  readonly goal: CampaignFound['goals'][number];
  readonly scaleTo: number;
}) {
  const shown = { visitors: goal.visitors, converters: goal.reached };
  const withheld = { visitors: goal.withheld, converters: goal.withheldReached };
  return (
    <tr className="border-b border-line align-top">
      <th scope="row" className="py-2 font-medium">
        {goal.name}
        <span className="block text-xs font-normal text-soft">within {counted(goal.days, 'day')}</span>
      </th>
      {[
        { ...shown, times: goal.times, worth: goal.worth },
        { ...withheld, times: goal.withheldTimes, worth: goal.withheldWorth },
      ].map(({ times, worth, ...one }, at) => (
        <td key={at === 0 ? 'shown' : 'withheld'} className="py-2 pl-6">
          {figure(one.converters)} of {figure(one.visitors)}
          <span className="block text-xs text-soft">
            {deedsWords(goal, { visitors: one.visitors, times, worth })}
          </span>
          {one.visitors > 0 && <Rate {...one} scaleTo={scaleTo} />}
        </td>
      ))}
      <td className="py-2 pl-6">
        <Change before={withheld} now={shown} />
      </td>
    </tr>
  );
}

interface GoalChoiceProps {
  readonly siteId: string;
  readonly campaignId: string;
  readonly onClose: () => void;
}

/** Which goals of the site a campaign is measured by. */
function GoalChoice(props: GoalChoiceProps) {
  const { data, error, refetch } = useQuery(campaignGoalsQuery(props.campaignId));
  return (
    <Dialog isOpen onClose={props.onClose} title="Goals of this campaign">
      {data ? (
        <GoalForm {...props} opened={data.goals} />
      ) : error ? (
        <ErrorState error={error} onRetry={() => void refetch()} />
      ) : (
        <Skeleton rows={3} label="Loading the goals" />
      )}
    </Dialog>
  );
}

/** Goals as a set, which two people can change at once; `null` for all there are. */
const setOf = (goals: CampaignGoals['goals']) => goals && Object.fromEntries(goals.map((id) => [id, true]));

function GoalForm({
  siteId,
  campaignId,
  onClose,
  opened,
}: GoalChoiceProps & { readonly opened: CampaignGoals['goals'] }) {
  const queryClient = useQueryClient();
  const { data: goals = [] } = useQuery(goalsQuery(siteId));
  const [chosen, setChosen] = useState(opened);
  const overTheirs = useOverTheirs(setOf(opened));
  const save = useMutation({
    mutationFn: async () => {
      const next = await overTheirs(setOf(chosen), campaignGoalsQuery(campaignId), (there) =>
        setOf(there.goals),
      );
      return chooseGoals(campaignId, next && Object.keys(next));
    },
    onSuccess: () => {
      void queryClient.invalidateQueries({ queryKey: ['campaigns', campaignId] });
      tell('Its Results tell of these goals now.');
      onClose();
    },
    onError: tellProblem,
  });
  return (
    <form
      className="grid gap-4"
      onSubmit={(event) => {
        event.preventDefault();
        save.mutate();
      }}
    >
      <Switch
        label="All goals of the site, also those to come"
        isOn={chosen === null}
        onChange={(is) => setChosen(is ? null : goals.map(({ id }) => id))}
      />
      {chosen !== null && (
        <fieldset className="grid gap-1.5">
          <legend className="mb-1 font-medium">It is measured by</legend>
          {goals.map(({ id, name }) => (
            <label key={id} className="flex items-center gap-2">
              <input
                type="checkbox"
                className="accent-sail"
                checked={chosen.includes(id)}
                onChange={() =>
                  setChosen(chosen.includes(id) ? chosen.filter((one) => one !== id) : [...chosen, id])
                }
              />
              {name}
            </label>
          ))}
        </fieldset>
      )}
      <p className="text-xs text-soft">
        Goals are made on the{' '}
        <Link to={`/sites/${siteId}/site`} className="underline underline-offset-4">
          Site
        </Link>{' '}
        screen. The campaign’s own conversion is always told of.
      </p>
      <div className="flex justify-end gap-2">
        <Button onClick={onClose}>Cancel</Button>
        <Button tone="main" type="submit" isBusy={save.isPending}>
          Save
        </Button>
      </div>
    </form>
  );
}
