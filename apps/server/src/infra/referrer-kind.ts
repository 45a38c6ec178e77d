import { ReferrerParser } from '@tryghost/referrer-parser';
import type { ReferrerKind, Source } from '@velarium/contract';
import { sourceOf } from '@velarium/core';
import { Recent } from './recent.ts';

const parser = new ReferrerParser();
const KINDS: Readonly<Record<string, ReferrerKind>> = { search: 'search', social: 'social', email: 'mail' };
/** A host as browsers write it, with nothing after. */
const HOST = /^[a-z0-9.-]{1,253}$/;
/** What a host outside the list says of itself by its first name; no word within another counts. */
const OWN_NAMES: Readonly<Record<string, ReferrerKind>> = { search: 'search', mail: 'mail', webmail: 'mail' };

/** The list is gone through from its beginning for each question, and visitors come from few hosts. */
const answered = new Recent<ReferrerKind | null>(10_000);

/** What a host that people come from is known to be, by a maintained list. */
export function referrerKind(host: string): ReferrerKind | null {
  if (!HOST.test(host)) return null;
  const known = answered.get(host);
  if (known !== undefined) return known;
  const { referrerMedium } = parser.parse(`https://${host}/`);
  const kind = KINDS[referrerMedium ?? ''] ?? OWN_NAMES[host.split('.')[0] ?? ''] ?? null;
  answered.set(host, kind);
  return kind;
}

/** The kind of place a visit came from, by its referrer's host and what its first address carries. */
export const sourceOfVisit = (referrer: string, arrival: Readonly<Record<string, string>>): Source =>
  sourceOf({
    referrer,
    kind: referrerKind(referrer),
    medium: arrival.utm_medium ?? '',
    name: arrival.utm_source ?? '',
  });
