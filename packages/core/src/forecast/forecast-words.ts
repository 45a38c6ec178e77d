import { clockWords } from '../rehearsal/expectations.ts';
import { counted, figure } from '../sentence/words.ts';
import type { Verdict } from '../verdict/verdict.ts';
import type { ReachGain } from './forecast.ts';
import type { CampaignForecast } from './tally.ts';
import type { WayStepId } from './way.ts';

/** A count that says which way it goes. */
const signed = (count: number): string =>
  `${count < 0 ? '−' : count > 0 ? '+' : ''}${figure(Math.abs(count))}`;

/** A gain over what is now, with its interval: `+120 visitors (+90 to +150)`; `as now` where nobody is told apart. */
export function gainWords({ value, low, high }: Pick<ReachGain, 'value' | 'low' | 'high'>): string {
  if (value === 0 && low <= 0 && high >= 0) return 'as now';
  return `${signed(value)} (${signed(low)} to ${signed(high)}) against now`;
}

/** What a change would win, as a share of what is reached without it: `+41 % (+38 to +44)`. */
export function gainShareWords(
  { value, low, high }: Pick<ReachGain, 'value' | 'low' | 'high'>,
  reached: number,
): string {
  if (reached === 0) return value === 0 ? 'nothing' : `${figure(value)} instead of none`;
  const share = (count: number) => signed(Math.round((count / reached) * 100));
  return `${share(value)} % (${share(low)} to ${share(high)})`;
}

/** What another rule reaches beside the draft's, of the same visits: `The other reaches 171 visitors fewer: −9 % (−10 to −7), on the same visits.` */
export function besideWords(gain: Pick<ReachGain, 'value' | 'low' | 'high'>, reached: number): string {
  const { value } = gain;
  const difference =
    value === 0
      ? 'as many visitors'
      : `${counted(Math.abs(value), 'visitor')} ${value > 0 ? 'more' : 'fewer'}`;
  return `The other reaches ${difference}: ${gainShareWords(gain, reached)}, on the same visits.`;
}

/** `1,234 of 11,690 visitors would meet it (1,180 to 1,290), 1.2 times each, half of them by 0:12 of a page.` */
export function forecastWords({ reached, showings, second }: CampaignForecast, visitors: number): string {
  if (reached.value === 0 || second === null) return `none of ${counted(visitors, 'visitor')} would meet it.`;
  const each = (showings.value / reached.value).toFixed(1);
  return `${figure(reached.value)} of ${counted(visitors, 'visitor')} would meet it (${figure(reached.low)} to ${figure(reached.high)}), ${each} times each, half of the times by ${clockWords(second)} of a page.`;
}

export const WAY_TO_WORDS: Readonly<Record<WayStepId, string>> = {
  came: 'Visitors of the site',
  covered: 'came to its pages at its times',
  audience: 'are in its audience',
  moment: 'were there when its moment came',
  shown: 'would have met it',
};

/** Of visitors who came no further: what kept them. */
export const KEPT_WORDS: Readonly<Record<Verdict['code'], string>> = {
  'blocked:schedule.before': 'came before it begins',
  'blocked:schedule.closed': 'came at times its schedule leaves out',
  'blocked:schedule.after': 'came after its end',
  'blocked:page.nowhere': 'could not: its rule names no page',
  'blocked:page.unmatched': 'saw none of its pages',
  'blocked:page.excluded': 'saw only pages that are taken out of its pages',
  'blocked:device': 'came on a device it is not meant for',
  'blocked:audience': 'are not in its audience',
  'blocked:memory': 'cannot be remembered, which its limits need',
  'blocked:cap.converted': 'had converted already',
  'blocked:cap.refused': 'had said no',
  'blocked:cap.closed': 'had closed it',
  'blocked:cap.unanswered': 'had left it unanswered often enough',
  'blocked:cap.showings': 'had seen it as often as it may be seen',
  'blocked:page.view': 'had it once on the page already',
  'blocked:unreachable': 'could not: its message was not to be had',
  'blocked:yielded': 'met another message that goes first',
  'waiting:trigger': 'left before its moment came',
  'blocked:limit.pageView': 'had met all the messages the site allows on a page view',
  'blocked:limit.session': 'had met all the messages the site allows in a session',
  'blocked:limit.day': 'had met all the messages the site allows in a day',
  'blocked:limit.gap': 'had met another message too short a time before',
  'waiting:floor': 'had another message before them',
  'held:holdout': 'are among those it is held back from',
  ready: 'left as it opened',
  shown: 'met it',
};
