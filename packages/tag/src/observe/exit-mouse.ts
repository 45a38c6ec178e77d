import type { ExitCertainty } from '@velarium/contract';
import { exitSign } from '@velarium/core/decide';
import { all, on } from './on.ts';

/**
 * Tells signs that the mouse is leaving through the top of the window. Fingers and pens never do; going into a
 * frame, onto the scroll bar or to an open list of choices is no leaving.
 */
export function onExitByMouse(callback: (certainty: ExitCertainty) => void): () => void {
  let last: { y: number; atMs: number } | undefined;
  let isMouse = false;
  return all([
    on(window, ['pointermove', 'pointerdown'], (event) => {
      const { pointerType, clientY: y } = event as PointerEvent;
      isMouse = pointerType === 'mouse';
      if (!isMouse) return;
      const atMs = performance.now();
      const speed = last && atMs > last.atMs ? (last.y - y) / (atMs - last.atMs) : 0;
      last = { y, atMs };
      if (isChoosing()) return;
      const sign = exitSign(y, speed);
      if (sign) callback(sign);
    }),
    on(document, ['mouseout'], (event) => {
      const { relatedTarget, clientX, clientY } = event as MouseEvent;
      if (!isMouse || relatedTarget !== null || clientY > 0 || isChoosing()) return;
      // Beyond the document's width lies the scroll bar.
      if (clientX >= document.documentElement.clientWidth) return;
      callback('certain');
    }),
  ]);
}

const isChoosing = (): boolean => document.activeElement?.tagName === 'SELECT';
