import type { CampaignDocument, Experiment, Moment, Trial, TrialForecast } from '@velarium/contract';
import { isSame } from '../merge/is-same.ts';
import { capital, counted, figure } from '../sentence/words.ts';
import type { ConversionCounts } from '../statistics/conversion-rate.ts';
import { daysToGo, type ExperimentVerdict, experimentVerdict } from '../statistics/experiment.ts';
import { visitorsASide } from '../statistics/sample-size.ts';
import { percent } from './words.ts';

/** As variants are tried where nobody has said how. */
export const DEFAULT_TRIAL: Trial = { smallest: 2, isPlanned: true };
/** What is taken for the rate where nobody has met the campaign yet. */
const UNKNOWN_RATE = 0.05;
/** An experiment that takes longer than this never ends as far as anybody plans. */
const MOST_DAYS = 3650;

/** How many visitors a trial takes, and how many days at the campaign's own traffic. */
export function trialForecast(
  { visitors, converters, days }: ConversionCounts & { readonly days: number },
  { smallest }: Trial,
  arms: number,
): TrialForecast {
  const rate = visitors === 0 ? null : Math.min(1, converters / visitors);
  const now = rate ?? UNKNOWN_RATE;
  // Upwards, unless there is no room above.
  const wanted = now + smallest / 100 <= 1 ? now + smallest / 100 : now - smallest / 100;
  const aSide = visitorsASide({ rate: now, wanted, alpha: 0.05 / Math.max(1, arms - 1) });
  const perDay = days === 0 ? 0 : visitors / days;
  const needed = aSide === null || perDay === 0 ? null : Math.ceil((aSide * arms) / perDay);
  return {
    rate,
    visitorsADay: perDay,
    visitorsASide: aSide,
    days: needed === null || needed > MOST_DAYS ? null : needed,
  };
}

/** What a trial takes, in a sentence. */
export function trialForecastWords({
  rate,
  visitorsADay,
  visitorsASide: aSide,
  days,
}: TrialForecast): string {
  if (aSide === null) return 'No number of visitors tells so little apart. Choose a larger difference.';
  const takes = `It takes ${counted(aSide, 'visitor')} a variant`;
  if (rate === null)
    return `${takes}, if about ${percent(UNKNOWN_RATE)} convert. Nobody has met the campaign yet, so nobody can say how many days that is.`;
  if (days === null)
    return `${takes}; with ${figure(Math.round(visitorsADay))} a day it would never end. Try for a larger difference, or on more pages.`;
  return `${takes}: with ${figure(Math.round(visitorsADay))} a day, about ${counted(days, 'day')}.`;
}

export const verdictOfExperiment = (experiment: Experiment): ExperimentVerdict =>
  experimentVerdict(experiment.days, {
    visitorsASide: experiment.visitorsASide,
    smallest: experiment.smallest,
  });

const name = (id: string | null): string => `variant ${(id ?? '').toUpperCase()}`;
const points = (share: number): string => Math.abs(share * 100).toFixed(1);

/** What counts in an experiment, to end a sentence with; nothing where it is the message's own answer or click. */
export const aimWords = ({ goal }: Pick<Experiment, 'goal'>): string =>
  goal ? `Who reaches “${goal.name}” within ${counted(goal.days, 'day')} of the showing counts.` : '';

/** Who was left out of an experiment, to end a sentence with; nothing where nobody was. */
export function notInTrialWords({ undivided, robots }: Pick<Experiment, 'undivided' | 'robots'>): string {
  const parts = [
    ...(undivided > 0
      ? [
          `${counted(undivided, 'visitor')} whose browser remembers nothing, or whose page was older than the experiment (they had the present one)`,
        ]
      : []),
    ...(robots > 0 ? [counted(robots, 'showing to robots', 'showings to robots')] : []),
  ];
  return parts.length === 0 ? '' : `Left out: ${parts.join('; ')}.`;
}

/** What an experiment says, in one sentence a person can act on; right whenever one looks. */
export function experimentSentence(experiment: Experiment): string {
  const { code, arm, look, seen, stories } = verdictOfExperiment(experiment);
  // One that has ended is only told of.
  const stop = experiment.endedAt === null ? ' It can be stopped here.' : '';
  switch (code) {
    case 'nothing':
      return experiment.entered === 0
        ? 'Nobody has entered it yet.'
        : `${counted(experiment.entered, 'visitor')} entered it; none counts yet, for each is waited for over ${counted(experiment.windowHours, 'hour')}.`;
    case 'division':
      return 'Visitors are not divided as they were drawn, so no winner is named. Likely reasons: one variant fails on some browsers, robots, or a page that keeps one of them from opening.';
    case 'better': {
      const now = stories.find(({ id }) => id === arm)?.looks.at(-1) ?? look;
      return `${capital(name(arm))} is better, by ${points(look?.low ?? 0)} to ${points(look?.high ?? 0)} points on the day it was sure${
        now && look && now.day !== look.day ? ` (${points(now.low)} to ${points(now.high)} by now)` : ''
      }.${stop}`;
    }
    case 'present':
      return stories.length === 1
        ? `The present one is better than ${name(arm)}, by ${points(look?.high ?? 0)} to ${points(look?.low ?? 0)} points.${stop}`
        : `The present one is better than every other.${stop}`;
    case 'noDifference':
      return `There is no difference worth having: whatever there is, is less than ${points(experiment.smallest)} points.${stop}`;
    case 'undecided':
      return 'Its plan is seen to the end and nothing is sure. Keep what you like better, or try something that differs more.';
    default: {
      const days = daysToGo(experiment.days, experiment.visitorsASide);
      const reach = look
        ? ` So far ${name(arm)} lies between ${signed(look.low)} and ${signed(look.high)} points of the present one.`
        : '';
      return `Not yet.${reach}${
        seen === null
          ? ' It runs without an end.'
          : days === null
            ? ''
            : ` About ${counted(days, 'day')} to go, if as many visitors keep coming.`
      }`;
    }
  }
}

const signed = (share: number): string => `${share < 0 ? '−' : '+'}${points(share)}`;

type Variant = CampaignDocument['variants'][number];

/** The first letter that no variant has. */
export const nextVariant = (variants: readonly Variant[]): string =>
  [...'bcdefgh'].find((letter) => variants.every(({ id }) => id !== letter)) ?? 'h';

/** Another campaign's message as a variant, with its moment where that differs. */
export const variantOf = (id: string, { message, rule }: CampaignDocument, present: Moment): Variant => ({
  id,
  weight: 0,
  message,
  ...(isSame(rule.moment, present) ? {} : { moment: rule.moment }),
});

/** Shared out evenly among them and the present one, which has what is left over. */
export const evenShares = (variants: readonly Variant[]): Variant[] =>
  variants.map((variant) => ({ ...variant, weight: Math.floor(100 / (variants.length + 1)) }));
