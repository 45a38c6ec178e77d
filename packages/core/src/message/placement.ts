import type { Message } from '@velarium/contract';
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
export function anchorFor(format: Format, wanted: Anchor): Anchor {
  const possible = FORMAT_ANCHORS[format];
  return possible.includes(wanted) ? wanted : (possible[0] as Anchor);
}

/**
 * Whether following a link of this message is its conversion. A message that asks for answers converts by being
 * sent; one that asks for none converts when its link is followed.
 */
export function convertsByLink(message: Message): boolean {
  return !allBlocks(message).some(({ kind }) => kind === 'form');
}
