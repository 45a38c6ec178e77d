import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { contrastRatio, luminance, mixColours, nearestPassing } from './contrast.ts';

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

it('is told by luminance, whose primaries weigh as WCAG says', () => {
  expect(
    ['#ff0000', '#00ff00', '#0000ff', '#ffffff'].map(luminance).map((one) => Number(one.toFixed(4))),
  ).toEqual([0.2126, 0.7152, 0.0722, 1]);
  expect(luminance('#0a0a0a')).toBeCloseTo(10 / 255 / 12.92, 12);
});
it('a mixture has its share of each part', () => {
  expect(mixColours('#000000', '#ffffff', 0.5)).toBe('#808080');
  expect(mixColours('#204060', '#60c0e0', 0.25)).toBe('#306080');
});
it('where even white and black cannot be read it is the better of the two', () => {
  expect(nearestPassing('#777777', '#888888', 15)).toBe('#000000');
  expect(nearestPassing('#777777', '#333333', 15)).toBe('#ffffff');
  expect(nearestPassing('#777777', '#ffffff', 21)).toBe('#000000');
});
it('is no further off than it must be', () => {
  // By a hundredth: one step less cannot be read.
  const found = nearestPassing('#999999', '#ffffff');
  const step = Array.from({ length: 101 }, (_, n) => mixColours('#999999', '#000000', n / 100)).indexOf(
    found,
  );
  expect(contrastRatio(mixColours('#999999', '#000000', (step - 1) / 100), '#ffffff')).toBeLessThan(4.5);
  // Grey on grey is nearer to what darkens it here, and to what lightens it there.
  expect(luminance(nearestPassing('#606060', '#909090'))).toBeLessThan(luminance('#606060'));
  expect(luminance(nearestPassing('#a0a0a0', '#606060'))).toBeGreaterThan(luminance('#a0a0a0'));
  expect(nearestPassing('#767676', '#ffffff', contrastRatio('#767676', '#ffffff'))).toBe('#767676');
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
