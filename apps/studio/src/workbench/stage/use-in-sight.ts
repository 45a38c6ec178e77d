import type { RenderedMessage } from '@velarium/render';
import { useEffect, useRef } from 'react';

/** Where to scroll so that a stretch lies in the middle of what is seen, or begins there where it is longer. */
const toMiddle = (begins: number, length: number, seenFrom: number, seen: number): number =>
  begins - seenFrom - Math.max(0, (seen - length) / 2);

function bringInSight(scroller: Element | null, message: RenderedMessage | undefined): void {
  const frame = message?.box.ownerDocument.defaultView?.frameElement;
  if (!scroller || !message || !frame) return;
  const box = message.box.getBoundingClientRect();
  const inside = frame.getBoundingClientRect();
  const seen = scroller.getBoundingClientRect();
  scroller.scrollBy({
    left: toMiddle(inside.left + box.left, box.width, seen.left, seen.width),
    top: toMiddle(inside.top + box.top, box.height, seen.top, seen.height),
    behavior: 'instant',
  });
}

/**
 * A window at its real size is larger than the room for it, and its message may lie outside: it is brought in sight when it is
 * first drawn and when the size is chosen, and after that whoever looks may scroll as they like.
 */
export function useInSight(isReal: boolean) {
  const scroller = useRef<HTMLDivElement>(null);
  const shown = useRef<RenderedMessage>(undefined);
  useEffect(() => {
    if (isReal) bringInSight(scroller.current, shown.current);
  }, [isReal]);
  return {
    scroller,
    onDrawn(drawn: RenderedMessage) {
      const isAnother = shown.current?.box.ownerDocument !== drawn.box.ownerDocument;
      shown.current = drawn;
      if (isReal && isAnother) bringInSight(scroller.current, drawn);
    },
  };
}
