import type { BlockOf } from '@velarium/contract';
import { fillText } from '@velarium/core/message';
import type { BlockContext } from '../context.ts';
import { element } from '../dom.ts';

/** What the Workbench shows in place of a number that only the site's visitors make. */
const SAMPLE = 1284;

/** A number of readers or shares, once it is large enough to be shown. */
export function drawCount(
  block: BlockOf<'count'>,
  { document, countsAddress, isStill, factOf, language }: BlockContext,
): HTMLElement {
  const root = element(document, 'p', { 'data-count': '' });
  const show = (count: number) => {
    root.hidden = count < block.from;
    root.textContent = fillText(block.text, (name) =>
      name === 'count'
        ? count.toLocaleString(language || document.documentElement.lang || 'en-GB')
        : (factOf?.(name) ?? ''),
    );
  };
  root.hidden = true;
  if (isStill) show(Math.max(SAMPLE, block.from));
  else if (countsAddress) {
    fetch(countsAddress, { credentials: 'omit' })
      .then((response) => response.json())
      .then((counts: Record<'readers' | 'shares', number>) => show(counts[block.of]))
      // A number that cannot be had is not shown.
      .catch(() => {});
  }
  return root;
}
