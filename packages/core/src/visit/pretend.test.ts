import { describe, expect, it } from 'vitest';
import { newMemory } from './memory.ts';
import {
  isPretending,
  NOTHING_PRETENDED,
  pretendedFacts,
  pretendedMemory,
  pretendedWords,
  readPretended,
} from './pretend.ts';
import type { PageViewFacts } from './visitor-facts.ts';

const told = {
  signedIn: null,
  basket: null,
  country: 'gb',
  source: 'direct',
} as unknown as PageViewFacts;
const memory = newMemory({ visitor: () => 'v', session: () => 's' }, 0, {
  landing: '/',
  referrer: 'a.example',
  arrival: {},
});
const regular = readPretended({
  session: 4,
  source: 'search',
  referrer: ' Partner.example ',
  signedIn: true,
  basket: { items: 2, total: 12.5 },
  country: 'NO',
});

describe('pretending to be another visitor', () => {
  it.each<[unknown, ReturnType<typeof readPretended>['basket']]>([
    [
      { items: 0, total: 0 },
      { items: 0, total: 0 },
    ],
    [{ items: 3 }, { items: 3, total: 0 }],
    [
      { items: 3, total: -1 },
      { items: 3, total: 0 },
    ],
    [
      { items: 3, total: 'much' },
      { items: 3, total: 0 },
    ],
    [{ items: -1, total: 5 }, null],
    [{ items: 1_000_001, total: 5 }, null],
    [{ total: 5 }, null],
  ])('a kept basket of %j', (basket, read) => {
    expect(readPretended({ basket }).basket).toEqual(read);
  });
  it('puts what is pretended in the place of what is so', () => {
    expect(pretendedFacts(told, regular)).toEqual({
      signedIn: true,
      basket: { items: 2, total: 12.5 },
      country: 'no',
      source: 'search',
    });
    expect(pretendedMemory(memory, regular).session).toMatchObject({
      number: 4,
      referrer: 'partner.example',
      landing: '/',
    });
    expect(pretendedWords(regular)).toBe(
      'in their 4th session, with an arrival from search, from the host partner.example, signed in, with 2 in the basket, worth 12.5 and from Norway (no)',
    );
    expect(isPretending(regular)).toBe(true);
  });
  it('leaves everything as it is where nothing is', () => {
    expect(pretendedFacts(told, NOTHING_PRETENDED)).toEqual(told);
    expect(pretendedMemory(memory, NOTHING_PRETENDED)).toEqual(memory);
    expect(isPretending(NOTHING_PRETENDED)).toBe(false);
    expect(pretendedWords(NOTHING_PRETENDED)).toBe('');
  });
  it('signed out and a host that is none are something too', () => {
    const out = readPretended({ signedIn: false, referrer: '' });
    expect(out).toEqual({ ...NOTHING_PRETENDED, signedIn: false, referrer: '' });
    expect(pretendedMemory(memory, out).session.referrer).toBe('');
    expect(pretendedWords(out)).toBe('signed out');
  });
  it.each([
    [null],
    ['dance'],
    [{ session: 0, source: 'moon', referrer: 7, signedIn: 'yes', basket: { items: -1 }, country: 'nor' }],
    [{ session: 1001, basket: 3, country: '' }],
    [{ session: 1.5, basket: null }],
  ])('of %j nothing is taken', (kept) => {
    expect(readPretended(kept)).toEqual(NOTHING_PRETENDED);
  });
  it.each([
    [1, 1],
    [1000, 1000],
  ])('the session %i is one', (session, read) => {
    expect(readPretended({ session }).session).toBe(read);
  });
  it('a basket may be empty and of no known worth', () => {
    expect(readPretended({ basket: { items: 0, total: -1 } }).basket).toEqual({ items: 0, total: 0 });
  });
});
