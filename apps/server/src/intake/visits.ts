import type { VisitorEvent } from '@velarium/contract';
import { LIMITS } from '@velarium/contract/values';
import { browserOf, systemOf } from '@velarium/core';
import type { Begun, StoredEvent, Told } from './stored-event.ts';

/** What the request that brought a visit's first page view tells of the visitor. */
export interface Client {
  readonly userAgent: string;
  /** The header of this name, RFC 9110, 12.5.4. */
  readonly acceptLanguage: string;
  readonly country: string | null;
}

const MOST_LANGUAGES = 8;

/** Languages in the order of their weights; those with none stand as they are named. */
export function languagesOf(acceptLanguage: string): string {
  return acceptLanguage
    .split(',')
    .flatMap((part) => {
      const [code = '', ...parameters] = part.split(';').map((one) => one.trim().toLowerCase());
      const weight = Number(parameters.find((one) => one.startsWith('q='))?.slice(2) ?? 1);
      return /^[a-z]{2,3}(-[a-z0-9]{2,8})*$/.test(code) && weight > 0 ? { code, weight } : [];
    })
    .sort((a, b) => b.weight - a.weight)
    .slice(0, MOST_LANGUAGES)
    .map(({ code }) => code)
    .join(',');
}

/** Text a database can hold: PostgreSQL takes neither NUL nor half a surrogate pair. */
export const storable = (text: string): string => text.replace(/[\0\p{Surrogate}]/gu, '');

/**
 * A page's address as a browser writes it, without a sign outside ASCII (RFC 3986, 2.1). Whoever makes up events may
 * send others, and an index takes no key longer than a third of a page of the database.
 */
export const pageAddress = (text: string): string =>
  storable(text)
    .replace(/[^\x20-\x7e]/gu, encodeURIComponent)
    .slice(0, LIMITS.pageAddress);

export function readBegun(begun: VisitorEvent['begun'], client: Client): Begun | null {
  if (!begun) return null;
  // How many points a screen can be touched at is in no header, so a tablet that calls itself a desktop is one here.
  const agent = { userAgent: client.userAgent, hints: undefined, touchPoints: 0 };
  return {
    number: begun[0],
    referrer: storable(begun[1]),
    country: client.country,
    languages: languagesOf(client.acceptLanguage),
    browser: browserOf(agent),
    system: systemOf(agent),
  };
}

/** Of what a page told, what the site has asked to be recorded. */
export function readTold(told: VisitorEvent['told'], recorded: readonly string[] | null): Told | null {
  if (!told || !recorded) return null;
  const named = Object.entries(told.attributes).filter(([name]) => recorded.includes(name));
  return {
    signedIn: told.signedIn,
    items: told.basket?.items ?? null,
    total: told.basket?.total ?? null,
    attributes: JSON.stringify(Object.fromEntries(named.map(([name, value]) => [name, storable(value)]))),
  };
}

/** One row of `visit` out of the events of a batch. */
export interface VisitRow {
  readonly siteId: string;
  readonly session: string;
  readonly visitor: string;
  readonly at: Date;
  readonly landing: string | null;
  readonly begun: Begun | null;
  readonly told: Told | null;
}

/** The visits that events speak of, each once, in one order. */
export function visitsOf(events: readonly StoredEvent[]): VisitRow[] {
  const rows = new Map<string, VisitRow>();
  for (const { kind, siteId, session, visitor, at, page, begun, told } of events) {
    if (kind !== 'pageview' && !told) continue;
    const key = `${siteId} ${session}`;
    const old = rows.get(key);
    rows.set(key, {
      siteId,
      session,
      visitor: old?.visitor ?? visitor,
      at: old && old.at < at ? old.at : at,
      landing: begun ? page : (old?.landing ?? null),
      begun: begun ?? old?.begun ?? null,
      told: told ?? old?.told ?? null,
    });
  }
  return [...rows].sort(([a], [b]) => (a < b ? -1 : 1)).map(([, row]) => row);
}
