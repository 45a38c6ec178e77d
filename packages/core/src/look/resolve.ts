import type {
  ColourValue,
  Device,
  LookStyle,
  Message,
  Palette,
  Size,
  Style,
  Styled,
} from '@velarium/contract';
import { isInterrupting } from '../message/placement.ts';

/** A message's colours: its own, else its Look's. */
export const paletteOf = (message: Pick<Message, 'palette'>, look: LookStyle): Palette =>
  ({ ...look.palette, ...message.palette }) as Palette;

export const colourOf = (value: ColourValue, palette: Palette): string =>
  value.startsWith('#') ? value : palette[value as keyof Palette];

/** What holds on a device: what is said for it, else what is said for all. */
export const styleOn = ({ all, tablet, mobile }: Styled, device: Device): Style =>
  device === 'desktop' ? all : { ...all, ...(device === 'tablet' ? tablet : mobile) };

/** What a message says of itself for all devices, and may say otherwise for a tablet or a phone. */
type PlacedKey = 'anchor' | 'backdropCloses' | 'holdsPage' | 'pushesPage' | 'isSticky';

/** What a message says of its place and the page behind on a device: what is said for it, else for all. */
export function placedOn<Key extends PlacedKey>(
  message: Pick<Message, Key | 'style'>,
  key: Key,
  device: Device,
): Message[Key] {
  const own: { readonly [Key in PlacedKey]?: Message[Key] | undefined } = styleOn(message.style, device);
  return own[key] ?? message[key];
}

type BoxKey =
  | 'width'
  | 'height'
  | 'leastWidth'
  | 'mostWidth'
  | 'leastHeight'
  | 'mostHeight'
  | 'offsetBlock'
  | 'offsetInline'
  | 'space'
  | 'paddingBlock'
  | 'paddingInline'
  | 'align'
  | 'colour'
  | 'ground'
  | 'borderWidth'
  | 'borderColour'
  | 'corners'
  | 'shadow'
  | 'textSize'
  | 'backdropColour'
  | 'backdropStrength'
  | 'backdropBlur';
export type BoxStyle = { readonly [Key in BoxKey]: NonNullable<Style[Key]> };

const px = (value: number): Size => ({ unit: 'px', value });
const WHOLE: Size = { unit: 'percent', value: 100 };
/** Wider and higher than any window, CSS pixels: the box ends where the window does. */
const UNBOUNDED = 100_000;
const CONTENT: Size = { unit: 'content' };

/** What a format looks like before anything is said. */
function boxDefaults(
  message: Pick<Message, 'format' | 'anchor' | 'style'>,
  look: LookStyle,
  device: Device,
): BoxStyle {
  const { format } = message;
  const anchor = placedOn(message, 'anchor', device);
  const isPhone = device === 'mobile';
  const isAttached = format === 'slidein' || format === 'bar' || format === 'fullscreen';
  const isTall = format === 'slidein' && (anchor === 'start' || anchor === 'end');
  const isSmall = format === 'flyin' || format === 'popup';
  const room = isPhone || isSmall ? 22 : 28;
  return {
    width: isTall ? px(380) : isAttached ? WHOLE : px(isSmall ? 340 : 460),
    height: isTall || format === 'fullscreen' ? WHOLE : CONTENT,
    leastWidth: 0,
    mostWidth: UNBOUNDED,
    leastHeight: 0,
    mostHeight: UNBOUNDED,
    offsetBlock: isAttached ? 0 : 16,
    offsetInline: isAttached ? 0 : 16,
    space: 14,
    paddingBlock: format === 'bar' ? 12 : room,
    paddingInline: format === 'bar' ? 20 : room,
    align: format === 'fullscreen' ? 'center' : 'start',
    colour: 'ink',
    ground: { kind: 'colour', colour: 'surface' },
    borderWidth: 0,
    borderColour: 'line',
    corners: isAttached ? 0 : look.corners.box,
    shadow: format === 'fullscreen' ? 'none' : look.shadow,
    textSize: look.textSize,
    backdropColour: 'backdrop',
    backdropStrength: isInterrupting(format) ? 62 : 0,
    backdropBlur: 0,
  };
}

/** Everything about the box on one device: the format's defaults, then the message's own word. */
export function boxStyle(
  message: Pick<Message, 'format' | 'anchor' | 'style'>,
  look: LookStyle,
  device: Device,
): BoxStyle {
  return { ...boxDefaults(message, look, device), ...styleOn(message.style, device) } as BoxStyle;
}

/** How wide the box stands in a window, CSS pixels; what is as wide as its content counts as half the window. */
export function boxWidth(box: BoxStyle, windowWidth: number): number {
  const free = windowWidth - 2 * box.offsetInline;
  const wanted =
    box.width.unit === 'px'
      ? box.width.value
      : box.width.unit === 'percent'
        ? (windowWidth * box.width.value) / 100
        : windowWidth / 2;
  // As in CSS, the least wins over the most (CSS Sizing 3, 5.2).
  return Math.min(free, Math.max(box.leastWidth, Math.min(box.mostWidth, wanted)));
}
