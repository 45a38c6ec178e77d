import { useQuery, useQueryClient } from '@tanstack/react-query';
import type { Campaign, CampaignDocument } from '@velarium/contract';
import {
  counted,
  DEFAULT_TRIAL,
  evenShares,
  isSame,
  momentWords,
  nextVariant,
  trialForecastWords,
  variantOf,
} from '@velarium/core';
import { X } from 'lucide-react';
import { goalsQuery } from '../../../api/goals.ts';
import { campaignQuery, campaignsQuery } from '../../../api/queries.ts';
import { trialForecastQuery } from '../../../api/results.ts';
import { IconButton } from '../../../ui/button.tsx';
import { NumberField } from '../../../ui/number-field.tsx';
import { Select } from '../../../ui/select.tsx';
import { Switch } from '../../../ui/switch.tsx';
import { tell, tellProblem } from '../../../ui/toast.tsx';
import { useWorkbench, useWorkbenchStore } from '../../store.ts';

/** Beside the present one; five variants in all. */
const MOST = 4;
const NONE = 'none';
const OWN = 'own';

/**
 * What is tried on visitors: variants of the message and of its moment, each taken from another campaign, where it is
 * written and looked at like any other.
 */
export function TrialControl() {
  const store = useWorkbenchStore();
  const queryClient = useQueryClient();
  const id = useWorkbench((state) => state.id);
  const siteId = useWorkbench((state) => state.siteId);
  const canEdit = useWorkbench((state) => state.canEdit);
  const variants = useWorkbench((state) => state.document.variants);
  const moment = useWorkbench((state) => state.document.rule.moment);
  const trial = useWorkbench((state) => state.document.trial) ?? DEFAULT_TRIAL;
  const { data: campaigns = [] } = useQuery(campaignsQuery(siteId));
  const { data: goals } = useQuery(goalsQuery(siteId));
  const others = campaigns.filter((one) => one.id !== id && one.state !== 'archived');
  const set = (change: (document: CampaignDocument) => CampaignDocument) =>
    store.getState().setDocument(change);
  const { data: forecast } = useQuery({
    ...trialForecastQuery(id, trial, variants.length + 1),
    enabled: variants.length > 0,
    placeholderData: (old) => old,
  });
  const take = async (from: string) => {
    try {
      const { document, name }: Campaign = await queryClient.fetchQuery(campaignQuery(from));
      set((old) => ({
        ...old,
        variants: evenShares([
          ...old.variants,
          variantOf(nextVariant(old.variants), document, old.rule.moment),
        ]),
      }));
      tell(`The message and the moment of “${name}” are tried beside this one, as they are now.`);
    } catch (error) {
      tellProblem(error);
    }
  };
  const present = 100 - variants.reduce((sum, { weight }) => sum + weight, 0);
  return (
    <div className="grid gap-3">
      <p className="text-xs text-soft">
        Visitors are divided by chance and for good. Duplicate this campaign, change its words or its moment,
        and try it here beside the present one.
      </p>
      {variants.length > 0 && (
        <ul className="grid gap-2">
          <li className="flex items-center gap-2">
            <span className="mr-auto font-medium">A, the present one</span>
            <span>{present} %</span>
          </li>
          {variants.map((variant) => (
            <li key={variant.id} className="grid grid-cols-[1fr_6.5rem_auto] items-center gap-2">
              <span className="min-w-0">
                <b className="font-medium">{variant.id.toUpperCase()}</b>
                <span className="block truncate text-xs text-soft">
                  {variant.moment && !isSame(variant.moment, moment)
                    ? `opens ${momentWords(variant.moment)}`
                    : 'another message, at the same moment'}
                </span>
              </span>
              <NumberField
                label={`Share of variant ${variant.id.toUpperCase()}`}
                isLabelHidden
                unit="%"
                value={variant.weight}
                min={1}
                max={
                  99 -
                  variants.reduce(
                    (sum, { id: other, weight }) => sum + (other === variant.id ? 0 : weight),
                    0,
                  )
                }
                onChange={(weight) =>
                  set((old) => ({
                    ...old,
                    variants: old.variants.map((one) => (one.id === variant.id ? { ...one, weight } : one)),
                  }))
                }
              />
              {canEdit && (
                <IconButton
                  label={`Remove variant ${variant.id.toUpperCase()}`}
                  onClick={() =>
                    set((old) => ({
                      ...old,
                      variants: evenShares(old.variants.filter((one) => one.id !== variant.id)),
                    }))
                  }
                >
                  <X size={14} aria-hidden />
                </IconButton>
              )}
            </li>
          ))}
        </ul>
      )}
      {canEdit && variants.length < MOST && (
        <Select
          label="Try another campaign’s message and moment"
          value={NONE}
          options={[
            {
              value: NONE,
              label: others.length === 0 ? 'No other campaign is there' : 'Choose a campaign …',
            },
            ...others.map((one) => ({ value: one.id, label: one.name })),
          ]}
          onChange={(from) => from !== NONE && void take(from)}
        />
      )}
      {variants.length > 0 && (
        <>
          {goals && goals.length > 0 && (
            <Select
              label="Tried for"
              value={trial.goal ?? OWN}
              options={[
                { value: OWN, label: 'Its own answer or click, within a day' },
                ...goals.map(({ id: goal, name, days }) => ({
                  value: goal,
                  label: `${name}, within ${counted(days, 'day')}`,
                })),
                ...(trial.goal && !goals.some(({ id: goal }) => goal === trial.goal)
                  ? [{ value: trial.goal, label: '▲ A goal that is gone: choose another' }]
                  : []),
              ]}
              onChange={(goal) =>
                set((old) => {
                  const { goal: _before, ...rest } = trial;
                  return { ...old, trial: goal === OWN ? rest : { ...rest, goal } };
                })
              }
            />
          )}
          <NumberField
            label="Smallest difference worth having"
            unit="points"
            value={trial.smallest}
            min={1}
            max={50}
            onChange={(smallest) => set((old) => ({ ...old, trial: { ...trial, smallest } }))}
          />
          <Switch
            label="It ends when the planned visitors have come"
            isOn={trial.isPlanned}
            onChange={(isPlanned) => set((old) => ({ ...old, trial: { ...trial, isPlanned } }))}
          />
          {forecast && (
            <p role="status" className="text-soft">
              {trialForecastWords(forecast)}
            </p>
          )}
          <p className="text-xs text-soft">
            It begins with the launch, and its Results say every day whether one is better. A change of what
            is tried begins it anew.
          </p>
        </>
      )}
    </div>
  );
}
