/** Words every English text is full of; a text without them is in another language, of which the formula says nothing. */
const ENGLISH: ReadonlySet<string> = new Set(
  'the a an and or of to in on at for with from by as is are was be it its this that we our you your they not no if when what how all one have has will can more up'.split(
    ' ',
  ),
);
/** Share of them in English at least (common practice: they are about half of running text). */
const LEAST_ENGLISH = 0.15;
/** Fewer words say nothing. */
const LEAST_WORDS = 20;

/** Silent letters, and beginnings whose middle is not heard, as [what is written, what is spoken]. */
const SILENT: readonly (readonly [RegExp, string])[] = [
  [
    /([aeiouy]l|[^aeiouyl])e(?=(?:s|ly|less|ful|ments?|ness|times|where|ways)?$)(?<!(?:[sxzcg]|[cs]h)e(?=s$))/,
    '$1',
  ],
  [/(?<=[^aeiouytd])ed$|(?<=[uy])ed$/, 'd'],
  [/^every/, 'evry'],
  [/^some(?=.)/, 'som'],
  [/^y/, ''],
];
/** Vowels side by side that are spoken as two. */
const SPLIT =
  /i[ao](?!n$|ns$|u|l$|nal|ned|ning)|(?<![tcsgx])i(?:on|al|ous)|[^aeiou]ia[nt]|eo(?!us)|(?<![qg])u[aio](?!r[dt])|ying|[aeo]ing|iu|ie[tn]|rea(?=ct|te|ti|l)|sm$/g;

/** Syllables of an English word by its groups of vowels; what is silent is none. Common practice. */
export function syllables(word: string): number {
  const letters = word.toLowerCase().replace(/[^a-z]/g, '');
  if (letters.length <= 2) return letters === '' ? 0 : 1;
  const spoken = SILENT.reduce((text, [written, heard]) => text.replace(written, heard), letters);
  const groups = spoken.match(/[aeiouy]+/g)?.length ?? 1;
  return Math.max(1, groups + (spoken.match(SPLIT)?.length ?? 0));
}

/**
 * How easily a text reads: 100 and over very easily, below 30 hardly. `undefined` for fewer than 20 words, and for what
 * is not English: the formula knows no other language. Source: R. Flesch, A new readability yardstick, Journal of Applied
 * Psychology 32 (1948).
 */
export function readingEase(text: string): number | undefined {
  const words = text.match(/[\p{L}\p{N}’'-]+/gu) ?? [];
  const common = words.filter((word) => ENGLISH.has(word.toLowerCase())).length;
  if (words.length < LEAST_WORDS || common / words.length < LEAST_ENGLISH) return undefined;
  return fleschEase({
    words: words.length,
    sentences: Math.max(1, text.split(/[.!?…]+(?:\s|$)|\n+/).filter((part) => /\p{L}/u.test(part)).length),
    syllables: words.reduce((sum, word) => sum + syllables(word), 0),
  });
}

export const fleschEase = (counts: { words: number; sentences: number; syllables: number }): number =>
  206.835 - 1.015 * (counts.words / counts.sentences) - 84.6 * (counts.syllables / counts.words);
