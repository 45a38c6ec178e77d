import type { CampaignDocument } from '@velarium/contract';
import { changedPlaces, documentSentence, findBlock, type Names, sentenceText } from '@velarium/core';
import { BLOCK_WORDS, blockWords } from './message/block-names.tsx';

/** Where in a campaign a path of its document points, as a person would say it. */
export function placeWords(path: string, { message }: CampaignDocument): string {
  const [part, side] = path.split('.');
  if (part === 'rule')
    return side === 'moment'
      ? 'Moment: when it opens'
      : side === 'reach'
        ? 'Reach: where and to whom'
        : 'Limits: how often';
  const [block] = path
    .split('.')
    .flatMap((step) => findBlock(message, step) ?? [])
    .reverse();
  if (block) return `${BLOCK_WORDS[block.kind]} “${blockWords(block)}”`;
  return side === 'steps' ? 'The steps of the message' : 'The box of the message';
}

/** What a document says at a path, as a person would read it. */
export function valueWords(path: string, document: CampaignDocument, names: Names): string {
  if (path.startsWith('rule')) return sentenceText(documentSentence(document, names));
  const value = path.split('.').reduce<unknown>(stepInto, document);
  if (value === undefined || value === null) return 'Not there.';
  return wordsIn(value).join(' ') || 'Set in another way.';
}

const stepInto = (value: unknown, key: string): unknown =>
  Array.isArray(value)
    ? value.find((one) => (one as { id?: string }).id === key)
    : (value as Record<string, unknown> | undefined)?.[key];

function wordsIn(value: unknown): string[] {
  if (typeof value === 'string') return [value];
  if (typeof value === 'number') return [String(value)];
  if (typeof value === 'boolean') return [value ? 'on' : 'off'];
  if (Array.isArray(value)) return value.flatMap(wordsIn);
  const { text, label, blocks } = (value ?? {}) as Record<string, unknown>;
  return [text, label, blocks].flatMap((one) => (one === undefined ? [] : wordsIn(one)));
}

/** The places in which two states of a campaign differ, each said once. */
export const changedWords = (before: CampaignDocument, after: CampaignDocument): string[] => [
  ...new Set(changedPlaces(before, after).map((path) => placeWords(path, after))),
];
