import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { contrastRatio, nearestPassing } from './contrast.ts';

describe('contrast', () => {
  it.each([
    // WCAG 2.2: black on white is 21 to 1; the two greys either side of 4.5 to 1 are common practice.
    ['#000000', '#ffffff', 21],
    ['#777777', '#ffffff', 4.48],
    ['#767676', '#ffffff', 4.54],
    ['#ffffff', '#ffffff', 1],
    // Either side of where sRGB ceases to be linear (0.04045, IEC 61966-2-1), worked through by hand.
    ['#000000', '#0a0a0a', 1.06],
    ['#000000', '#0b0b0b', 1.07],
  ])('%s on %s', (a, b, ratio) => {
    expect(contrastRatio(a, b)).toBeCloseTo(ratio, 2);
    expect(contrastRatio(b, a)).toBe(contrastRatio(a, b));
  });
});

const someHex = fc.stringMatching(/^#[0-9a-f]{6}$/);
it('the nearest readable colour is readable, and a readable one is left alone', () => {
  fc.assert(
    fc.property(someHex, someHex, fc.constantFrom(3, 4.5), (colour, ground, least) => {
      const nearest = nearestPassing(colour, ground, least);
      // Black or white reads on every ground: their contrasts multiply to 21 and one is at least its root, 4.58.
      expect(contrastRatio(nearest, ground)).toBeGreaterThanOrEqual(least);
      if (contrastRatio(colour, ground) >= least) expect(nearest).toBe(colour);
    }),
  );
});
