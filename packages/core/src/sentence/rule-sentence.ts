import type { Anchor, Audience, CampaignDocument, Close, Format, Rule, Schedule } from '@velarium/contract';
import { NORMAL_PRIORITY } from '@velarium/contract/values';
import { capsWords, experimentWords, priorityWords, scheduleWords } from './limits-words.ts';
import { momentWords } from './moment-words.ts';
import { type Names, NO_NAMES } from './names.ts';
import { audienceWords, devicesWords, pagesWords } from './reach-words.ts';
import { ANCHOR_WORDS, FORMAT_WORDS, pauseWords, quantity } from './words.ts';

/** The part of a campaign that a phrase speaks of; opening the phrase opens that part's control. */
export type SentencePart =
  | 'place'
  | 'moment'
  | 'pages'
  | 'devices'
  | 'audience'
  | 'schedule'
  | 'caps'
  | 'busy'
  | 'priority'
  | 'memory'
  | 'experiment'
  | 'closing'
  | 'afterClose'
  | 'afterNo'
  | 'afterConversion';

export interface Phrase {
  readonly text: string;
  /** `null` for the words between phrases. */
  readonly part: SentencePart | null;
}

export interface SentenceInput {
  readonly format: Format;
  readonly anchor: Anchor;
  readonly closing: Pick<Close, 'afterSeconds' | 'means'>;
  readonly rule: Rule;
  readonly variants: readonly { readonly id: string; readonly weight: number }[];
}

/**
 * A campaign's whole behaviour as one English sentence, cut into phrases. Two campaigns that behave differently
 * never read the same: addresses stand in full, and every number and list is said. What a campaign does not use
 * (audience, schedule, giving way) is left out, which is as plain.
 */
export function ruleSentence(
  { format, anchor, closing, rule, variants }: SentenceInput,
  names: Names = NO_NAMES,
): Phrase[] {
  const { moment, reach, limits } = rule;
  const link = (text: string): Phrase => ({ text, part: null });
  const optional = (isSaid: boolean, part: SentencePart, write: () => string): Phrase[] =>
    isSaid ? [link(', '), { text: write(), part }] : [];
  return [
    { text: placeWords(format, anchor), part: 'place' },
    link(' opens '),
    { text: momentWords(moment), part: 'moment' },
    // What is said of the moment in parts has come to its end.
    link(moment.notBeforeSeconds > 0 || moment.againAfterSeconds !== null ? ', ' : ' '),
    { text: pagesWords(reach.pages, names), part: 'pages' },
    link(', '),
    { text: devicesWords(reach.devices), part: 'devices' },
    ...optional(reach.audience !== null, 'audience', () => audienceWords(reach.audience as Audience, names)),
    ...optional(limits.schedule !== null, 'schedule', () => scheduleWords(limits.schedule as Schedule)),
    link(', '),
    { text: capsWords(limits.caps, limits.stopAfterUnanswered), part: 'caps' },
    ...optional(limits.whenBusy === 'yield', 'busy', () => 'giving way when another message has the floor'),
    ...optional(limits.priority !== NORMAL_PRIORITY, 'priority', () => priorityWords(limits.priority)),
    ...optional(limits.withoutMemory !== 'whenUncapped', 'memory', () =>
      limits.withoutMemory === 'always'
        ? 'even where nothing can be remembered'
        : 'never where nothing can be remembered',
    ),
    ...optional(limits.holdout > 0 || variants.length > 0, 'experiment', () =>
      experimentWords(limits.holdout, variants),
    ),
    ...(closing.afterSeconds === null
      ? []
      : [
          link('. It closes '),
          { text: `by itself after ${quantity(closing.afterSeconds, 'second')}`, part: 'closing' as const },
        ]),
    link('. After a close'),
    ...(closing.means === 'no'
      ? [link(', '), { text: 'which counts as a no', part: 'closing' as const }, link(', ')]
      : [link(' ')]),
    { text: pauseWords(limits.afterClose), part: 'afterClose' },
    ...(limits.afterNo === 'none'
      ? []
      : [link('; after a no '), { text: pauseWords(limits.afterNo), part: 'afterNo' as const }]),
    link('; after a conversion '),
    { text: pauseWords(limits.afterConversion), part: 'afterConversion' },
    link('.'),
  ];
}

/** The same of a whole campaign document. */
export const documentSentence = ({ message, rule, variants }: CampaignDocument, names?: Names): Phrase[] =>
  ruleSentence(
    { format: message.format, anchor: message.anchor, closing: message.close, rule, variants },
    names,
  );

export const sentenceText = (phrases: readonly Phrase[]): string =>
  phrases.map((phrase) => phrase.text).join('');

export function placeWords(format: Format, anchor: Anchor): string {
  const name = FORMAT_WORDS[format];
  if (format === 'fullscreen') return `A ${name}`;
  if (format === 'slidein') return `A ${name} from the ${ANCHOR_WORDS[anchor]}`;
  return `A ${name} ${anchor === 'center' ? 'in' : 'at'} the ${ANCHOR_WORDS[anchor]}`;
}
