import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { Experiment } from '@velarium/contract';
import {
  aimWords,
  chanceWords,
  costOfChoosing,
  costWords,
  counted,
  experimentSentence,
  figure,
  notInTrialWords,
  percent,
  probabilityBetter,
  verdictOfExperiment,
} from '@velarium/core';
import { campaignQuery, publishCampaign, saveDraft } from '../api/queries.ts';
import { endExperiment, experimentsQuery } from '../api/results.ts';
import { useCanEdit } from '../app/use-session.ts';
import { Button } from '../ui/button.tsx';
import { Fold } from '../ui/fold.tsx';
import { Menu } from '../ui/menu.tsx';
import { Rate, rateScale } from '../ui/rate.tsx';
import { tell, tellProblem } from '../ui/toast.tsx';
import { when } from '../ui/when.ts';
import { WideTable } from '../ui/wide-table.tsx';
import { Evidence } from './evidence.tsx';
import { Heads } from './heads.tsx';

const LOOK_EVERY_MS = 15_000;
const ENDED_WORDS = {
  stopped: 'stopped, the present one stayed',
  changed: 'ended when its variants were changed',
} as const;

/** The experiment that runs on a campaign, and those that have ended as they were found. */
export function ExperimentSection({ campaignId }: { readonly campaignId: string }) {
  const { data } = useQuery({ ...experimentsQuery(campaignId), refetchInterval: LOOK_EVERY_MS });
  if (!data || (!data.running && data.ended.length === 0)) return null;
  return (
    <section className="grid gap-4">
      {data.running && <Running campaignId={campaignId} experiment={data.running} />}
      {data.ended.length > 0 && (
        <Fold title="Experiments that have ended" note={figure(data.ended.length)}>
          <ul className="grid gap-6">
            {data.ended.map((one) => (
              <li key={one.id} className="grid gap-2">
                <p className="text-soft">
                  {when.format(new Date(one.startedAt))} to{' '}
                  {one.endedAt && when.format(new Date(one.endedAt))}:{' '}
                  {one.ended === 'adopted'
                    ? `variant ${one.adopted?.toUpperCase()} was adopted`
                    : one.ended && ENDED_WORDS[one.ended]}
                </p>
                <p className="font-serif text-lg leading-snug">{experimentSentence(one)}</p>
                {one.goal && <p className="text-soft">{aimWords(one)}</p>}
                <Arms experiment={one} />
                <Evidence experiment={one} />
              </li>
            ))}
          </ul>
        </Fold>
      )}
    </section>
  );
}

function Running({
  campaignId,
  experiment,
}: {
  readonly campaignId: string;
  readonly experiment: Experiment;
}) {
  const queryClient = useQueryClient();
  const canEdit = useCanEdit();
  const refresh = () => void queryClient.invalidateQueries();
  const end = useMutation({
    mutationFn: (adopt: string | null) => endExperiment(campaignId, adopt),
    onSuccess: ({ before }, adopt) => {
      refresh();
      const undo = async () => {
        const { revision } = await queryClient.fetchQuery(campaignQuery(campaignId));
        const saved = await saveDraft(campaignId, revision, before);
        await publishCampaign(campaignId, { revision: saved.revision });
        refresh();
        tell('It is divided again as before. Counting begins anew.');
      };
      tell(
        adopt === null
          ? 'Stopped. Everybody gets the present one.'
          : `Everybody gets variant ${adopt.toUpperCase()} now.`,
        () => void undo().catch(tellProblem),
      );
    },
    onError: tellProblem,
  });
  const { arms = [] } = experiment.days.at(-1) ?? {};
  const { seen } = verdictOfExperiment(experiment);
  const counting = arms.reduce((sum, { visitors }) => sum + visitors, 0);
  return (
    <div className="grid gap-4 rounded border border-line bg-sheet p-5">
      <div className="flex items-start gap-6">
        <div className="mr-auto grid gap-1">
          <h2 className="font-serif text-xl">Experiment</h2>
          <p role="status" className="max-w-3xl font-serif text-lg leading-snug">
            {experimentSentence(experiment)}
          </p>
          <p className="text-xs text-soft">
            {aimWords(experiment)} Since {when.format(new Date(experiment.startedAt))}.{' '}
            {counted(experiment.entered, 'visitor')} entered, {figure(counting)} count: each does when{' '}
            {counted(experiment.windowHours, 'hour')} after the first showing are over.{' '}
            {seen === null
              ? 'It runs without an end, and may be looked at at any time.'
              : `${percent(seen)} of the planned visitors; it may be looked at every day.`}{' '}
            {notInTrialWords(experiment)}
          </p>
        </div>
        {canEdit && (
          <Menu
            items={[
              ...(arms.length > 0 ? arms : []).map(({ id }, at) => ({
                label:
                  at === 0
                    ? 'Keep the present one for everybody'
                    : `Give variant ${id.toUpperCase()} to everybody`,
                onSelect: () => end.mutate(at === 0 ? null : id),
              })),
              ...(arms.length === 0 ? [{ label: 'Stop it', onSelect: () => end.mutate(null) }] : []),
            ]}
          >
            <Button isBusy={end.isPending}>End it …</Button>
          </Menu>
        )}
      </div>
      <Arms experiment={experiment} />
      <Evidence experiment={experiment} />
    </div>
  );
}

function Arms({ experiment }: { readonly experiment: Experiment }) {
  const { arms = [] } = experiment.days.at(-1) ?? {};
  const [present] = arms;
  if (!present) return null;
  const scaleTo = rateScale(arms);
  return (
    <WideTable caption="What each variant did" className="min-w-3xl max-w-5xl">
      <Heads
        heads={[
          { words: 'Variant' },
          { words: 'Share', isFigure: true },
          { words: 'Visitors', isFigure: true },
          { words: 'Converted', isFigure: true },
          { words: 'Rate of visitors', className: 'w-56' },
          { words: 'As description only', className: 'w-64' },
        ]}
      />
      <tbody>
        {arms.map((arm, at) => (
          <tr key={arm.id} className="border-b border-line align-top">
            <th scope="row" className="py-2 font-medium">
              {arm.id.toUpperCase()}{' '}
              {at === 0 && <span className="text-xs font-normal text-soft">the present one</span>}
            </th>
            <td className="py-2 pl-4 text-right">{arm.weight} %</td>
            <td className="py-2 pl-4 text-right">{figure(arm.visitors)}</td>
            <td className="py-2 pl-4 text-right">{figure(arm.converters)}</td>
            <td className="py-2 pl-6">
              <Rate {...arm} scaleTo={scaleTo} />
            </td>
            <td className="py-2 pl-6 text-xs text-soft">
              {at > 0 &&
                `${chanceWords(probabilityBetter(present, arm))} likely to be better; choosing it wrongly would cost ${costWords(costOfChoosing(present, arm))}`}
            </td>
          </tr>
        ))}
      </tbody>
    </WideTable>
  );
}
