/** Relative luminance of `#rrggbb`, 0 to 1. Source: WCAG 2.2, definition of relative luminance. */
export function luminance(colour: string): number {
  const channel = (at: number) => {
    const value = Number.parseInt(colour.slice(at, at + 2), 16) / 255;
    return value <= 0.04045 ? value / 12.92 : ((value + 0.055) / 1.055) ** 2.4;
  };
  return 0.2126 * channel(1) + 0.7152 * channel(3) + 0.0722 * channel(5);
}

/** Contrast of two colours, 1 to 21. Source: WCAG 2.2, definition of contrast ratio. */
export function contrastRatio(a: string, b: string): number {
  const [darker = 0, lighter = 0] = [luminance(a), luminance(b)].sort((x, y) => x - y);
  return (lighter + 0.05) / (darker + 0.05);
}

/** Least contrast of ordinary text. Source: WCAG 2.2, success criterion 1.4.3 (AA). */
export const LEAST_TEXT_CONTRAST = 4.5;
