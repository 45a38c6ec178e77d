import type { Anchor, Audience, CampaignDocument, Format, Rule, Schedule } from '@velarium/contract';
import { capsWords, scheduleWords } from './limits-words.ts';
import { momentWords } from './moment-words.ts';
import { audienceWords, devicesWords, pagesWords } from './reach-words.ts';
import { ANCHOR_WORDS, FORMAT_WORDS, pauseWords } from './words.ts';

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
  | 'afterClose'
  | 'afterConversion';

export interface Phrase {
  readonly text: string;
  /** `null` for the words between phrases. */
  readonly part: SentencePart | null;
}

export interface SentenceInput {
  readonly format: Format;
  readonly anchor: Anchor;
  readonly rule: Rule;
}

/**
 * A campaign's whole behaviour as one English sentence, cut into phrases. Two campaigns that behave differently
 * never read the same: addresses stand in full, and every number and list is said. What a campaign does not use
 * (audience, schedule, giving way) is left out, which is as plain.
 */
export function ruleSentence({ format, anchor, rule }: SentenceInput): Phrase[] {
  const { moment, reach, limits } = rule;
  const link = (text: string): Phrase => ({ text, part: null });
  const optional = (isSaid: boolean, part: SentencePart, write: () => string): Phrase[] =>
    isSaid ? [link(', '), { text: write(), part }] : [];
  return [
    { text: placeWords(format, anchor), part: 'place' },
    link(' opens '),
    { text: momentWords(moment), part: 'moment' },
    link(' '),
    { text: pagesWords(reach.pages), part: 'pages' },
    link(', '),
    { text: devicesWords(reach.devices), part: 'devices' },
    ...optional(reach.audience !== null, 'audience', () => audienceWords(reach.audience as Audience)),
    ...optional(limits.schedule !== null, 'schedule', () => scheduleWords(limits.schedule as Schedule)),
    link(', '),
    { text: capsWords(limits.caps, limits.stopAfterUnanswered), part: 'caps' },
    ...optional(limits.whenBusy === 'yield', 'busy', () => 'giving way when another message has the floor'),
    link('. After a close '),
    { text: pauseWords(limits.afterClose), part: 'afterClose' },
    link('; after a conversion '),
    { text: pauseWords(limits.afterConversion), part: 'afterConversion' },
    link('.'),
  ];
}

/** The same of a whole campaign document. */
export const documentSentence = ({ message, rule }: CampaignDocument): Phrase[] =>
  ruleSentence({ format: message.format, anchor: message.anchor, rule });

export const sentenceText = (phrases: readonly Phrase[]): string =>
  phrases.map((phrase) => phrase.text).join('');

function placeWords(format: Format, anchor: Anchor): string {
  const name = FORMAT_WORDS[format];
  if (format === 'fullscreen') return `A ${name}`;
  if (format === 'slidein') return `A ${name} from the ${ANCHOR_WORDS[anchor]}`;
  return `A ${name} ${anchor === 'center' ? 'in' : 'at'} the ${ANCHOR_WORDS[anchor]}`;
}
