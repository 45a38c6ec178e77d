import type { Device, LookStyle, Message } from '@velarium/contract';
import { type BoxStyle, boxStyle, isInterrupting, placedOn, styleOn } from '@velarium/core';
import {
  blockSize,
  colour,
  type Declarations,
  onHover,
  ownCss,
  type PictureSource,
  pictureAddress,
  rule,
  size,
  surface,
} from './rules.ts';

const BLOCK_ALIGN = (anchor: string) =>
  anchor.startsWith('top') ? 'start' : anchor.startsWith('bottom') ? 'end' : 'center';
const INLINE_ALIGN = (anchor: string) =>
  anchor.endsWith('start') ? 'start' : anchor.endsWith('end') ? 'end' : 'center';

/** The host covers the window without catching anything; a bar that goes with the page lies at its top. */
function hostRule(message: Message, device: Device): string {
  const goesWithPage =
    message.format === 'bar' &&
    placedOn(message, 'anchor', device) === 'top' &&
    !placedOn(message, 'isSticky', device);
  const place = goesWithPage
    ? 'position:absolute!important;inset:0 0 auto!important;block-size:100vh!important'
    : 'position:fixed!important;inset:0!important;block-size:auto!important';
  return `:host{all:initial!important;display:block!important;${place};z-index:2147483000!important;pointer-events:none!important;contain:layout style!important}\n`;
}

/** What the renderer reads to know how it treats the page on the device it is on. */
function behind(message: Message, device: Device): Declarations {
  if (isInterrupting(message.format)) return { '--holds': placedOn(message, 'holdsPage', device) ? 1 : 0 };
  if (message.format !== 'bar') return {};
  const side = placedOn(message, 'anchor', device) === 'top' ? 'top' : 'bottom';
  return { '--pushes': placedOn(message, 'pushesPage', device) ? side : 'none' };
}

/** The rules of the box on one device, by selector, so that another device need only say what differs. */
function boxRules(
  message: Message,
  look: LookStyle,
  device: Device,
  source: PictureSource,
): Map<string, string> {
  const box: BoxStyle = boxStyle(message, look, device);
  const anchor = placedOn(message, 'anchor', device);
  const rules = new Map<string, string>();
  const add = (selector: string, declarations: Parameters<typeof rule>[1]) =>
    rules.set(selector, rule(selector, declarations));
  const isHigh = box.height.unit !== 'content';
  rules.set(':host', hostRule(message, device));
  add('.layer', {
    padding: `${box.offsetBlock}px ${box.offsetInline}px`,
    'align-items': BLOCK_ALIGN(anchor),
    'justify-items': INLINE_ALIGN(anchor),
    'font-size': `${box.textSize / 16}em`,
    '--base': box.textSize,
    ...behind(message, device),
  });
  add('.box', {
    'inline-size': box.width.unit === 'content' ? 'fit-content' : `min(${size(box.width)},100%)`,
    'block-size': isHigh ? `min(${blockSize(box.height)},100%)` : 'auto',
    'min-inline-size': `min(${box.leastWidth}px,100%)`,
    'max-inline-size': `min(${box.mostWidth}px,100%)`,
    'min-block-size': `min(${box.leastHeight}px,100%)`,
    'max-block-size': `min(${box.mostHeight}px,100%)`,
  });
  const { paddingBlock: _block, paddingInline: _inline, textSize: _size, borderWidth, ...rest } = box;
  const { own } = styleOn(message.style, device);
  add('.card', {
    ...surface(rest, source),
    border: borderWidth === 0 ? 'none' : `${borderWidth}px solid ${colour(box.borderColour)}`,
    ...ownCss({ own }),
  });
  add('.inner', {
    padding: `${box.paddingBlock}px ${box.paddingInline}px`,
    gap: `${box.space}px`,
    'text-align': box.align,
    '--align': box.align,
  });
  add('.backdrop', {
    background: `color-mix(in srgb,${colour(box.backdropColour)} ${box.backdropStrength}%,transparent)`,
    // A click passes through to the layer, which does nothing with it.
    'pointer-events': placedOn(message, 'backdropCloses', device) ? 'auto' : 'none',
    'backdrop-filter': box.backdropBlur === 0 ? 'none' : `blur(${box.backdropBlur}px)`,
  });
  return rules;
}

/** The box for one device; for a tablet or a phone only what differs from the desktop. */
export function boxCss(message: Message, look: LookStyle, device: Device, source: PictureSource): string {
  const rules = boxRules(message, look, device, source);
  if (device === 'desktop') return [...rules.values()].join('');
  const base = boxRules(message, look, 'desktop', source);
  return [...rules].flatMap(([selector, text]) => (base.get(selector) === text ? [] : text)).join('');
}

/** CSS pixels that a box leaves beside itself on a phone; what stands out farther would be cut off. */
const ROOM_BESIDE = 16;

/** The way out: where its button stands, and when it is seen. */
export function closeCss({ close, format }: Message, source: PictureSource): string {
  const { place, corner, size: side } = close;
  const isRound = close.sign === 'cross';
  const address =
    close.sign === 'picture' && close.picture && pictureAddress(source, close.picture, side * 2);
  const edge = corner === 'end' ? 'inset-inline-end' : 'inset-inline-start';
  const offset = place === 'inside' ? 10 : place === 'edge' ? -Math.min(side / 2, ROOM_BESIDE) : -side - 6;
  return (
    rule('.close', {
      [edge]: `${place === 'outside' ? 0 : offset}px`,
      'inset-block-start': `${offset}px`,
      'min-inline-size': `${side}px`,
      'block-size': `${side}px`,
      color: colour(close.colour),
      background:
        (address ? `center/contain no-repeat url("${address}") ` : '') +
        (close.ground === null ? 'transparent' : colour(close.ground)),
      // The word stays for those who hear the page; the picture is its look.
      'font-size': address ? 0 : undefined,
      'border-radius': isRound ? '50%' : '6px',
      padding: isRound || address ? 0 : '0 10px',
      display: place === 'hidden' ? 'none' : 'grid',
      animation: close.delaySeconds > 0 ? `arrive 0s ${close.delaySeconds}s backwards` : undefined,
    }) +
    onHover(rule('.close:hover', { color: colour(close.hoverColour) })) +
    (close.delaySeconds > 0 ? '@keyframes arrive{from{visibility:hidden}}\n' : '') +
    (close.onHover
      ? onHover('.box:not(:hover,:has(:focus-visible)) .close:not(:focus-visible){opacity:0}')
      : '') +
    (place === 'inside' && format === 'bar'
      ? rule('.inner', { [`padding-inline-${corner}`]: `${side + 20}px!important` })
      : '') +
    // A word is as wide as it is: it has a line of its own, over what the box holds.
    (place === 'inside' && close.sign === 'word' && format !== 'bar'
      ? rule('.card', { 'padding-block-start': `${offset + side - 8}px` })
      : '') +
    (place === 'inside' && (isRound || address)
      ? rule('.inner>h2:first-child', { [`padding-inline-${corner}`]: `${Math.max(0, side - 8)}px` })
      : '')
  );
}
