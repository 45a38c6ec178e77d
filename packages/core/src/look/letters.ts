import type { Font, LookStyle } from '@velarium/contract';
import { FONTS } from '@velarium/contract/values';
import { FONT_STACKS } from './looks.ts';

const isKind = (font: string): font is Font => (FONTS as readonly string[]).includes(font);

/** What stands in a sheet for what words are set in. */
export const fontStack = (font: string): string => (isKind(font) ? FONT_STACKS[font] : font);

/** Families that name no letters but a kind of them, or what the system has. Source: CSS Fonts Level 4, generic families. */
export const GENERIC =
  /^(serif|sans-serif|monospace|cursive|fantasy|system-ui|math|ui-[a-z-]+|-apple-system|BlinkMacSystemFont)$/i;

/** The families of a value, as CSS writes them in a list. */
export const familiesOf = (value: string): string[] =>
  (value.match(/"[^"]*"|'[^']*'|[^,]+/g) ?? [])
    .map((one) => one.trim())
    .filter((one) => one !== '' && one !== ',');

/** A family's name without its quotes. */
export const plainFamily = (family: string): string => family.replace(/^["']|["']$/g, '');

/** The name of the first family, as people call it; nothing where it is but a kind. */
export function firstFamily(font: string): string | undefined {
  if (isKind(font)) return undefined;
  const [first = ''] = familiesOf(font);
  return GENERIC.test(first) ? undefined : plainFamily(first);
}

const LETTERS = /"velarium ([0-9a-f]{16})"/g;
/** Letters of the site's own that a Look is set in, each once. */
export const lettersOf = ({ fonts }: Pick<LookStyle, 'fonts'>): string[] => [
  ...new Set(
    [fonts.text, fonts.heading].flatMap((font) => [...font.matchAll(LETTERS)].map(([, id = '']) => id)),
  ),
];

/**
 * A Look that asks for letters by the very files of them that are there, and after these by their own names: two messages on a page
 * may load different parts of one family. `fileOf` gives the name under which a file is known, where there is one.
 */
export function withFiles(look: LookStyle, fileOf: (id: string) => string | undefined): LookStyle {
  const named = (font: string) =>
    font.replace(LETTERS, (own, id: string) => {
      const file = fileOf(id);
      return file === undefined ? own : `"${file}", ${own}`;
    });
  return { ...look, fonts: { text: named(look.fonts.text), heading: named(look.fonts.heading) } };
}

/** The kind of letters that named ones are nearest to, told by words in their names (common practice). */
export function nearestFont(names: string): Font {
  const words = names.toLowerCase();
  if (/mono|courier|consol/.test(words)) return 'mono';
  if (/condensed|narrow/.test(words)) return 'narrow';
  if (/round/.test(words)) return 'round';
  if (/(?<!sans[- ]?)serif|georgia|times|palatino|garamond|slab/.test(words)) return 'serif';
  return 'sans';
}
