import { FURTHER_WORDS, type OwnWords } from '@velarium/core/message';

/** What a message says of itself. */
export const said = (word: keyof typeof FURTHER_WORDS, words: OwnWords = {}): string =>
  words[word] ?? FURTHER_WORDS[word];
