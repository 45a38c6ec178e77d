import type { Palette } from '@velarium/contract';
import {
  contrastRatio,
  LEAST_LARGE_CONTRAST,
  LEAST_TEXT_CONTRAST,
  luminance,
  mixColours,
  nearestPassing,
} from '../checks/contrast.ts';

/** A surface below this luminance is dark by itself already. */
const DARK = 0.18;
const PAPER = '#f3efe6';

/**
 * A palette's colours for the dark: its ink becomes the ground, and what stands on it keeps its colour as far as it can
 * still be read. A palette that is dark already stays as it is.
 */
export function nightOf(palette: Palette): Palette {
  if (luminance(palette.surface) < DARK) return palette;
  const surface = mixColours(luminance(palette.ink) < DARK ? palette.ink : '#141820', '#000000', 0.35);
  const field = mixColours(surface, '#ffffff', 0.1);
  const accent = nearestPassing(palette.accent, surface, LEAST_LARGE_CONTRAST);
  return {
    surface,
    ink: nearestPassing(PAPER, surface),
    soft: nearestPassing(palette.soft, surface),
    accent,
    accentText: nearestPassing(palette.accentText, accent),
    // Lines are the edges of fields: they must be made out. Source: WCAG 2.2, 1.4.11.
    line: nearestPassing(mixColours(surface, '#ffffff', 0.22), surface, LEAST_LARGE_CONTRAST),
    field,
    fieldText: nearestPassing(PAPER, field),
    backdrop: '#000000',
  };
}

/** Whether everything that is read stands out from what it stands on. Source: WCAG 2.2, 1.4.3. */
export const isReadable = (palette: Palette): boolean =>
  (
    [
      ['ink', 'surface'],
      ['soft', 'surface'],
      ['accentText', 'accent'],
      ['fieldText', 'field'],
    ] as const
  ).every(([text, ground]) => contrastRatio(palette[text], palette[ground]) >= LEAST_TEXT_CONTRAST);
