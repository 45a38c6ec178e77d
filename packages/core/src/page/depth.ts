/** A scroll this soon after a sign of the visitor's hand is the visitor's (also the gliding on of a flick). */
const BY_HAND_MS = 1500;
/** Whether a key scrolls a page; what is no key is another sign of the hand. */
export const scrolls = (key: string | undefined): boolean => !key || /^( |Page|End|Home|Arrow[UD])/.test(key);

/** Where a window stands on what it scrolls, CSS pixels. */
export interface ScrollPlace {
  /** Of the window's upper edge. */
  readonly top: number;
  readonly windowHeight: number;
  /** Of all that is scrolled. */
  readonly pageHeight: number;
  readonly atMs: number;
}

/** A page that cannot scroll is taken at its word when it has stayed so for this long: an application may not be drawn yet. */
export const SETTLED_MS = 1000;

export interface Depth {
  readonly percent: number;
  readonly pixels: number;
}

export interface DepthState {
  /** A sign of the visitor's hand: wheel, finger, pointer, a scrolling key. */
  hand(atMs: number): void;
  /** The page has scrolled; whether it counts by now. What a script scrolls does not, until the visitor has scrolled. */
  scrolled(atMs: number): boolean;
  /** Reads where the window stands; the deepest reached, where that has grown. */
  look(place: ScrollPlace): Depth | undefined;
  readonly deepest: Depth;
}

/**
 * How deep a visitor has come on a page: the lowest edge of the window over the height of the page, the deepest
 * reached. It counts from the first scroll by hand; a page that cannot scroll is wholly reached when it has settled, and
 * one that grows takes nothing back. The trigger, the curves, the try-outs and the simulator all ask here.
 */
export function createDepth(): DepthState {
  let handAtMs = Number.NEGATIVE_INFINITY;
  let hasScrolled = false;
  let deepest: Depth = { percent: 0, pixels: 0 };
  let seenHeight = 0;
  let sinceMs = 0;
  return {
    hand(atMs) {
      handAtMs = atMs;
    },
    scrolled(atMs) {
      hasScrolled ||= atMs - handAtMs < BY_HAND_MS;
      return hasScrolled;
    },
    look({ top, windowHeight, pageHeight, atMs }) {
      if (pageHeight !== seenHeight) [seenHeight, sinceMs] = [pageHeight, atMs];
      const cannotScroll = pageHeight <= windowHeight + 1;
      if (cannotScroll ? atMs - sinceMs < SETTLED_MS : !hasScrolled) return undefined;
      const pixels = Math.max(deepest.pixels, top + windowHeight);
      // Half a pixel is what zoom and rounding leave at the end of a page.
      const percent = cannotScroll ? 100 : Math.min(100, ((top + windowHeight + 0.5) / pageHeight) * 100);
      if (percent <= deepest.percent && pixels <= deepest.pixels) return undefined;
      deepest = { percent: Math.max(deepest.percent, percent), pixels };
      return deepest;
    },
    get deepest() {
      return deepest;
    },
  };
}
