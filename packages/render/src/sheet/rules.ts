import type { ColourValue, Ground, Pictures, Size, Style } from '@velarium/contract';
import { readOwnCss } from '@velarium/core';

/** Declarations of one rule; what is `undefined` is not said. */
export type Declarations = Readonly<Record<string, string | number | undefined>>;

export const rule = (selector: string, declarations: Declarations): string => {
  const said = Object.entries(declarations).flatMap(([name, value]) =>
    value === undefined ? [] : `${name}:${value}`,
  );
  return said.length === 0 ? '' : `${selector}{${said.join(';')}}\n`;
};

/** Only where a pointer hovers: after a tap a phone would keep the state of hovering until the next one. */
export const onHover = (rules: string): string => (rules === '' ? '' : `@media (hover:hover){${rules}}\n`);

/** A role as the variable the palette sets, or the colour itself. */
export const colour = (value: ColourValue): string => (value.startsWith('#') ? value : `var(--${value})`);

export const size = (value: Size): string =>
  value.unit === 'px' ? `${value.value}px` : value.unit === 'percent' ? `${value.value}vw` : 'max-content';
export const blockSize = (value: Size): string =>
  value.unit === 'px' ? `${value.value}px` : value.unit === 'percent' ? `${value.value}vh` : 'auto';

/** Where pictures are loaded from. */
export interface PictureSource {
  readonly base: string;
  readonly pictures: Pictures;
}

/** Widest a ground is ever drawn; the file next larger is taken. */
const GROUND_WIDTH = 1280;

export const pictureAddress = (
  { base, pictures }: PictureSource,
  ref: string,
  width: number,
): string | undefined => {
  const file = pictures[ref];
  if (!file) return undefined;
  const fitting = file.widths.find((one) => one >= width) ?? file.widths.at(-1);
  return `${base}${file.path}${fitting === undefined ? '' : `/${fitting}`}`;
};

function ground(value: Ground, source: PictureSource): Declarations {
  if (value.kind === 'colour') return { background: colour(value.colour) };
  if (value.kind === 'gradient') {
    return { background: `linear-gradient(${value.degrees}deg,${colour(value.from)},${colour(value.to)})` };
  }
  const tint = `color-mix(in srgb,${colour(value.tint)} ${value.strength}%,transparent)`;
  const address = pictureAddress(source, value.picture, GROUND_WIDTH);
  if (address === undefined) return { background: colour(value.tint) };
  return {
    background: `linear-gradient(${tint},${tint}),url("${address}") ${value.focus[0]}% ${value.focus[1]}%/cover ${colour(value.tint)}`,
  };
}

const SHADOW_OF = {
  none: 'none',
  hair: '0 0 0 1px #0002',
  lifted: '0 1px 2px #0003,0 12px 40px #0004',
  floating: '0 2px 6px #0003,0 24px 70px #0006',
} as const;

/** A person's own declarations, after everything the style says. */
export const ownCss = ({ own }: Pick<Style, 'own'>): Declarations =>
  own === undefined ? {} : readOwnCss(own).declarations;

/** What a style says of the surface of anything: colours, edges, room, letters. */
export function surface(style: Style, source: PictureSource): Declarations {
  return {
    color: style.colour && colour(style.colour),
    ...(style.ground ? ground(style.ground, source) : {}),
    border:
      style.borderWidth === undefined && style.borderColour === undefined
        ? undefined
        : `${style.borderWidth ?? 1}px solid ${colour(style.borderColour ?? 'line')}`,
    'border-radius': style.corners === undefined ? undefined : `${style.corners}px`,
    'box-shadow': style.shadow && SHADOW_OF[style.shadow],
    'padding-block': style.paddingBlock === undefined ? undefined : `${style.paddingBlock}px`,
    'padding-inline': style.paddingInline === undefined ? undefined : `${style.paddingInline}px`,
    'font-size': style.textSize === undefined ? undefined : `calc(${style.textSize}em/var(--base))`,
    'font-weight': style.weight && (style.weight === 'strong' ? 680 : 400),
  };
}
