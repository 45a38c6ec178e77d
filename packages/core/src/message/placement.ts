import type { Message, Style } from '@velarium/contract';
import { ANCHORS, type Anchor, type Format } from '@velarium/contract/values';

/** The anchors each format can hold on to; the first is where it goes when it had another. */
export const FORMAT_ANCHORS: Readonly<Record<Format, readonly Anchor[]>> = {
  popup: ANCHORS,
  modal: ['center', 'top', 'bottom'],
  flyin: ['bottom-end', 'bottom-start', 'top-end', 'top-start', 'end', 'start', 'bottom', 'top'],
  slidein: ['end', 'start', 'top', 'bottom'],
  bar: ['top', 'bottom'],
  fullscreen: ['center'],
};

/** Formats that stop a visitor: a backdrop or the whole window stands between them and the page. */
export const isInterrupting = (format: Format): boolean => format === 'modal' || format === 'fullscreen';

/** The anchor a message keeps when its format changes, or the format's own first. */
function anchorFor(format: Format, wanted: Anchor): Anchor {
  const possible = FORMAT_ANCHORS[format];
  return possible.includes(wanted) ? wanted : (possible[0] as Anchor);
}

/** Formats that reach from edge to edge: a size of the format before would make a card of them. */
const isAttached = (format: Format): boolean =>
  format === 'bar' || format === 'slidein' || format === 'fullscreen';

/** A style without what another format must decide for itself. */
function withoutSizes({
  width: _width,
  height: _height,
  leastWidth: _leastWidth,
  mostWidth: _mostWidth,
  leastHeight: _leastHeight,
  mostHeight: _mostHeight,
  offsetBlock: _offsetBlock,
  offsetInline: _offsetInline,
  corners: _corners,
  ...style
}: Style): Style {
  return style;
}

/**
 * A message in another format: each place it cannot keep becomes the format's own, and on a device that of all. Between
 * a box and what reaches from edge to edge, or back, sizes become the format's own too.
 */
export function withFormat(message: Message, format: Format): Message {
  const change =
    format !== message.format && (isAttached(format) || isAttached(message.format)) ? withoutSizes : same;
  const keep = ({ anchor, ...style }: Style): Style =>
    anchor && FORMAT_ANCHORS[format].includes(anchor) ? { anchor, ...style } : style;
  const { all, tablet, mobile } = message.style;
  return {
    ...message,
    format,
    anchor: anchorFor(format, message.anchor),
    style: { all: change(all), tablet: change(keep(tablet)), mobile: change(keep(mobile)) },
  };
}

const same = (style: Style): Style => style;
