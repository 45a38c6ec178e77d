import type { RenderedMessage } from '@velarium/render';
import { useEffect, useRef } from 'react';

/** Where to scroll so that a stretch lies in the middle of what is seen, or begins there where it is longer. */
const toMiddle = (begins: number, length: number, seenFrom: number, seen: number): number =>
  begins - seenFrom - Math.max(0, (seen - length) / 2);

/**
 * A window at its real size is larger than the room for it, and its message may lie outside: it is brought in sight when it is
 * first drawn and when the size is chosen, and after that whoever looks may scroll as they like.
 */
export function useInSight(isReal: boolean) {
  const scroller = useRef<HTMLDivElement>(null);
  const shown = useRef<RenderedMessage>(undefined);
  const bring = () => {
    const box = shown.current?.box;
    const frame = box?.ownerDocument.defaultView?.frameElement;
    if (!box || !frame || !scroller.current) return;
    const of = box.getBoundingClientRect();
    const inside = frame.getBoundingClientRect();
    const seen = scroller.current.getBoundingClientRect();
    scroller.current.scrollBy({
      left: toMiddle(inside.left + of.left, of.width, seen.left, seen.width),
      top: toMiddle(inside.top + of.top, of.height, seen.top, seen.height),
      behavior: 'instant',
    });
  };
  // biome-ignore lint/correctness/useExhaustiveDependencies: it is brought when the size is chosen, not at every change.
  useEffect(() => {
    if (isReal) bring();
  }, [isReal]);
  return {
    scroller,
    onDrawn(drawn: RenderedMessage) {
      const isAnother = shown.current?.box.ownerDocument !== drawn.box.ownerDocument;
      shown.current = drawn;
      if (isReal && isAnother) bring();
    },
  };
}
