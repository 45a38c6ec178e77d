import type { Message, Style } from '@velarium/contract';
import { ANCHORS, type Anchor, type Format } from '@velarium/contract/values';
import { allBlocks } from './walk.ts';

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

/** A message in another format: each place it cannot keep becomes the format's own, and on a device that of all. */
export function withFormat(message: Message, format: Format): Message {
  const keep = ({ anchor, ...style }: Style): Style =>
    anchor && FORMAT_ANCHORS[format].includes(anchor) ? { anchor, ...style } : style;
  const { all, tablet, mobile } = message.style;
  return {
    ...message,
    format,
    anchor: anchorFor(format, message.anchor),
    style: { all, tablet: keep(tablet), mobile: keep(mobile) },
  };
}

/**
 * Whether following a link of this message is its conversion. A message that asks for answers converts by being
 * sent; one that asks for none converts when its link is followed.
 */
export function convertsByLink(message: Message): boolean {
  return !allBlocks(message).some(({ kind }) => kind === 'form');
}
