const channels = (colour: string) => [1, 3, 5].map((at) => Number.parseInt(colour.slice(at, at + 2), 16));
const hex = (parts: readonly number[]) =>
  `#${parts.map((part) => Math.round(part).toString(16).padStart(2, '0')).join('')}`;

/** Relative luminance of `#rrggbb`, 0 to 1. Source: WCAG 2.2, definition of relative luminance. */
export function luminance(colour: string): number {
  const [red, green, blue] = channels(colour).map((part) => {
    const value = part / 255;
    return value <= 0.04045 ? value / 12.92 : ((value + 0.055) / 1.055) ** 2.4;
  }) as [number, number, number];
  return 0.2126 * red + 0.7152 * green + 0.0722 * blue;
}

/** Contrast of two colours, 1 to 21. Source: WCAG 2.2, definition of contrast ratio. */
export function contrastRatio(a: string, b: string): number {
  const [one, other] = [luminance(a), luminance(b)];
  return (Math.max(one, other) + 0.05) / (Math.min(one, other) + 0.05);
}

/** Least contrast of ordinary text. Source: WCAG 2.2, success criterion 1.4.3 (AA). */
export const LEAST_TEXT_CONTRAST = 4.5;
/** Least contrast of large text and of what one must see to use a control. Source: WCAG 2.2, 1.4.3 and 1.4.11. */
export const LEAST_LARGE_CONTRAST = 3;

/** A colour mixed with this share, 0 to 1, of another. */
export const mixColours = (colour: string, towards: string, share: number): string => {
  const to = channels(towards);
  return hex(channels(colour).map((part, n) => part + ((to[n] as number) - part) * share));
};

/**
 * The colour nearest to this one that can be read on the ground: mixed with as little white or black as does it. Where
 * even pure white or black cannot, the better of the two.
 */
export function nearestPassing(colour: string, ground: string, least = LEAST_TEXT_CONTRAST): string {
  if (contrastRatio(colour, ground) >= least) return colour;
  const candidates = ['#000000', '#ffffff'].flatMap((towards) => {
    for (let percent = 1; percent <= 100; percent++) {
      const mixed = mixColours(colour, towards, percent / 100);
      if (contrastRatio(mixed, ground) >= least) return [{ mixed, percent }];
    }
    return [];
  });
  const [nearest] = candidates.sort((a, b) => a.percent - b.percent);
  if (nearest) return nearest.mixed;
  return contrastRatio('#000000', ground) > contrastRatio('#ffffff', ground) ? '#000000' : '#ffffff';
}
