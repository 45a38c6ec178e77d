import type { PageReading } from './page-index.ts';

export type PageFit = 'fits' | 'unmatched' | 'excluded';

/** What page rules made of a page, in a word: leaving out wins. */
export const fitOf = ([isIn, isOut]: PageReading): PageFit =>
  !isIn ? 'unmatched' : isOut ? 'excluded' : 'fits';
