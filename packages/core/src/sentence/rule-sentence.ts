import type { Anchor, Cap, Device, Format, Moment, PageRule, Pages, Rule } from '@velarium/contract';
import { DEVICES } from '@velarium/contract/values';
import {
  ANCHOR_WORDS,
  DEVICE_WORDS,
  everySpan,
  FORMAT_WORDS,
  listOf,
  pauseWords,
  quantity,
} from './words.ts';

/** The part of a campaign that a phrase speaks of; opening the phrase opens that part's control. */
export type SentencePart =
  | 'place'
  | 'moment'
  | 'pages'
  | 'devices'
  | 'caps'
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
 * never read the same: addresses stand in full, and every number and list is said.
 */
export function ruleSentence({ format, anchor, rule }: SentenceInput): Phrase[] {
  const link = (text: string): Phrase => ({ text, part: null });
  return [
    { text: placeWords(format, anchor), part: 'place' },
    link(' opens '),
    { text: momentWords(rule.moment), part: 'moment' },
    link(' '),
    { text: pagesWords(rule.reach.pages), part: 'pages' },
    link(', '),
    { text: devicesWords(rule.reach.devices), part: 'devices' },
    link(', '),
    { text: capsWords(rule.limits.caps), part: 'caps' },
    link('. After a close '),
    { text: pauseWords(rule.limits.afterClose), part: 'afterClose' },
    link('; after a conversion '),
    { text: pauseWords(rule.limits.afterConversion), part: 'afterConversion' },
    link('.'),
  ];
}

export const sentenceText = (phrases: readonly Phrase[]): string =>
  phrases.map((phrase) => phrase.text).join('');

function placeWords(format: Format, anchor: Anchor): string {
  const name = FORMAT_WORDS[format];
  if (format === 'fullscreen') return `A ${name}`;
  if (format === 'slidein') return `A ${name} from the ${ANCHOR_WORDS[anchor]}`;
  return `A ${name} ${anchor === 'center' ? 'in' : 'at'} the ${ANCHOR_WORDS[anchor]}`;
}

function momentWords({ triggers }: Moment): string {
  return listOf(
    triggers.map(({ seconds }) => (seconds === 0 ? 'at once' : `after ${quantity(seconds, 'second')}`)),
  );
}

const pageWords = (page: PageRule): string => (page.kind === 'every' ? 'every page' : page.address);

function pagesWords({ include, exclude }: Pages): string {
  if (include.length === 0)
    return exclude.length === 0
      ? 'on no page yet'
      : `on no page yet, never on ${listOf(exclude.map(pageWords))}`;
  const isEvery = include.length === 1 && include[0]?.kind === 'every';
  const included = isEvery ? 'on every page' : `only on ${listOf(include.map(pageWords))}`;
  return exclude.length === 0 ? included : `${included} but not on ${listOf(exclude.map(pageWords))}`;
}

function devicesWords(devices: readonly Device[]): string {
  const named = DEVICES.filter((device) => devices.includes(device));
  if (named.length === 0) return 'on no device yet';
  if (named.length === DEVICES.length) return 'on every device';
  return `on ${listOf(named.map((device) => DEVICE_WORDS[device]))} only`;
}

function capsWords(caps: readonly Cap[]): string {
  if (caps.length === 0) return 'every time a page is opened';
  return listOf(caps.map(capWords));
}

function capWords({ max, per }: Cap): string {
  const often = max === 1 ? 'once' : `at most ${max} times`;
  if (per === 'session') return `${often} per session`;
  if (per === 'ever') return `${often} per visitor`;
  return `${often} ${everySpan(per)}`;
}
