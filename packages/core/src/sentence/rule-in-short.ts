import type { Audience, Pages } from '@velarium/contract';
import { DEVICES } from '@velarium/contract/values';
import { capsWords } from './limits-words.ts';
import { momentWords } from './moment-words.ts';
import { type Names, NO_NAMES } from './names.ts';
import { audienceWords, devicesWords, pagesWords, pageWords } from './reach-words.ts';
import { placeWords, type SentenceInput } from './rule-sentence.ts';
import { capital, counted } from './words.ts';

/** Conditions that are still read at a glance. */
const FEW = 2;

/**
 * What a rule comes to, for a row among many: what, when, where, to whom and how often. What stays away after which answer,
 * and who gives way, is left to the whole sentence; long lists say their first and how many more there are. Where its place
 * is seen it need not be said.
 */
export function ruleInShort(
  { format, anchor, rule }: Pick<SentenceInput, 'format' | 'anchor' | 'rule'>,
  names: Names = NO_NAMES,
  isPlaceSeen = false,
): string {
  const { moment, reach, limits } = rule;
  const said = [
    ...(isPlaceSeen ? [] : [placeWords(format, anchor)]),
    momentWords(moment),
    pagesInShort(reach.pages, names),
    ...(reach.devices.length === DEVICES.length ? [] : [devicesWords(reach.devices)]),
    ...(reach.audience === null ? [] : [audienceInShort(reach.audience, names)]),
    capsWords(limits.caps, null),
  ].join(', ');
  return capital(said);
}

function pagesInShort(pages: Pages, names: Names): string {
  const { include, exclude, follows } = pages;
  const [first] = include;
  if (!first || include.length + exclude.length + (follows === null ? 0 : 1) === 1)
    return pagesWords(pages, names);
  const others = include.length - 1 + (follows === null ? 0 : 1);
  return [
    `on ${pageWords(first, names)}`,
    ...(others > 0 ? [`and ${counted(others, 'more place', 'more places')}`] : []),
    ...(exclude.length > 0 ? [`but ${counted(exclude.length, 'exception')}`] : []),
  ].join(' ');
}

function audienceInShort(audience: Audience, names: Names): string {
  const conditions = audience.groups.flatMap(({ items }) => items);
  return conditions.length <= FEW
    ? audienceWords(audience, names)
    : `for some visitors (${counted(conditions.length, 'condition')})`;
}
