import type { BlockOf } from '@velarium/contract';
import { fillText } from '@velarium/core/message';
import type { BlockContext } from '../context.ts';
import { element } from '../dom.ts';

/** What the Workbench shows in place of a number that only the site's visitors make. */
export const SAMPLE = 1284;

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
  else withCounts(countsAddress, (counts) => show(counts[block.of]));
  return root;
}

/** What a message may say of itself to visitors. */
interface PublicCounts {
  readonly readers: number;
  readonly shares: number;
  /** How often each way of passing it on was used. */
  readonly ways: Readonly<Record<string, number>>;
}

/** Shows numbers once they are there. Those that cannot be had are not shown. */
export function withCounts(address: string | undefined, show: (counts: PublicCounts) => void): void {
  if (address)
    fetch(address, { credentials: 'omit' })
      .then((response) => response.json())
      .then(show)
      .catch(() => {});
}
