import type { Font } from '@velarium/contract';

/** The kind of letters that named ones are nearest to, told by words in their names (common practice). */
export function nearestFont(names: string): Font {
  const words = names.toLowerCase();
  if (/mono|courier|consol/.test(words)) return 'mono';
  if (/condensed|narrow/.test(words)) return 'narrow';
  if (/round/.test(words)) return 'round';
  if (/(?<!sans[- ]?)serif|georgia|times|palatino|garamond|slab/.test(words)) return 'serif';
  return 'sans';
}
