import type { LookStyle, Palette, Shadow } from '@velarium/contract';
import { COLOUR_ROLES, FONTS, SHADOWS } from '@velarium/contract/values';
import { fontOfPage } from './font-of-page.ts';
import { fontStack } from './letters.ts';
import { FONT_STACKS, PLAIN_LOOK } from './looks.ts';

/**
 * A Look as design tokens, and back. Source: Design Tokens Format Module 2025.10 of the W3C community group
 * (https://www.designtokens.org/tr/2025.10/format/), from memory: `$type` and `$value`, groups, colours as an object of
 * colour space and components, dimensions as value and unit, aliases in braces.
 */
type Json = null | boolean | number | string | readonly Json[] | { readonly [key: string]: Json };
type Group = { readonly [key: string]: Json };

const channel = (colour: string, at: number) => Number.parseInt(colour.slice(at, at + 2), 16) / 255;
const colourToken = (colour: string): Group => ({
  $type: 'color',
  $value: {
    colorSpace: 'srgb',
    components: [1, 3, 5].map((at) => Number(channel(colour, at).toFixed(4))),
    hex: colour,
  },
});
const dimension = (value: number): Group => ({ $type: 'dimension', $value: { value, unit: 'px' } });
const word = (value: string): Group => ({ $type: 'string', $value: value });

export function lookToTokens(name: string, look: LookStyle): Group {
  return {
    $description: `The Look “${name}”`,
    colour: Object.fromEntries(COLOUR_ROLES.map((role) => [role, colourToken(look.palette[role])])),
    font: Object.fromEntries(
      (['text', 'heading'] as const).map((part) => [
        part,
        {
          $type: 'fontFamily',
          $value: fontStack(look.fonts[part])
            .split(',')
            .map((one) => one.replaceAll('"', '').trim()),
        },
      ]),
    ),
    size: { text: dimension(look.textSize) },
    scale: { $type: 'number', $value: look.scale / 100 },
    corners: { box: dimension(look.corners.box), control: dimension(look.corners.control) },
    shadow: word(look.shadow),
    buttons: word(look.buttons),
    fields: word(look.fields),
  };
}

export interface TokensRead {
  readonly style: LookStyle;
  /** Tokens that were used, by their path. */
  readonly used: readonly string[];
  /** What a Look says and the file did not; taken from the Look it began as. */
  readonly missing: readonly string[];
  /** Tokens that name a part of a Look in a way that cannot be read, with the reason. */
  readonly refused: readonly { readonly path: string; readonly reason: string }[];
}

/** Why a file is not taken. */
export class TokensError extends Error {}

const isGroup = (value: unknown): value is Group =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** Other people's names for the same parts (common practice). */
const SAME_AS: Readonly<Record<string, readonly string[]>> = {
  surface: ['surface', 'background', 'bg', 'paper', 'base'],
  ink: ['ink', 'text', 'foreground', 'fg', 'onsurface', 'body'],
  soft: ['soft', 'muted', 'subtle', 'secondarytext', 'textmuted'],
  accent: ['accent', 'primary', 'brand', 'action'],
  accentText: ['onaccent', 'onprimary', 'accenttext', 'primarytext', 'onbrand'],
  line: ['line', 'border', 'outline', 'divider', 'stroke'],
  field: ['field', 'input', 'inputbackground'],
  fieldText: ['onfield', 'inputtext', 'fieldtext'],
  backdrop: ['backdrop', 'scrim', 'overlay'],
};

/**
 * Reads design tokens into a Look. What the file does not say stays as in `begin`.
 *
 * @throws {TokensError} If it is no token file, or holds no token that a Look could use.
 */
