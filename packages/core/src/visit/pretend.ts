import type { Source } from '@velarium/contract';
import { SOURCES } from '@velarium/contract/values';
import { countryName, sourceWords } from '../sentence/reach-words.ts';
import { listOf, ordinal } from '../sentence/words.ts';
import type { Memory } from './memory.ts';
import type { PageViewFacts } from './visitor-facts.ts';

/** What somebody who tries a campaign pretends of themselves; `null` is as it is. */
export interface Pretended {
  readonly session: number | null;
  readonly source: Source | null;
  /** The host they came from; empty is none. */
  readonly referrer: string | null;
  readonly signedIn: boolean | null;
  readonly basket: { readonly items: number; readonly total: number } | null;
  /** Two letters, lower case. */
  readonly country: string | null;
}

export const NOTHING_PRETENDED: Pretended = {
  session: null,
  source: null,
  referrer: null,
  signedIn: null,
  basket: null,
  country: null,
};

export const isPretending = (pretended: Pretended): boolean =>
  Object.values(pretended).some((one) => one !== null);

const whole = (value: unknown, least: number, most: number): number | null =>
  typeof value === 'number' && Number.isInteger(value) && value >= least && value <= most ? value : null;

/** What was kept of it, read defensively: the storage it lies in is the page's. */
export function readPretended(kept: unknown): Pretended {
  if (typeof kept !== 'object' || kept === null) return NOTHING_PRETENDED;
  const { session, source, referrer, signedIn, basket, country } = kept as Record<string, unknown>;
  const { items, total } = (typeof basket === 'object' && basket !== null ? basket : {}) as Record<
    string,
    unknown
  >;
  const things = whole(items, 0, 1_000_000);
  return {
    session: whole(session, 1, 1000),
    source: SOURCES.find((one) => one === source) ?? null,
    referrer: typeof referrer === 'string' ? referrer.trim().toLowerCase().slice(0, 253) : null,
    signedIn: typeof signedIn === 'boolean' ? signedIn : null,
    basket:
      things === null ? null : { items: things, total: typeof total === 'number' && total >= 0 ? total : 0 },
    country:
      typeof country === 'string' && /^[a-z]{2}$/i.test(country.trim()) ? country.trim().toLowerCase() : null,
  };
}

/** What page and browser tell, with what is pretended in its place. */
export function pretendedFacts(told: PageViewFacts, pretended: Pretended): PageViewFacts {
  const { source, signedIn, basket, country } = pretended;
  return {
    ...told,
    ...(source === null ? {} : { source }),
    ...(signedIn === null ? {} : { signedIn }),
    ...(basket === null ? {} : { basket }),
    ...(country === null ? {} : { country }),
  };
}

/** The record of a visitor who begins, as if they had been here before. */
export function pretendedMemory(memory: Memory, { session, referrer }: Pretended): Memory {
  return {
    ...memory,
    session: {
      ...memory.session,
      ...(session === null ? {} : { number: session }),
      ...(referrer === null ? {} : { referrer }),
    },
  };
}

/** `in their 3rd session, with an arrival from search, signed in`. */
export function pretendedWords({ session, source, referrer, signedIn, basket, country }: Pretended): string {
  return listOf([
    ...(session === null ? [] : [`in their ${ordinal(session)} session`]),
    ...(source === null ? [] : [`with ${sourceWords(source)}`]),
    ...(referrer ? [`from the host ${referrer}`] : []),
    ...(signedIn === null ? [] : [signedIn ? 'signed in' : 'signed out']),
    ...(basket === null ? [] : [`with ${basket.items} in the basket, worth ${basket.total}`]),
    ...(country === null ? [] : [`from ${countryName(country)}`]),
  ]);
}
