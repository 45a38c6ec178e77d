import type { ExitCertainty } from '@velarium/contract';

/** Pixels from the top edge, and pixels a millisecond upwards, that make an early and a likely sign. */
const EARLY = { zone: 160, speed: 0.8 };
const LIKELY = { zone: 40, speed: 0.3 };

/** What a mouse at `y` pixels below the top edge, moving up at `speed` pixels a millisecond, is a sign of. */
export const exitSign = (y: number, speed: number): ExitCertainty | undefined =>
  y < LIKELY.zone && speed > LIKELY.speed
    ? 'likely'
    : y < EARLY.zone && speed > EARLY.speed
      ? 'early'
      : undefined;

/** A scroll up of this share of the window within this time is quick. */
const QUICK = { share: 0.35, withinMs: 500 };
/** Places closer in time than this are one. */
const EVERY_MS = 25;

export interface QuickScroll {
  /** A finger is put down: what was before is another movement. */
  begin(): void;
  /** Whether this place of the page, pixels from its top, is the end of a quick scroll up after a screen down. */
  move(y: number, atMs: number, windowHeight: number): boolean;
}

export function createQuickScroll(): QuickScroll {
  let deepest = 0;
  let trail: { y: number; atMs: number }[] = [];
  return {
    begin() {
      trail = [];
    },
    move(y, atMs, windowHeight) {
      deepest = Math.max(deepest, y);
      if (atMs - (trail.at(-1)?.atMs ?? Number.NEGATIVE_INFINITY) < EVERY_MS) return false;
      trail = [...trail.filter((one) => atMs - one.atMs < QUICK.withinMs), { y, atMs }];
      const highest = Math.max(...trail.map((one) => one.y));
      return deepest >= windowHeight && highest - y > windowHeight * QUICK.share;
    },
  };
}
