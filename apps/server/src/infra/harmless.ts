/** A text that a spreadsheet would take for a formula is made one that it does not. Source: OWASP, CSV injection. */
export const harmless = (text: string): string => (/^[=+\-@\t\r]/.test(text) ? `'${text}` : text);
