import type { ExitCertainty } from '@velarium/contract';
import { createMouseLeaving } from '@velarium/core/decide';
import { all, on } from './on.ts';

/** Tells signs that the mouse is leaving through the top of the window. */
export function onExitByMouse(callback: (certainty: ExitCertainty) => void): () => void {
  const leaving = createMouseLeaving();
  const isChoosing = () => document.activeElement?.tagName === 'SELECT';
  const tell = (sign: ExitCertainty | undefined) => sign && callback(sign);
  return all([
    on(window, ['pointermove', 'pointerdown'], (event) => {
      const { pointerType, clientX: x, clientY: y } = event as PointerEvent;
      tell(leaving.move({ x, y, atMs: performance.now(), isMouse: pointerType === 'mouse' }, isChoosing()));
    }),
    on(document, ['mouseout'], (event) => {
      const { relatedTarget, clientX: x, clientY: y } = event as MouseEvent;
      const pageWidth = document.documentElement.clientWidth;
      tell(leaving.out({ x, y, isOut: !relatedTarget, pageWidth }, isChoosing()));
    }),
  ]);
}
