import { ReferrerParser } from '@tryghost/referrer-parser';
import type { ReferrerKind, Source } from '@velarium/contract';
import { referrerKindOf, sourceOfVisit as sourceByKind } from '@velarium/core';
import { Recent } from './recent.ts';

const parser = new ReferrerParser();

/** The list is gone through from its beginning for each question, and visitors come from few hosts. */
const answered = new Recent<ReferrerKind | null>(10_000);

/** What a host that people come from is known to be, by a maintained list. */
export function referrerKind(host: string): ReferrerKind | null {
  // No name is longer (RFC 1035), and what is none is not kept.
  if (host.length > 253) return null;
  const known = answered.get(host);
  if (known !== undefined) return known;
  const kind = referrerKindOf(host, (name) => parser.parse(`https://${name}/`).referrerMedium);
  answered.set(host, kind);
  return kind;
}

export const sourceOfVisit = (referrer: string, arrival: Readonly<Record<string, string>>): Source =>
  sourceByKind(referrer, arrival, referrerKind);
