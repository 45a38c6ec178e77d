import type { BlockOf } from '@velarium/contract';
import { isSafeAddress } from '@velarium/core/message';
import type { BlockContext } from '../context.ts';
import { copyText } from '../copy-text.ts';
import { element } from '../dom.ts';
import { SAMPLE, withCounts } from './count.ts';
import { said } from './said.ts';
import { sign } from './signs.ts';

/** A row of ways to pass the page on. A way the browser has not got is left out. */
export function drawShare(block: BlockOf<'share'>, context: BlockContext): HTMLElement {
  const { document, onAction, isStill } = context;
  const view = document.defaultView as Window & typeof globalThis;
  const page = () => ({ title: document.title, url: view.location.href.replace(/#.*$/, '') });
  const root = element(document, 'div', { class: 'share', 'data-shape': block.shape });
  const numbers = new Map<string, HTMLElement>();
  const locale = context.language || document.documentElement.lang || 'en-GB';
  const count = (ways: Readonly<Record<string, number>>) => {
    // None yet is no reason to be the first.
    for (const [id, number] of numbers) number.textContent = ways[id]?.toLocaleString(locale) ?? '';
  };
  for (const { id, way, label, address } of block.ways) {
    if (way === 'system' && !isStill && !view.navigator.share) continue;
    const words = element(document, 'span', {
      'data-way': id,
      ...(block.shows === 'sign' ? { class: 'quiet' } : {}),
      ...(way === 'copy' ? { 'aria-live': 'polite' } : {}),
    });
    words.textContent = label;
    const href =
      way === 'mail'
        ? `mailto:?subject=${encodeURIComponent(page().title)}&body=${encodeURIComponent(page().url)}`
        : way === 'address'
          ? address
              .replaceAll('{{page.address}}', encodeURIComponent(page().url))
              .replaceAll('{{page.title}}', encodeURIComponent(page().title))
          : '';
    const isLink = isSafeAddress(href);
    const drawn = isLink
      ? element(document, 'a', {
          class: 'act',
          'data-tone': 'quiet',
          href,
          ...(way === 'address' ? { target: '_blank', rel: 'noopener' } : {}),
        })
      : element(document, 'button', { class: 'act', 'data-tone': 'quiet', type: 'button' });
    if (block.shows !== 'words') drawn.append(sign(document, way));
    drawn.append(words);
    // What is counted is the way, see the tag.
    drawn.dataset.part = id;
    if (block.hasCounts) {
      const number = element(document, 'span', { class: 'many' });
      numbers.set(id, number);
      drawn.append(number);
    }
    drawn.addEventListener('click', async () => {
      if (isStill) return;
      onAction({ kind: 'share' });
      if (way === 'system') await view.navigator.share(page()).catch(() => {});
      if (way === 'copy' && (await copyText(page().url, drawn)))
        words.textContent = said('copied', context.words);
    });
    root.append(drawn);
  }
  if (isStill) count(Object.fromEntries(block.ways.map(({ id }, n) => [id, Math.ceil(SAMPLE / (n + 2))])));
  else if (block.hasCounts) withCounts(context.countsAddress, ({ ways }) => count(ways));
  return root;
}
