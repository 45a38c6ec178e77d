import fc from 'fast-check';
// @ts-expect-error: it ships no types.
import reference from 'murmurhash3js-revisited';
import { describe, expect, it } from 'vitest';
import { allot } from './allot.ts';
import { assign, type Experiment, manifestFor } from './assign.ts';
import { murmur32 } from './murmur.ts';

const latin = (bytes: readonly number[]) => String.fromCharCode(...bytes);

describe('MurmurHash3, x86, 32 bits', () => {
  it('gives SMHasher’s verification value', () => {
    // Source: SMHasher, KeysetTest.cpp, VerificationTest: hashes of keys 0, 0 1, 0 1 2, … with seed 256 - length,
    // hashed again; main.cpp lists 0xB0F57EE3 for MurmurHash3_x86_32 (the value is from memory).
    const hashes = Array.from({ length: 256 }, (_, length) => {
      const hash = murmur32(latin(Array.from({ length }, (_key, byte) => byte)), 256 - length);
      return [hash & 255, (hash >>> 8) & 255, (hash >>> 16) & 255, hash >>> 24];
    });
    expect(murmur32(latin(hashes.flat()), 0)).toBe(0xb0f57ee3);
  });

  it('agrees with a reference library', () => {
    // Reference: murmurhash3js-revisited.
    fc.assert(
      fc.property(
        fc.array(fc.nat({ max: 255 }), { maxLength: 60 }),
        fc.nat({ max: 2 ** 31 }),
        (bytes, seed) => {
          expect(murmur32(latin(bytes), seed)).toBe(reference.x86.hash32(Uint8Array.from(bytes), seed));
        },
      ),
    );
  });
});

const visitors = Array.from({ length: 20_000 }, (_, n) => murmur32(`v${n}`).toString(16).padStart(32, '0'));
const variantsOf = (weights: Readonly<Record<string, number>>): Experiment['variants'] => {
  const shares = Object.entries(weights).map(([id, weight]) => ({ id, weight }));
  const allotment = allot(shares);
  return shares.map(({ id }) => ({ id, buckets: allotment[id] ?? [], message: id }));
};
const experiment = (change: Partial<Experiment> = {}): Experiment => ({
  salt: 'campaign-1',
  holdout: 1000,
  variants: variantsOf({ a: 50, b: 30, c: 20 }),
  ...change,
});
const share = (is: (visitor: string) => boolean) => visitors.filter(is).length / visitors.length;
/** Five standard errors of a share: what chance alone exceeds about once in two million tries. */
const chance = (p: number) => 5 * Math.sqrt((p * (1 - p)) / visitors.length);

describe('assignment', () => {
  it.each([
    ['a', 0.5],
    ['b', 0.3],
    ['c', 0.2],
  ])('variant %s has its weight', (id, weight) => {
    const measured = share((visitor) => assign(visitor, experiment()).variant?.id === id);
    expect(Math.abs(measured - weight)).toBeLessThan(chance(weight));
  });

  it('the holdout has its share', () => {
    const measured = share((visitor) => assign(visitor, experiment()).isHeld);
    expect(Math.abs(measured - 0.1)).toBeLessThan(chance(0.1));
  });

  it('is sticky, and a variant without weight moves nobody', () => {
    const more = experiment({
      variants: variantsOf({ z: 0, a: 50, b: 30, c: 20, y: 0 }),
    });
    for (const visitor of visitors.slice(0, 3000)) {
      expect(assign(visitor, more)).toEqual(assign(visitor, experiment()));
    }
  });

  it('changing the holdout moves nobody between variants, and a larger one keeps whom it held', () => {
    for (const visitor of visitors.slice(0, 3000)) {
      const [small, large] = [assign(visitor, experiment()), assign(visitor, experiment({ holdout: 2000 }))];
      expect(large.variant).toEqual(small.variant);
      if (small.isHeld) expect(large.isHeld).toBe(true);
    }
  });

  it('two experiments are independent, and so are holdout and variant', () => {
    const isB = (salt: string) => (visitor: string) =>
      assign(visitor, experiment({ salt })).variant?.id === 'b';
    const both = share((visitor) => isB('one')(visitor) && isB('two')(visitor));
    expect(Math.abs(both - 0.09)).toBeLessThan(chance(0.09));
    const heldB = share((visitor) => assign(visitor, experiment()).isHeld && isB('campaign-1')(visitor));
    expect(Math.abs(heldB - 0.03)).toBeLessThan(chance(0.03));
  });

  it.each([
    [0, false],
    [10_000, true],
  ])('a holdout of %d buckets holds everybody or nobody', (holdout, isHeld) => {
    expect(visitors.every((visitor) => assign(visitor, experiment({ holdout })).isHeld === isHeld)).toBe(
      true,
    );
  });
});

it('a visitor has the file of the first language they want, of their variant too', () => {
  const languages = (name: string) =>
    ['en', 'cy', 'ar'].map((language) => [language, `${name}-${language}`] as const);
  const manifest = {
    campaigns: [
      { id: 'plain', message: 'plain', experiment: null },
      { id: 'both', message: 'both-en', languages: languages('both'), experiment: null },
      {
        id: 'tried',
        message: 'a-en',
        experiment: {
          salt: 'tried',
          holdout: 0,
          variants: [{ id: 'b', buckets: [[0, 10_000]], message: 'b-en', languages: languages('b') }],
        },
      },
    ],
  } as unknown as Parameters<typeof manifestFor>[1];
  const shown = (...wanted: string[]) =>
    manifestFor('someone', manifest, wanted).campaigns.map(({ message }) => message);
  expect(shown()).toEqual(['plain', 'both-en', 'b-en']);
  expect(shown('', 'fr', 'cy-GB')).toEqual(['plain', 'both-cy', 'b-cy']);
  expect(shown('de')).toEqual(['plain', 'both-en', 'b-en']);
  expect(shown('ar-EG', 'cy')).toEqual(['plain', 'both-ar', 'b-ar']);

  // Who is not remembered is not divided: they have the present message, and no one holds it back from them.
  const unknown = manifestFor(null, manifest, ['cy']).campaigns;
  expect(unknown.map(({ message }) => message)).toEqual(['plain', 'both-cy', 'a-en']);
  expect(unknown.map(({ variant, experiment }) => [variant, experiment])).toEqual([
    [undefined, null],
    [undefined, null],
    [undefined, null],
  ]);
});
