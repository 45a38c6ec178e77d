/** What may be set beyond the style's own fields: looks, never whether or where something is. */
const ALLOWED =
  /^(letter-spacing|word-spacing|line-height|text-(transform|indent|shadow|wrap|decoration(-[a-z]+)?|underline-offset|emphasis(-[a-z]+)?)|font-(style|variant(-[a-z]+)?|stretch|kerning|feature-settings|variation-settings)|hyphens|white-space|word-break|overflow-wrap|color|accent-color|caret-color|background(-[a-z]+)?|border(-[a-z]+){0,3}|outline(-[a-z]+)?|box-shadow|filter|mix-blend-mode|padding(-[a-z]+){0,2}|margin(-[a-z]+){0,2}|(row-|column-)?gap|aspect-ratio|list-style-type|columns|column-[a-z]+)$/;
/** Functions that only reckon or paint; whatever loads something is not among them. */
const FUNCTIONS =
  /^(rgba?|hsla?|hwb|lab|lch|oklab|oklch|color|color-mix|light-dark|calc|min|max|clamp|var|(repeating-)?(linear|radial|conic)-gradient|blur|brightness|contrast|drop-shadow|grayscale|hue-rotate|invert|saturate|sepia)$/;
/** No brackets of a block, no escapes, nothing that could end a declaration or a string. */
const VALUE = /^[\w\s.,#%()+\-*/!]+$/;

export interface OwnCss {
  /** Names with their values, as they were written. */
  readonly declarations: Readonly<Record<string, string>>;
  /** What cannot be used of it, if anything. */
  readonly fault: string | undefined;
}

/**
 * Reads CSS declarations of a person's own, `letter-spacing: .04em; text-transform: uppercase`. What is not allowed is
 * left out and named; nothing of it can leave the declaration it stands in or load anything.
 * Source: CSS Syntax Module Level 3, 5.4.4, of which it takes a small part.
 */
export function readOwnCss(text: string): OwnCss {
  const declarations: Record<string, string> = {};
  let fault: string | undefined;
  for (const part of text.split(';')) {
    if (part.trim() === '') continue;
    const [name = '', ...rest] = part.split(':');
    const property = name.trim().toLowerCase();
    const value = rest.join(':').trim();
    const wrong = faultOf(property, value);
    if (wrong === undefined) declarations[property] = value;
    else fault ??= wrong;
  }
  return { declarations, fault };
}

function faultOf(property: string, value: string): string | undefined {
  if (value === '') return `write “${property || 'name'}: value”`;
  if (!ALLOWED.test(property)) return `“${property}” cannot be set here`;
  if (!VALUE.test(value)) return `the value of “${property}” holds a sign it may not hold`;
  const foreign = [...value.matchAll(/([\w-]+)\(/g)].find(
    ([, name = '']) => !FUNCTIONS.test(name.toLowerCase()),
  );
  if (foreign) return `“${foreign[1]}()” cannot be used here`;
  let open = 0;
  for (const sign of value) {
    open += sign === '(' ? 1 : sign === ')' ? -1 : 0;
    if (open < 0) break;
  }
  return open === 0 ? undefined : `a bracket of “${property}” is not closed`;
}
