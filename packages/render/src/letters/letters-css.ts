/** Letters that a message loads: by which name it asks for them, how light and heavy they can be, and where they lie. */
export interface LoadedLetters {
  readonly family: string;
  readonly weights: readonly [number, number];
  /** Below the origin that pictures come from. */
  readonly path: string;
}

/**
 * Says in a sheet which letters to load: a rule that loads them itself counts only in a page's own sheets, not in a shadow
 * root's. Source: CSS Scoping Level 1, 3.1.2 (at-rules that name things).
 */
export const lettersCss = (letters: readonly LoadedLetters[], base: string): string =>
  letters.length === 0
    ? ''
    : `.layer{--letters:"${letters.map(({ family, weights, path }) => `${family}|${weights.join(' ')}|${base}${path}`).join(',')}"}\n`;
