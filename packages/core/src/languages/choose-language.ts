/**
 * The first of the wanted languages that is offered, each made shorter from its end until it fits: `de-CH` finds `de`.
 * Source: RFC 4647, 3.4, lookup.
 */
export function chooseLanguage(wanted: readonly string[], offered: readonly string[]): string | undefined {
  for (const range of wanted) {
    const parts = range.toLowerCase().split('-');
    while (parts.length > 0) {
      const shortened = parts.join('-');
      const found = offered.find((one) => one.toLowerCase() === shortened);
      if (found) return found;
      parts.pop();
      // A single letter only says what the part after it is.
      if (parts.at(-1)?.length === 1) parts.pop();
    }
  }
  return undefined;
}
