import type { CampaignDocument } from '@velarium/contract';
import {
  changedPlaces,
  documentSentence,
  findBlock,
  languageName,
  type Names,
  sentenceText,
} from '@velarium/core';
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
  if (part === 'trial') return 'How its variants are tried';
  if (side === 'languages') {
    const language = path.split('.')[LANGUAGE_AT];
    return language ? `Its texts in ${languageName(language)}` : 'Its languages';
  }
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
  const translated = translatedAt(path, document);
  if (translated !== undefined) return translated;
  const value = path.split('.').reduce<unknown>(stepInto, document);
  if (value === undefined || value === null) return 'Not there.';
  return wordsIn(value).join(' ') || 'Set in another way.';
}

/** Where a path into the texts of another language names it: `message.languages.others.cy.texts.title.text.text`. */
const LANGUAGE_AT = 3;

/** A text in another language, whose key has dots of its own. */
function translatedAt(path: string, { message }: CampaignDocument): string | undefined {
  const [, id, key] = /^message\.languages\.others\.([\w-]+)\.texts\.(.+)$/.exec(path) ?? [];
  if (id === undefined || key === undefined) return undefined;
  const texts = message.languages?.others.find((one) => one.id === id)?.texts;
  // The path may lead on to what the text says, or to what it was written for.
  return (texts?.[key] ?? texts?.[key.replace(/\.(?:text|of)$/, '')])?.text ?? 'Not there.';
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
