/** Scripts that are written from right to left. Source: Unicode, Bidi_Class R and AL of the scripts in modern use. */
const RIGHT_TO_LEFT: ReadonlySet<string> = new Set(['Arab', 'Hebr', 'Syrc', 'Thaa', 'Nkoo', 'Adlm', 'Rohg']);

/** Which way a language is written, by the script most of its texts are in (CLDR, likely subtags). */
export const writingDirection = (language: string): 'ltr' | 'rtl' =>
  RIGHT_TO_LEFT.has(new Intl.Locale(language).maximize().script ?? '') ? 'rtl' : 'ltr';

/** What a language is called, in English. */
export const languageName = (language: string): string => NAMES.of(language) ?? language;
const NAMES = new Intl.DisplayNames(['en'], { type: 'language' });
