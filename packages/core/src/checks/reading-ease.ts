/** Syllables of an English word by its groups of vowels; a silent e at the end is none. Common practice. */
export function syllables(word: string): number {
  const letters = word.toLowerCase().replace(/[^a-z]/g, '');
  if (letters.length <= 3) return letters === '' ? 0 : 1;
  const stem = letters.replace(/(?:[^laeiouy]es|[^aeiouytd]ed|[^laeiouy]e)$/, '').replace(/^y/, '');
  return Math.max(1, stem.match(/[aeiouy]{1,2}/g)?.length ?? 1);
}

/**
 * How easily a text reads: 100 and over very easily, below 30 hardly. `undefined` for fewer than 20 words, of which
 * nothing can be said. Source: R. Flesch, A new readability yardstick, Journal of Applied Psychology 32 (1948).
 */
export function readingEase(text: string): number | undefined {
  const words = text.match(/[\p{L}\p{N}’'-]+/gu) ?? [];
  if (words.length < 20) return undefined;
  return fleschEase({
    words: words.length,
    sentences: Math.max(1, text.split(/[.!?…]+(?:\s|$)|\n+/).filter((part) => /\p{L}/u.test(part)).length),
    syllables: words.reduce((sum, word) => sum + syllables(word), 0),
  });
}

export const fleschEase = (counts: { words: number; sentences: number; syllables: number }): number =>
  206.835 - 1.015 * (counts.words / counts.sentences) - 84.6 * (counts.syllables / counts.words);
