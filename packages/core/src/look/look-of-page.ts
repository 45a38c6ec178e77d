import type { LookRead, LookStyle } from '@velarium/contract';
import {
  LEAST_LARGE_CONTRAST,
  LEAST_TEXT_CONTRAST,
  luminance,
  mixColours,
  nearestPassing,
} from '../checks/contrast.ts';
import { fontOfPage } from './font-of-page.ts';
import { PLAIN_LOOK } from './looks.ts';

/** One rule of a page's sheets, in the order in which they stand. */
export interface StyleRule {
  readonly selectors: readonly string[];
  readonly declarations: readonly (readonly [property: string, value: string])[];
}

/** Whose words these are, as sheets are commonly written (common practice). */
const PAGE = /^(:root|html|body|html body|html,? ?body)$/i;
const HEADING = /^(h1|h2)$/i;
const LINK = /^a(:link)?$/i;
const BUTTON =
  /^(button|a\.(button|btn|cta)|\.?(button|btn|cta)|\[type="?submit"?\]|input\[type="?submit"?\]|\.(btn|button)-{1,2}primary|\.primary)$/i;
const FIELD = /^(input|textarea|input\[type="?(text|email)"?\]|\.(field|input|form-control))$/i;
const BOX = /^(\.?(card|panel|box|tile|modal|dialog))$/i;

const MOST_TURNS = 8;

/**
 * A Look as a page's own sheets would have it: its ground and letters, what its buttons and links are coloured with, how
 * round its corners are. What can hardly be read is made legible, as every Look must be.
 *
 * @param colourOf Reads any CSS colour as `#rrggbb`; nothing where it is none, or lets something through.
 */
export function lookOfPage(
  rules: readonly StyleRule[],
  colourOf: (value: string) => string | undefined,
  begin: LookStyle = PLAIN_LOOK,
): LookRead {
  const names = new Map<string, string>();
  for (const { selectors, declarations } of rules)
    if (selectors.some((selector) => PAGE.test(selector)))
      for (const [property, value] of declarations) if (property.startsWith('--')) names.set(property, value);
  /** With the values of names in their places. */
  const resolve = (value: string, turns = 0): string =>
    turns === MOST_TURNS || !value.includes('var(')
      ? value
      : resolve(
          value.replace(
            /var\(\s*(--[\w-]+)\s*(?:,\s*((?:[^()]|\([^()]*\))*))?\)/g,
            (_, name: string, otherwise = '') => names.get(name) ?? otherwise,
          ),
          turns + 1,
        );
  /** What the last rule of these that can be read says. */
  const last = <Read>(
    whose: RegExp,
    properties: readonly string[],
    read: (value: string) => Read | undefined,
  ): Read | undefined => {
    let found: Read | undefined;
    for (const { selectors, declarations } of rules) {
      if (!selectors.some((selector) => whose.test(selector))) continue;
      for (const [property, value] of declarations)
        if (properties.includes(property)) found = read(resolve(value)) ?? found;
    }
    return found;
  };
  const read: string[] = [];
  const noted = <Read>(what: string, value: Read | undefined): Read | undefined => {
    if (value !== undefined) read.push(what);
    return value;
  };
  const GROUND = ['background', 'background-color'];

  const surface = noted('ground', last(PAGE, GROUND, colourOf)) ?? '#ffffff';
  const said = noted('text colour', last(PAGE, ['color'], colourOf));
  const ink = nearestPassing(said ?? begin.palette.ink, surface);
  const filled = last(BUTTON, GROUND, colourOf);
  const outlined = last(BUTTON, ['border', 'border-color'], colourOf);
  const accent = noted(
    'accent',
    [filled, outlined, last(LINK, ['color'], colourOf)].find((one) => one && one !== surface),
  );
  const accentText = last(BUTTON, ['color'], colourOf);
  const shown = nearestPassing(accent ?? begin.palette.accent, surface, LEAST_LARGE_CONTRAST);
  const isDark = luminance(surface) < 0.2;
  const field = last(FIELD, GROUND, colourOf) ?? (isDark ? mixColours(surface, '#ffffff', 0.92) : '#ffffff');
  const control = noted('corners of buttons', last(BUTTON, ['border-radius'], pixels));
  const box = noted('corners of boxes', last(BOX, ['border-radius'], pixels));
  const text = noted('letters', last(PAGE, ['font-family', 'font'], fontOfPage));
  const heading = noted('letters of headings', last(HEADING, ['font-family', 'font'], fontOfPage));
  const size = noted('size of letters', last(PAGE, ['font-size', 'font'], pixels));
  return {
    style: {
      ...begin,
      palette: {
        surface,
        ink,
        soft: nearestPassing(mixColours(ink, surface, 0.3), surface, LEAST_TEXT_CONTRAST),
        accent: shown,
        accentText: nearestPassing(accentText && filled ? accentText : surface, shown),
        line: mixColours(ink, surface, 0.8),
        field,
        fieldText: nearestPassing(ink, field),
        backdrop: isDark ? mixColours(surface, '#000000', 0.5) : begin.palette.backdrop,
      },
      fonts: { text: text ?? begin.fonts.text, heading: heading ?? text ?? begin.fonts.heading },
      textSize: clamp(size ?? begin.textSize, 13, 24),
      corners: {
        control: clamp(control ?? begin.corners.control, 0, 60),
        box: clamp(box ?? (control === undefined ? begin.corners.box : control * 1.5), 0, 60),
      },
      buttons: filled === undefined && outlined !== undefined ? 'outline' : begin.buttons,
    },
    read,
  };
}

const clamp = (value: number, least: number, most: number): number =>
  Math.min(most, Math.max(least, Math.round(value)));

/** The first length of a value, as CSS pixels; a round one is as round as can be. */
function pixels(value: string): number | undefined {
  const [, amount, unit] = /(?:^|\s)([\d.]+)(px|rem|em|%)?(?=\s|\/|$)/.exec(value) ?? [];
  if (amount === undefined || Number.isNaN(Number(amount))) return undefined;
  if (unit === '%') return Number(amount) >= 50 ? 60 : undefined;
  if (unit === undefined) return Number(amount) === 0 ? 0 : undefined;
  return Number(amount) * (unit === 'px' ? 1 : 16);
}
