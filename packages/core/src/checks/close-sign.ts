import type { Device, Ground, LookStyle, Message, Palette, Step } from '@velarium/contract';
import { boxStyle, colourOf, paletteOf, styleOn } from '../look/resolve.ts';
import { isInterrupting } from '../message/placement.ts';
import { contrastRatio, mixColours } from './contrast.ts';

/** The lightest and the darkest that can lie behind what we do not know: a page, or a picture. */
const UNKNOWN = ['#ffffff', '#000000'];
/** How far the button inside the box stands from its corner, CSS pixels. */
const INSET = 10;

function groundColours(ground: Ground, palette: Palette): readonly string[] {
  switch (ground.kind) {
    case 'colour':
      return [colourOf(ground.colour, palette)];
    case 'gradient':
      return [ground.from, ground.to].map((one) => colourOf(one, palette));
    case 'picture':
      return UNKNOWN.map((one) => mixColours(one, colourOf(ground.tint, palette), ground.strength / 100));
  }
}

/** Whether the button, standing inside the box, lies on a picture or a film rather than on the box itself. */
function liesOnPicture(message: Message, step: Step, look: LookStyle, device: Device): boolean {
  const { corner, size } = message.close;
  const box = boxStyle(message, look, device);
  const shown = step.blocks.filter(({ style }) => !styleOn(style, device).hidden);
  const isUnder = ({ style }: Step['blocks'][number]) => {
    const { side } = styleOn(style, device);
    return side === 'top' || side === corner;
  };
  if (shown.some((block) => block.kind === 'picture' && isUnder(block))) return true;
  const [first] = shown;
  const middle = INSET + size / 2;
  return (
    (first?.kind === 'picture' || first?.kind === 'film') &&
    middle > box.paddingBlock &&
    middle > box.paddingInline
  );
}

/**
 * Every colour that can lie behind the close button on a step: its own ground, else what it stands on, pictures and the
 * darkened page included.
 */
function behindClose(message: Message, step: Step, look: LookStyle, device: Device): readonly string[] {
  const { close, format } = message;
  const palette = paletteOf(message, look);
  if (close.ground !== null) return [colourOf(close.ground, palette)];
  const box = boxStyle(message, look, device);
  const inside = liesOnPicture(message, step, look, device) ? UNKNOWN : groundColours(box.ground, palette);
  const strength = isInterrupting(format) ? box.backdropStrength / 100 : 0;
  const outside = UNKNOWN.map((one) => mixColours(one, colourOf(box.backdropColour, palette), strength));
  return close.place === 'inside' ? inside : close.place === 'outside' ? outside : [...inside, ...outside];
}

/** The contrast of the close button's sign with the least favourable of what can lie behind it. */
export function closeContrast(message: Message, step: Step, look: LookStyle, device: Device): number {
  const { sign, picture, colour } = message.close;
  // A picture brings its own ground.
  if (sign === 'picture' && picture !== null) return 21;
  const ink = colourOf(colour, paletteOf(message, look));
  return Math.min(...behindClose(message, step, look, device).map((ground) => contrastRatio(ink, ground)));
}
