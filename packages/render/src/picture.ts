import type { BlockContext } from './context.ts';
import { element } from './dom.ts';

/** A picture of the library in the sizes it can be had in; nothing when it is gone. */
export function drawPicture(
  ref: string,
  alt: string,
  { document, pictures, pictureBase }: Pick<BlockContext, 'document' | 'pictures' | 'pictureBase'>,
): HTMLElement[] {
  const file = pictures[ref];
  if (!file) return [];
  const path = pictureBase + file.path;
  const { widths } = file;
  return [
    element(document, 'img', {
      alt,
      width: `${file.width}`,
      height: `${file.height}`,
      ...(widths[0]
        ? {
            src: `${path}/${widths[0]}`,
            srcset: widths.map((width) => `${path}/${width} ${width}w`).join(),
            sizes: '(width<500px) 100vw,500px',
          }
        : { src: path }),
    }),
  ];
}
