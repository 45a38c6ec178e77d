import type { Anchor, Device, Format, Pause, Span } from '@velarium/contract';

/** Joins with commas and a final "and": `a`, `a and b`, `a, b and c`. */
export function listOf(items: readonly string[]): string {
  if (items.length < 2) return items.join('');
  return `${items.slice(0, -1).join(', ')} and ${items.at(-1)}`;
}

/** `1 second`, `2 seconds`, `1.5 seconds`. */
export function quantity(count: number, singular: string): string {
  return `${count} ${singular}${count === 1 ? '' : 's'}`;
}

/** `7 days`, `1 week`. */
export const spanWords = ({ count, unit }: Span): string => quantity(count, unit.slice(0, -1));

/** `every day`, `every 7 days`: how a rolling window is said. */
export const everySpan = (span: Span): string =>
  span.count === 1 ? `every ${span.unit.slice(0, -1)}` : `every ${spanWords(span)}`;

export const FORMAT_WORDS: Readonly<Record<Format, string>> = {
  popup: 'pop-up',
  modal: 'modal',
  flyin: 'fly-in',
  slidein: 'slide-in',
  bar: 'bar',
  fullscreen: 'full-screen message',
};

export const ANCHOR_WORDS: Readonly<Record<Anchor, string>> = {
  'top-start': 'upper left',
  top: 'top',
  'top-end': 'upper right',
  start: 'left',
  center: 'centre',
  end: 'right',
  'bottom-start': 'lower left',
  bottom: 'bottom',
  'bottom-end': 'lower right',
};

export const DEVICE_WORDS: Readonly<Record<Device, string>> = {
  desktop: 'desktop',
  tablet: 'tablet',
  mobile: 'phone',
};

/** What follows "after a close" or "after a conversion". */
export function pauseWords(pause: Pause): string {
  switch (pause) {
    case 'none':
      return 'it may come again';
    case 'session':
      return 'it stays away for the rest of the session';
    case 'ever':
      return 'it never comes again';
    default:
      return `it stays away for ${spanWords(pause)}`;
  }
}
