import type { BlockOf } from '@velarium/contract';
import type { BlockContext } from '../context.ts';
import { element } from '../dom.ts';
import { drawPicture } from '../picture.ts';
import { said } from './said.ts';
import { sign } from './signs.ts';

/** What a playing film may do and know; never where the visitor is. */
const ALLOW = 'autoplay; encrypted-media; fullscreen; picture-in-picture';

/** A still picture until it is played: nothing of the video host is loaded before. */
export function drawFilm(block: BlockOf<'film'>, context: BlockContext): HTMLElement {
  const { document } = context;
  const root = element(document, 'div', { class: 'film' });
  const play = element(
    document,
    'button',
    { type: 'button', 'aria-label': said('play', context.words).replace('{title}', () => block.title) },
    [sign(document, 'play')],
  );
  root.append(...(block.picture ? drawPicture(block.picture, '', context) : []), play);
  play.addEventListener('click', () => {
    if (context.isStill || !/^https?:\/\//i.test(block.address)) return;
    const frame = element(document, 'iframe', {
      src: withAutoplay(block.address),
      title: block.title,
      allow: ALLOW,
      allowfullscreen: '',
      referrerpolicy: 'strict-origin-when-cross-origin',
      sandbox: 'allow-scripts allow-same-origin allow-presentation allow-popups',
    });
    root.replaceChildren(frame);
    frame.focus();
  });
  return root;
}

function withAutoplay(address: string): string {
  const url = new URL(address);
  url.searchParams.set('autoplay', '1');
  return url.href;
}
