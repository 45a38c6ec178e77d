import type { ReferrerKind, Source } from '@velarium/contract';
import { sourceOf } from './source.ts';

/** What a list of hosts says of one: its words for search, social and mail; nothing of a host it does not know. */
export type MediumOf = (host: string) => string | null | undefined;

const KINDS: Readonly<Record<string, ReferrerKind>> = { search: 'search', social: 'social', email: 'mail' };
/** A host as browsers write it, with nothing after. */
const HOST = /^[a-z0-9.-]{1,253}$/;
/** What a host outside the list says of itself by its first name; no word within another counts. */
const OWN_NAMES: Readonly<Record<string, ReferrerKind>> = { search: 'search', mail: 'mail', webmail: 'mail' };

/** What a host that people come from is known to be. */
export const referrerKindOf = (host: string, mediumOf: MediumOf): ReferrerKind | null =>
  HOST.test(host) ? (KINDS[mediumOf(host) ?? ''] ?? OWN_NAMES[host.split('.')[0] ?? ''] ?? null) : null;

/** The kind of place a visit came from, by its referrer's host and what its first address carries. */
export const sourceOfVisit = (
  referrer: string,
  arrival: Readonly<Record<string, string>>,
  kindOf: (host: string) => ReferrerKind | null,
): Source =>
  sourceOf({
    referrer,
    kind: kindOf(referrer),
    medium: arrival.utm_medium ?? '',
    name: arrival.utm_source ?? '',
  });
