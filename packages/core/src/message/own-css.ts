/**
 * What may be set beyond a style's own fields: how letters and edges look, never whether or where something is, and no
 * colour that words must be read on or in: those have fields, which the checks know.
 */
const ALLOWED =
  /^(letter-spacing|word-spacing|line-height|text-(transform|shadow|wrap|decoration(-(line|style|color|thickness))?|underline-offset|emphasis(-(style|color|position))?)|font-(style|variant(-(caps|numeric|ligatures|east-asian|position))?|stretch|kerning)|hyphens|word-break|overflow-wrap|accent-color|caret-color|border-(inline|block|inline-start|inline-end|block-start|block-end|top|right|bottom|left)(-(width|style|color))?|border-(style|radius)|box-shadow|filter|list-style-type)$/;
/** Fields of a style that say the same, by the property somebody may write. */
const HAS_FIELD =
  /^(color|background(-color|-image)?|padding(-[a-z]+)*|margin(-[a-z]+)*|border(-width|-color)?|gap|width|height|font-(size|weight|family))$/;
/** Functions that only mix colours or change how a picture looks; whatever loads, hides or reckons is not among them. */
const FUNCTIONS =
  /^(rgba?|hsla?|hwb|lab|lch|oklab|oklch|color|color-mix|grayscale|hue-rotate|saturate|sepia)$/;
/** No brackets of a block, no escapes, no comment: nothing that could end a declaration or a string. */
const VALUE = /^(?!.*\/\*)[\w\s.,#%()+\-/!]+$/;
/** Largest length of each unit, and the least: beyond them a shadow would paint the page and letters leave the box. */
const LENGTHS: Readonly<Record<string, readonly [least: number, most: number]>> = {
  '': [-2, 1000],
  px: [-12, 40],
  em: [-0.1, 3],
  rem: [-0.1, 3],
  ch: [-0.1, 3],
  ex: [-0.1, 3],
  '%': [0, 300],
  deg: [-360, 360],
  turn: [-1, 1],
};

export interface OwnCss {
  /** Names with their values, as they were written. */
  readonly declarations: Readonly<Record<string, string>>;
  /** What cannot be used of it, if anything. */
  readonly fault: string | undefined;
}

/**
 * Reads CSS declarations of a person's own, `letter-spacing: .04em; text-transform: uppercase`. What is not allowed is
 * left out and named; nothing of it can leave the declaration it stands in, load anything, or hide, move or cover
 * anything. Source: CSS Syntax Module Level 3, 5.4.4, of which it takes a small part. The server reads it a second time,
 * with a whole parser, before it is saved.
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
  if (HAS_FIELD.test(property)) return `“${property}” has a field of its own in the style`;
  if (!ALLOWED.test(property)) return `“${property}” cannot be set here`;
  if (!VALUE.test(value)) return `the value of “${property}” holds a sign it may not hold`;
  const foreign = [...value.matchAll(/([\w-]+)\(/g)].find(
    ([, name = '']) => !FUNCTIONS.test(name.toLowerCase()),
  );
  if (foreign) return `“${foreign[1]}()” cannot be used here`;
  if (/\bnowrap\b/i.test(value)) return `“nowrap” would let words leave the box`;
  const tooFar = lengthFault(property, value);
  if (tooFar) return tooFar;
  let open = 0;
  for (const sign of value) {
    open += sign === '(' ? 1 : sign === ')' ? -1 : 0;
    if (open < 0) break;
  }
  return open === 0 ? undefined : `a bracket of “${property}” is not closed`;
}

/** Numbers outside brackets, with their units; within them they are parts of a colour. */
function lengthFault(property: string, value: string): string | undefined {
  const plain = value.replace(/#[\da-f]+/gi, ' ').replace(/\([^()]*\)/g, ' ');
  for (const [whole, number = '', unit = ''] of plain.matchAll(
    /([+-]?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?)([a-z%]*)/gi,
  )) {
    const bounds = LENGTHS[unit.toLowerCase()];
    if (!bounds) return `“${unit}” cannot be used in “${property}”; use px, em or %`;
    const [least, most] = property === 'line-height' && unit === '' ? [0.9, 3] : bounds;
    if (Number(number) < least || Number(number) > most)
      return `“${whole}” of “${property}” is out of bounds: ${least}${unit} to ${most}${unit}`;
    if (
      property === 'line-height' &&
      ((unit === 'em' && Number(number) < 0.9) ||
        (unit === '%' && Number(number) < 90) ||
        (unit === 'px' && Number(number) < 10))
    )
      return `“${whole}” would lay the lines on one another`;
  }
  return undefined;
}
