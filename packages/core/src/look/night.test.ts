import { COLOUR_ROLES } from '@velarium/contract/values';
import fc from 'fast-check';
import { expect, it } from 'vitest';
import { contrastRatio, luminance } from '../checks/contrast.ts';
import { LOOKS } from './looks.ts';
import { isReadable, nightOf } from './night.ts';

const someColour = fc
  .integer({ min: 0, max: 0xffffff })
  .map((number) => `#${number.toString(16).padStart(6, '0')}`);
const somePalette = fc.record(
  Object.fromEntries(COLOUR_ROLES.map((role) => [role, someColour])) as Record<
    (typeof COLOUR_ROLES)[number],
    typeof someColour
  >,
);

it('whatever the colours by day, those of the night are dark and can be read (WCAG 2.2, 1.4.3)', () => {
  fc.assert(
    fc.property(somePalette, (palette) => {
      fc.pre(nightOf(palette) !== palette);
      const night = nightOf(palette);
      expect(luminance(night.surface)).toBeLessThan(0.18);
      expect(isReadable(night)).toBe(true);
      // WCAG 2.2, 1.4.11: the edges of fields.
      expect(contrastRatio(night.line, night.surface)).toBeGreaterThanOrEqual(3);
    }),
  );
});
it('is made of the ink by day, a third darker; of light ink it is made of night', () => {
  const day = LOOKS[0]?.style.palette;
  if (!day) throw new Error('expected a Look');
  // 65 % of each part of #1d2433, and a tenth of white on it.
  expect(nightOf(day)).toMatchObject({ surface: '#131721', field: '#2b2e37', backdrop: '#000000' });
  expect(nightOf({ ...day, ink: '#c0c0c0' }).surface).toBe('#0d1015');
});
it.each(LOOKS.map(({ name, style }) => [name, style.palette] as const))(
  '%s: night is night already, and the night of a night is the same',
  (_name, palette) => {
    const night = nightOf(palette);
    expect(nightOf(night)).toBe(night);
  },
);