export function tokensToLook(file: unknown, begin: LookStyle = PLAIN_LOOK): TokensRead {
  if (!isGroup(file)) throw new TokensError('This is no design token file: it must be one JSON object.');
  const tokens = new Map<string, Json>();
  const walk = (group: Group, path: readonly string[]) => {
    if ('$value' in group) {
      tokens.set(path.join('.'), group.$value as Json);
      return;
    }
    for (const [key, inner] of Object.entries(group)) {
      if (!key.startsWith('$') && isGroup(inner)) walk(inner, [...path, key]);
    }
  };
  walk(file, []);

  const valueAt = (path: string, seen: readonly string[] = []): Json | undefined => {
    const value = tokens.get(path);
    const alias = typeof value === 'string' ? /^\{([^{}]+)\}$/.exec(value)?.[1] : undefined;
    if (alias === undefined || seen.includes(alias)) return alias === undefined ? value : undefined;
    return valueAt(alias, [...seen, path]);
  };
  const used: string[] = [];
  const refused: { path: string; reason: string }[] = [];
  const find = <Read>(
    names: readonly string[],
    read: (value: Json) => Read | undefined,
  ): Read | undefined => {
    for (const name of names) {
      for (const path of tokens.keys()) {
        const parts = path.split('.').map((part) => part.toLowerCase().replace(/[^a-z]/g, ''));
        if (parts.at(-1) !== name && parts.slice(-2).join('.') !== name) continue;
        const value = valueAt(path);
        const result = value === undefined ? undefined : read(value);
        if (result === undefined) {
          const reason = value === undefined ? undefined : unreadable(value);
          if (reason !== undefined && !refused.some((one) => one.path === path))
            refused.push({ path, reason });
          continue;
        }
        used.push(path);
        return result;
      }
    }
    return undefined;
  };

  const missing: string[] = [];
  const take = <Read>(what: string, read: Read | undefined, otherwise: Read): Read => {
    if (read !== undefined) return read;
    missing.push(what);
    return otherwise;
  };
  const palette = Object.fromEntries(
    COLOUR_ROLES.map((role) => [
      role,
      take(`colour ${role}`, find(SAME_AS[role] ?? [], readColour), begin.palette[role]),
    ]),
  ) as Palette;
  const style: LookStyle = {
    palette,
    fonts: {
      text: take(
        'font text',
        find(['font.text', 'font.body', 'fontfamily.body', 'fontfamily', 'typography.body'], readFont),
        begin.fonts.text,
      ),
      heading: take(
        'font heading',
        find(['font.heading', 'fontfamily.heading', 'typography.heading', 'heading'], readFont),
        begin.fonts.heading,
      ),
    },
    textSize: take(
      'text size',
      find(['size.text', 'fontsize.body', 'fontsize', 'typography.body'], readPx(13, 24)),
      begin.textSize,
    ),
    scale: take(
      'scale',
      find(['scale'], (value) =>
        typeof value === 'number' ? clamp(Math.round(value * 100), 105, 160) : undefined,
      ),
      begin.scale,
    ),
    corners: {
      box: take(
        'corners box',
        find(['corners.box', 'radius.box', 'radius.large', 'radius.lg'], readPx(0, 60)),
        begin.corners.box,
      ),
      control: take(
        'corners control',
        find(['corners.control', 'radius.control', 'radius.small', 'radius.sm'], readPx(0, 60)),
        begin.corners.control,
      ),
    },
    shadow: take('shadow', find(['shadow'], oneOf<Shadow>(SHADOWS)), begin.shadow),
    buttons: take('buttons', find(['buttons'], oneOf(['solid', 'outline', 'soft'] as const)), begin.buttons),
    fields: take('fields', find(['fields'], oneOf(['boxed', 'filled', 'ruled'] as const)), begin.fields),
  };
  if (used.length === 0) {
    throw new TokensError('No token in this file names a colour, a font or a size that a Look could use.');
  }
  return { style, used, missing, refused };
}

const clamp = (value: number, least: number, most: number) => Math.min(most, Math.max(least, value));

const hexOf = (parts: readonly number[]): string =>
  `#${parts
    .map((part) =>
      Math.round(clamp(part, 0, 1) * 255)
        .toString(16)
        .padStart(2, '0'),
    )
    .join('')}`;

