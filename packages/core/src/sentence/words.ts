import type { Anchor, Comparison, Device, Format, Pause, Span } from '@velarium/contract';

/** Joins with commas and a final word: `a`, `a and b`, `a, b and c`. */
export function listOf(items: readonly string[], last: 'and' | 'or' = 'and'): string {
  if (items.length < 2) return items.join('');
  return `${items.slice(0, -1).join(', ')} ${last} ${items.at(-1)}`;
}

/** `once per visitor` as it begins a sentence: `Once per visitor`. */
export const capital = (words: string): string => words.charAt(0).toUpperCase() + words.slice(1);

/** `12,345`. */
export const figure = (count: number): string => count.toLocaleString('en-GB');

/** `1 second`, `2 seconds`, `1.5 seconds`. */
export function quantity(count: number, singular: string): string {
  return `${count} ${singular}${count === 1 ? '' : 's'}`;
}

/** `1 page`, `12,345 pages`: how many there are, for people to read. */
export const counted = (count: number, singular: string, plural = `${singular}s`): string =>
  `${figure(count)} ${count === 1 ? singular : plural}`;

/** Words of a person's own, in quotation marks that cannot be mistaken for words of the sentence. */
export const quoted = (text: string): string => `“${text.replace(/[“”\\]/g, '\\$&')}”`;

/** `1st`, `2nd`, `11th`, `23rd`. */
export function ordinal(count: number): string {
  const tens = count % 100;
  const ending = tens > 10 && tens < 14 ? 'th' : (['th', 'st', 'nd', 'rd'][count % 10] ?? 'th');
  return `${count}${ending}`;
}

export const COMPARISON_WORDS: Readonly<Record<Comparison, string>> = {
  atLeast: 'at least',
  atMost: 'at most',
  exactly: 'exactly',
};

/** What a comparison comes to where it must not hold. */
export const CONTRARY_WORDS: Readonly<Record<Comparison, string>> = {
  atLeast: 'fewer than',
  atMost: 'more than',
  exactly: 'other than',
};

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

export const A_DEVICE_WORDS: Readonly<Record<Device, string>> = {
  desktop: 'a desktop',
  tablet: 'a tablet',
  mobile: 'a phone',
};
/** Devices of a kind, all of them. */
export const DEVICES_WORDS: Readonly<Record<Device, string>> = {
  desktop: 'desktops',
  tablet: 'tablets',
  mobile: 'phones',
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
