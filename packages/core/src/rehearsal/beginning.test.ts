import { expect, it } from 'vitest';
import { VISITOR_PRESETS } from './beginning.ts';

it('a visitor to begin with is what their words promise', () => {
  const PROMISES = [
    [/phone/, ({ device }) => device === 'mobile'],
    [/at a desk/, ({ device }) => device === undefined],
    [/from a search/, ({ source }) => source === 'search'],
    [/by a mail/, ({ source }) => source === 'mail'],
    [/first reader/, ({ session }) => session === undefined],
    [/coming back/, ({ session }) => (session ?? 1) > 1],
    [/signed in/, ({ signedIn }) => signedIn === true],
    [/full basket/, ({ basket }) => (basket?.items ?? 0) > 0 && (basket?.total ?? 0) > 0],
  ] as const satisfies readonly (readonly [
    RegExp,
    (visitor: (typeof VISITOR_PRESETS)[number]['visitor']) => boolean,
  ])[];
  for (const { words, visitor } of VISITOR_PRESETS) {
    const kept = PROMISES.filter(([promise]) => promise.test(words)).map(([, isKept]) => isKept(visitor));
    expect([words, kept.length > 0 && kept.every(Boolean)]).toEqual([words, true]);
  }
  // Nobody is promised to be signed in, to have a basket or to come from somewhere who does not say so.
  for (const { words, visitor } of VISITOR_PRESETS)
    expect([words, visitor.signedIn === true]).toEqual([words, /signed in/.test(words)]);
});
