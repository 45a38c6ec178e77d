/** Heights of an element, of the part of it that is in the window, and of the window, CSS pixels. */
export interface SeenPart {
  readonly elementHeight: number;
  readonly seenHeight: number;
  readonly windowHeight: number;
}

/** How much of an element must be in the window for it to be reached: half of it, or half of the window. */
export const reachedHeight = ({ elementHeight, windowHeight }: Omit<SeenPart, 'seenHeight'>): number =>
  Math.min(elementHeight, windowHeight) / 2;

/** Whether an element is reached. Half a pixel is what zoom and rounding leave. */
export const isReached = (part: SeenPart): boolean => part.seenHeight + 0.5 >= reachedHeight(part);
