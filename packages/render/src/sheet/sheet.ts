import type { Device, LookStyle, Message, Palette, Pictures, SiteSettings } from '@velarium/contract';
import { allBlocks, nightOf, paletteOf, partsOf } from '@velarium/core';
import { type LoadedLetters, lettersCss } from '../letters/letters-css.ts';
import { blockCss, buttonsCss, fieldsCss, kindCss } from './blocks.ts';
import { boxCss, closeCss } from './box.ts';
import { motionCss } from './motion.ts';
import type { PictureSource } from './rules.ts';
import { FURTHER_CSS, staticCss } from './static.ts';

export interface SheetInput {
  readonly look: LookStyle;
  readonly breakpoints: SiteSettings['breakpoints'];
  readonly pictures: Pictures;
  /** Origin that pictures are loaded from; empty for the page's own. */
  readonly pictureBase: string;
  /** Letters of the site's own, which are loaded with the message. */
  readonly letters?: readonly LoadedLetters[];
  /** Draws as on this device whatever the window: for stages that stand for one. */
  readonly as?: Device;
  /** Draws as on a device that asks for this, whatever this one asks for. */
  readonly scheme?: 'light' | 'dark';
}

const paletteCss = (palette: Palette): string =>
  `.layer{${Object.entries(palette)
    .map(([role, value]) => `--${role}:${value}`)
    .join(';')}}\n`;

/** The colours, and those for the dark where the message has them. Source: CSS Media Queries 5, prefers-color-scheme. */
function schemeCss({ darkens }: Message, palette: Palette, scheme: SheetInput['scheme']): string {
  if (!darkens || scheme === 'light') return paletteCss(palette);
  const night = paletteCss(nightOf(palette));
  return scheme === 'dark' ? night : `${paletteCss(palette)}@media (prefers-color-scheme:dark){${night}}\n`;
}

/** The media query for a device: by width, and a tablet by its coarse pointer too. */
function query(device: Device, { mobile, tablet }: SiteSettings['breakpoints']): string {
  const isMobile = `(width < ${mobile}px)`;
  const isTablet = `((width >= ${mobile}px) and (width < ${tablet}px) and (pointer:coarse))`;
  return device === 'mobile'
    ? isMobile
    : device === 'tablet'
      ? isTablet
      : `(not ${isMobile}) and (not ${isTablet})`;
}

/** The sheet of one message: its Look, its own style, and what differs on a tablet and on a phone. */
export function sheetOf(
  message: Message,
  { look, breakpoints, pictures, pictureBase, letters = [], as, scheme }: SheetInput,
): string {
  const source: PictureSource = { base: pictureBase, pictures };
  const blocks = allBlocks(message);
  const palette = paletteOf(message, look);
  const forDevice = (device: Device, css: string) => {
    if (css === '') return '';
    if (as !== undefined) return as === device ? css : '';
    return `@media ${query(device, breakpoints)}{\n${css}}\n`;
  };
  const hidden = (device: Device) =>
    blocks
      .filter(({ style }) => ({ ...style.all, ...(device === 'desktop' ? {} : style[device]) }).hidden)
      .map(({ id }) => `[data-block="${id}"]{display:none!important}\n`)
      .join('');
  return [
    schemeCss(message, palette, scheme),
    staticCss(look),
    lettersCss(letters, pictureBase),
    partsOf(message, look).includes('further') ? FURTHER_CSS : '',
    fieldsCss(look),
    buttonsCss(look),
    boxCss(message, look, 'desktop', source),
    closeCss(message, source),
    ...blocks.map((block) => kindCss(block) + blockCss(block, block.style.all, source)),
    ...(['tablet', 'mobile'] as const).map((device) =>
      forDevice(
        device,
        boxCss(message, look, device, source) +
          blocks
            .map((block) =>
              Object.keys(block.style[device]).length === 0
                ? ''
                : blockCss(block, onDevice(block, device), source),
            )
            .join(''),
      ),
    ),
    ...(['desktop', 'tablet', 'mobile'] as const).map((device) => forDevice(device, hidden(device))),
    motionCss(message),
  ].join('');
}

/** A border or a side of two words needs both of them, so the words for all stand behind those for a device. */
const onDevice = (block: ReturnType<typeof allBlocks>[number], device: 'tablet' | 'mobile') => ({
  ...block.style.all,
  ...block.style[device],
});