/** Hue in degrees, the others in per cent. Source: CSS Color Module Level 4, 7.1, the sample code for HSL. */
function fromHsl(hue: number, saturation: number, lightness: number): string {
  const [s, l] = [saturation / 100, lightness / 100];
  const channelAt = (n: number) => {
    const k = (n + hue / 30) % 12;
    return l - s * Math.min(l, 1 - l) * Math.max(-1, Math.min(k - 3, 9 - k, 1));
  };
  return hexOf([channelAt(0), channelAt(8), channelAt(4)]);
}

/** A colour that lets something through cannot be told from one that does not once it is six digits. */
const isOpaque = (alpha: unknown): boolean => alpha === undefined || alpha === 1 || alpha === 'ff';

function readColour(value: Json): string | undefined {
  if (typeof value === 'string') {
    const [, hex, alpha] = /^#([0-9a-f]{3}|[0-9a-f]{6})([0-9a-f]{2})?$/i.exec(value.toLowerCase()) ?? [];
    if (!hex || !isOpaque(alpha)) return undefined;
    return `#${hex.length === 3 ? [...hex].map((digit) => digit + digit).join('') : hex}`;
  }
  if (!isGroup(value) || !isOpaque(value.alpha)) return undefined;
  const parts = value.components;
  if (
    Array.isArray(parts) &&
    parts.length === 3 &&
    parts.every((part): part is number => typeof part === 'number')
  ) {
    const [a, b, c] = parts as [number, number, number];
    if (value.colorSpace === 'srgb') return hexOf(parts);
    if (value.colorSpace === 'hsl') return fromHsl(((a % 360) + 360) % 360, b, c);
  }
  // In other colour spaces the format lets a file name the nearest colour of sRGB beside it.
  return typeof value.hex === 'string' ? readColour(value.hex) : undefined;
}

/** Why a value that should be a colour or a font is not read, in words; nothing where it is neither. */
function unreadable(value: Json): string | undefined {
  if (typeof value === 'string')
    return /^#[0-9a-f]{8}$/i.test(value)
      ? 'it lets something through; Looks have solid colours'
      : /^(rgb|hsl|hwb|lab|lch|oklab|oklch|color)a?\(/i.test(value)
        ? 'write the colour as #rrggbb, or as a colour space with its components'
        : undefined;
  if (!isGroup(value)) return undefined;
  if (!isOpaque(value.alpha)) return 'it lets something through; Looks have solid colours';
  if (typeof value.colorSpace === 'string')
    return `the colour space “${value.colorSpace}” is not read; add the nearest “hex” beside it`;
  return undefined;
}

function readFont(given: Json): string | undefined {
  // Letters may be given as one whole: family, size and the rest together.
  const value = isGroup(given) ? (given.fontFamily ?? null) : given;
  const names = (Array.isArray(value) ? value : [value]).filter(
    (one): one is string => typeof one === 'string',
  );
  const first = names[0]?.toLowerCase();
  if (first === undefined) return undefined;
  const same = FONTS.find(
    (font) => FONT_STACKS[font].replaceAll('"', '').toLowerCase().split(',')[0] === first,
  );
  return same ?? fontOfPage(names.join(', '));
}

const readPx =
  (least: number, most: number) =>
  (given: Json): number | undefined => {
    const value = isGroup(given) && given.fontSize !== undefined ? (given.fontSize as Json) : given;
    const [amount, unit] = isGroup(value)
      ? [value.value, value.unit]
      : (typeof value === 'string' && /^([\d.]+)(px|rem)$/.exec(value)?.slice(1)) || [];
    if (typeof amount !== 'number' && typeof amount !== 'string') return undefined;
    const number = Number(amount);
    // The format knows these two.
    if (!Number.isFinite(number) || (unit !== 'px' && unit !== 'rem')) return undefined;
    return clamp(Math.round(unit === 'rem' ? number * 16 : number), least, most);
  };

const oneOf =
  <Value extends string>(values: readonly Value[]) =>
  (value: Json): Value | undefined =>
    values.find((one) => one === value);
