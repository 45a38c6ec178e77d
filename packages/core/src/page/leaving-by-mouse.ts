import type { ExitCertainty } from '@velarium/contract';

/** Pixels from the top edge, and pixels a millisecond upwards, that make an early and a likely sign. */
export const EARLY_SIGN = { zone: 160, speed: 0.8 };
export const LIKELY_SIGN = { zone: 40, speed: 0.3 };

export interface PointerPlace {
  /** Pixels from the left and the top edge of the window. */
  readonly x: number;
  readonly y: number;
  readonly atMs: number;
  readonly isMouse: boolean;
}

/** How the pointer left what it was over. */
export interface PointerOut {
  readonly x: number;
  readonly y: number;
  /** It is beyond the page by now; a frame or an element inside is not. */
  readonly isOut: boolean;
  /** Beyond it lies the scroll bar. */
  readonly pageWidth: number;
}

export interface MouseLeaving {
  /** The pointer has moved, or was pressed; `isChoosing`: a list of choices is open. */
  move(place: PointerPlace, isChoosing: boolean): ExitCertainty | undefined;
  out(how: PointerOut, isChoosing: boolean): ExitCertainty | undefined;
}

/**
 * Signs that a mouse leaves through the top of the window. Fingers and pens never do; going into a frame, sideways,
 * onto the scroll bar or to an open list of choices is no leaving.
 */
export function createMouseLeaving(): MouseLeaving {
  let last: PointerPlace | undefined;
  return {
    move(place, isChoosing) {
      const before = last?.isMouse ? last : undefined;
      last = place;
      if (!place.isMouse || isChoosing || !before || place.atMs <= before.atMs) return undefined;
      const speed = (before.y - place.y) / (place.atMs - before.atMs);
      const isIn = ({ zone, speed: least }: typeof EARLY_SIGN) => place.y < zone && speed > least;
      return isIn(LIKELY_SIGN) ? 'likely' : isIn(EARLY_SIGN) ? 'early' : undefined;
    },
    out: ({ x, y, isOut, pageWidth }, isChoosing) =>
      last?.isMouse && isOut && y <= 0 && x < pageWidth && !isChoosing ? 'certain' : undefined,
  };
}
