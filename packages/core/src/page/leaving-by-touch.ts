/** A scroll up of this share of the window within this time is quick. */
const QUICK = { share: 0.35, withinMs: 500 };
/** Places closer in time than this are one. */
const EVERY_MS = 25;

export interface QuickScroll {
  /** A finger or a pointer is put down: what was before is another movement. */
  press(isTouch: boolean): void;
  /** Whether this place of the page, pixels from its top, is the end of a quick scroll up after a screen down. */
  scroll(y: number, atMs: number, windowHeight: number): boolean;
}

/** A quick scroll up by touch, after having been at least one screen down. */
export function createQuickScroll(): QuickScroll {
  let isTouch = false;
  let deepest = 0;
  let trail: { y: number; atMs: number }[] = [];
  return {
    press(isByTouch) {
      isTouch = isByTouch;
      trail = [];
    },
    scroll(y, atMs, windowHeight) {
      deepest = Math.max(deepest, y);
      if (!isTouch || atMs - (trail.at(-1)?.atMs ?? Number.NEGATIVE_INFINITY) < EVERY_MS) return false;
      trail = [...trail.filter((one) => atMs - one.atMs < QUICK.withinMs), { y, atMs }];
      const highest = Math.max(...trail.map((one) => one.y));
      return deepest >= windowHeight && highest - y > windowHeight * QUICK.share;
    },
  };
}

export interface BackGesture {
  /** A tap; whether an entry is to be laid on the history for it. Browsers ask for a tap before. */
  tap(): boolean;
  /** The history has moved; `isOurs`: to the entry that was laid. Whether that was the gesture. */
  back(isOurs: boolean): boolean;
}

/** The back gesture holds a visitor once, only after a tap; the second one leaves. */
export function createBackGesture(): BackGesture {
  let state: 'free' | 'held' | 'over' = 'free';
  return {
    tap() {
      const isFirst = state === 'free';
      if (isFirst) state = 'held';
      return isFirst;
    },
    back(isOurs) {
      if (state !== 'held' || isOurs) return false;
      state = 'over';
      return true;
    },
  };
}
