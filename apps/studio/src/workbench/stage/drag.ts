import type { Message } from '@velarium/contract';
import { type BlockPlace, findBlock, findPlace } from '@velarium/core';
import type { RenderedMessage } from '@velarium/render';

const GRIP_ROOM = 30;

/** Marks of dragging: a grip beside what is chosen, and a line where it would go. */
export const DRAG_SHEET = `
.stage-grip{position:fixed;inline-size:24px;block-size:24px;border:0;border-radius:6px;background:#a4471f;color:#fff;font:700 14px/24px system-ui;text-align:center;cursor:grab;pointer-events:auto;touch-action:none;z-index:2}
.stage-grip:active{cursor:grabbing}
.stage-line{position:fixed;block-size:4px;border-radius:2px;background:#a4471f;z-index:2}
`;

const isInside = ({ left, right, top, bottom }: DOMRect, x: number, y: number) =>
  x >= left && x <= right && y >= top && y <= bottom;

interface Target {
  readonly place: BlockPlace;
  /** Where the line is drawn, CSS pixels of the window. */
  readonly line: { readonly left: number; readonly top: number; readonly width: number };
}

/** The place a block would go to when it is let go at a point: between the blocks of the list the point lies in. */
function targetAt(root: ShadowRoot, message: Message, id: string, x: number, y: number): Target | undefined {
  const stepId = findPlace(message, id)?.stepId;
  const step = message.steps.find((one) => one.id === stepId);
  const inner = root.querySelector<HTMLElement>('.inner');
  if (!step || !inner) return undefined;
  const drawnOf = (blockId: string) => root.querySelector<HTMLElement>(`[data-block="${blockId}"]`);
  const within = (list: Element, blocks: readonly { readonly id: string }[], columnId: string | null) => {
    const box = list.getBoundingClientRect();
    const shown = blocks.flatMap(({ id: blockId }, at) => {
      const drawn = drawnOf(blockId);
      return drawn && list.contains(drawn) ? [{ at, box: drawn.getBoundingClientRect() }] : [];
    });
    const next = shown.find((one) => y < (one.box.top + one.box.bottom) / 2);
    const last = shown.at(-1);
    return {
      place: { stepId: step.id, columnId, at: next?.at ?? blocks.length },
      line: {
        left: box.left,
        width: box.width,
        top: (next ? next.box.top - 6 : last ? last.box.bottom + 2 : box.top) - 2,
      },
    };
  };
  const dragged = findBlock(message, id);
  for (const block of step.blocks) {
    if (block.kind !== 'columns' || dragged?.kind === 'columns') continue;
    const lists = [...(drawnOf(block.id)?.querySelectorAll(':scope>.column') ?? [])];
    const at = lists.findIndex((list) => isInside(list.getBoundingClientRect(), x, y));
    const column = block.columns[at];
    if (column) return within(lists[at] as Element, column.blocks, column.id);
  }
  return within(inner, step.blocks, null);
}

/**
 * Puts a grip beside a block of a drawn message by which it can be dragged to another place. Returns the undo. The keys
 * for the same are the outline's.
 */
export function showGrip(
  { root }: RenderedMessage,
  message: Message,
  id: string,
  onMove: (id: string, to: BlockPlace) => void,
): () => void {
  const drawn = root.querySelector<HTMLElement>(`[data-block="${id}"]`);
  if (!drawn || !findBlock(message, id)) return () => {};
  const document = drawn.ownerDocument;
  const view = document.defaultView as Window & typeof globalThis;
  const grip = document.createElement('div');
  grip.className = 'stage-grip';
  grip.textContent = '⠿';
  grip.title = 'Drag to move';
  // The outline's handle says the same to keys and screen readers.
  grip.ariaHidden = 'true';
  const line = document.createElement('div');
  line.className = 'stage-line';
  line.hidden = true;
  root.append(grip, line);

  const put = () => {
    const { left, top } = drawn.getBoundingClientRect();
    grip.style.left = `${Math.max(2, left - GRIP_ROOM)}px`;
    grip.style.top = `${Math.max(2, top)}px`;
  };
  // Its first word comes after the next layout, which is then not forced.
  const observer = new view.ResizeObserver(put);
  observer.observe(drawn);
  root.addEventListener('scroll', put, true);

  let target: Target | undefined;
  grip.addEventListener('pointerdown', (event) => {
    event.preventDefault();
    event.stopPropagation();
    grip.setPointerCapture(event.pointerId);
  });
  grip.addEventListener('pointermove', (event) => {
    if (!grip.hasPointerCapture(event.pointerId)) return;
    target = targetAt(root, message, id, event.clientX, event.clientY);
    drawn.style.opacity = '.4';
    line.hidden = !target;
    if (!target) return;
    line.style.left = `${target.line.left}px`;
    line.style.top = `${target.line.top}px`;
    line.style.width = `${target.line.width}px`;
    grip.style.left = `${event.clientX - 12}px`;
    grip.style.top = `${event.clientY - 12}px`;
  });
  const end = (isDropped: boolean) => {
    const { place } = target ?? {};
    target = undefined;
    line.hidden = true;
    drawn.style.opacity = '';
    put();
    if (isDropped && place) onMove(id, place);
  };
  grip.addEventListener('pointerup', () => end(true));
  grip.addEventListener('pointercancel', () => end(false));
  return () => {
    observer.disconnect();
    root.removeEventListener('scroll', put, true);
    grip.remove();
    line.remove();
  };
}
