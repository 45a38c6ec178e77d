/** What is known of the visitor and the page, by name: `visitor.firstName`, `page.title`. */
export type PersonalFacts = (name: string) => string;

const PLACE = /\{\{\s*([a-z]+\.[\w-]+|count)\s*(?:\|([^{}|]*))?\}\}/gi;

/**
 * A text with its places filled in: `{{visitor.firstName|friend}}` becomes what is known, or else the words after the
 * stroke. Anything else in braces stays as it was written, and everything does where there are no facts.
 */
export const fillText = (text: string, factOf: PersonalFacts | null): string =>
  !factOf
    ? text
    : text.replace(PLACE, (_all, name: string, fallback = '') => factOf(name) || fallback.trim());

/** The places in a text, for the list of what a message wants to know. */
export const placesIn = (text: string): { readonly name: string; readonly fallback: string }[] =>
  [...text.matchAll(PLACE)].map(([, name = '', fallback = '']) => ({ name, fallback: fallback.trim() }));
