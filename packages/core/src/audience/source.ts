import type { ReferrerKind, Source } from '@velarium/contract';

/** What links say of the way they are followed by. Source: the values of `utm_medium` in common use (common practice). */
const MEDIA: readonly (readonly [words: RegExp, source: Source])[] = [
  [/^(e[-_ ]?mails?|newsletter)$/, 'mail'],
  [/^((paid[-_ ]?)?social([-_ ](network|media))?|sm)$/, 'social'],
  [/^(organic|(paid[-_ ]?)?search|sem|cpc|ppc)$/, 'search'],
];

/** How a session began, as far as it tells where from. */
export interface Came {
  /** Host it came from; empty when it came from nowhere known, the site itself included. */
  readonly referrer: string;
  /** What that host is known to be. */
  readonly kind: ReferrerKind | null;
  /** What the link says of itself: `utm_medium` and `utm_source`. */
  readonly medium: string;
  readonly name: string;
}

/**
 * The kind of place a session came from. What a link says of itself counts before what its host is known to be; a paid
 * click on a social site is one from there.
 */
export function sourceOf({ referrer, kind, medium, name }: Came): Source {
  const word = medium.trim().toLowerCase();
  const said = MEDIA.find(([words]) => words.test(word))?.[1];
  if (said) return /^[cp]pc$/.test(word) && kind === 'social' ? 'social' : said;
  if (referrer === '') return word || name ? 'site' : 'direct';
  return kind ?? 'site';
}
