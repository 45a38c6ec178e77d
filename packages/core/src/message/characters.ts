import type { MessageFile } from '@velarium/contract';
import { textOfStep } from '../checks/text-of.ts';

/** Printable ASCII, and the letters of western names. Source: Unicode Basic Latin, Latin-1 Supplement and Latin Extended-A. */
const COMMON = String.fromCharCode(
  ...Array.from({ length: 95 }, (_, n) => 32 + n),
  ...Array.from({ length: 0x180 - 0xa0 }, (_, n) => 0xa0 + n),
);
/** What stands between words, however a text is set. */
const BETWEEN = ' …–—“”‘’';

/**
 * The characters that a message is written with, each once and in their order. Where visitors write into it, or it says what is only
 * known as it opens, what they are likely to be is among them.
 */
export function charactersOf({
  message,
  parts,
  words,
}: Pick<MessageFile, 'message' | 'parts' | 'words'>): string {
  const isOpen = parts.includes('form') || parts.includes('further');
  const written = [
    ...message.steps.map(textOfStep),
    message.close.word,
    ...Object.values(words ?? {}),
    BETWEEN,
    isOpen ? COMMON : '',
  ];
  return [...new Set(written.join(''))]
    .filter((one) => one >= ' ')
    .sort()
    .join('');
}
