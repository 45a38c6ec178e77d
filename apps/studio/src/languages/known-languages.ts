import { languageName } from '@velarium/core';

/** Offered by name; any other is written as its tag. Source of the tags: ISO 639-1. */
const TAGS =
  'ar bg bn br ca co cs cy da de el en es et eu fa fi fr fy ga gd gl gu gv he hi hr hu hy id is it ja ka kk ko kw lt lv mk ms mt nb nl nn pa pl pt pt-BR ro ru sk sl sq sr sv sw ta th tr uk ur vi zh-Hans zh-Hant'.split(
    ' ',
  );

export const KNOWN_LANGUAGES: readonly { readonly tag: string; readonly name: string }[] = TAGS.map(
  (tag) => ({ tag, name: languageName(tag) }),
).sort((a, b) => a.name.localeCompare(b.name));

/** The tag of a language given by its name or by its tag; `undefined` where it is neither. */
export function tagOf(typed: string): string | undefined {
  const words = typed.trim().toLowerCase();
  const known = KNOWN_LANGUAGES.find(
    ({ tag, name }) => name.toLowerCase() === words || tag.toLowerCase() === words,
  );
  if (known) return known.tag;
  try {
    return Intl.getCanonicalLocales(typed.trim())[0];
  } catch {
    return undefined;
  }
}
