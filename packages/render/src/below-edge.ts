import type { RenderedMessage } from './render.ts';

/** What of a drawn step lies below the edge of its box, where one must scroll in the message to see it. */
export interface BelowEdge {
  /** CSS pixels. */
  readonly pixels: number;
  /** What its buttons say that are not seen whole until then. */
  readonly buttons: readonly string[];
}

/** Measures the step that is drawn; its document must be laid out, at the size of the window it is meant for. */
export function belowEdge({ box }: Pick<RenderedMessage, 'box'>): BelowEdge {
  const card = box.querySelector('.card') as HTMLElement;
  const edge = card.getBoundingClientRect().bottom;
  const isBelow = (button: Element) => {
    const { bottom, height } = button.getBoundingClientRect();
    return height > 0 && bottom > edge + 1;
  };
  return {
    pixels: Math.max(0, card.scrollHeight - card.clientHeight),
    buttons: [...card.querySelectorAll('.act')].filter(isBelow).map((button) => button.textContent ?? ''),
  };
}
