import type { RichText, TextSpan } from '@velarium/contract';
import { tidyRichText } from '../message/tidy-text.ts';

/**
 * Rich text as one who translates it writes it: a line for each paragraph, and `<1>…</1>` around the first words that are
 * set apart, `<2>…</2>` around the second. How they look, and where they lead, stays with the original.
 */
export function markedText(content: RichText): string {
  let n = 0;
  return content
    .map((paragraph) =>
      paragraph
        .map((span) => {
          const text = span.text.replaceAll('\n', ' ').replace(/<(?=\/?\d+>)/g, '\\<');
          if (!isSetApart(span)) return text;
          n += 1;
          return `<${n}>${text}</${n}>`;
        })
        .join(''),
    )
    .join('\n');
}

/** Marks that a text has and its original has not, or the other way round; empty when all is well. */
export function differingMarks(text: string, original: string): string[] {
  const [own, others] = [marksOf(text), marksOf(original)];
  return [...new Set([...own, ...others])].filter((mark) => own.has(mark) !== others.has(mark));
}
const marksOf = (text: string) => new Set(piecesOf(text).flatMap(({ mark }) => (mark ? `<${mark}>` : [])));

/** Words of a marked text: set apart by a number, or not. */
interface Piece {
  readonly mark?: string;
  readonly text: string;
}

const TAG = /(?<!\\)<(\/?)(\d{1,4})>/g;

/** A marked text taken apart in one pass: a number that is opened and not closed again is plain words. */
export function piecesOf(text: string): Piece[] {
  const tags = [...text.matchAll(TAG)].map(({ index, 0: tag, 1: slash, 2: mark = '' }) => ({
    ...{ mark, isEnd: slash === '/', from: index, until: index + tag.length },
  }));
  // The last end of each number: what is opened behind it is never closed.
  const lastEnd = new Map(tags.flatMap(({ mark, isEnd, from }) => (isEnd ? [[mark, from] as const] : [])));
  const pieces: Piece[] = [];
  let from = 0;
  let open: (typeof tags)[number] | undefined;
  for (const tag of tags) {
    if (!open && !tag.isEnd && (lastEnd.get(tag.mark) ?? -1) > tag.from) open = tag;
    else if (open && tag.isEnd && tag.mark === open.mark) {
      pieces.push(
        { text: text.slice(from, open.from) },
        { mark: tag.mark, text: text.slice(open.until, tag.from) },
      );
      from = tag.until;
      open = undefined;
    }
  }
  return [...pieces, { text: text.slice(from) }];
}

/** The rich text that a marked text stands for; a mark that the original has not got is plain words. */
export function richTextOf(text: string, original: RichText): RichText {
  const apart = original.flat().filter(isSetApart);
  return tidyRichText(
    text.split('\n').map((paragraph) =>
      piecesOf(paragraph).map(
        (piece): TextSpan => ({
          ...(piece.mark ? apart[Number(piece.mark) - 1] : {}),
          text: piece.text.replace(/\\(?=<\/?\d+>)/g, ''),
        }),
      ),
    ),
  );
}

const isSetApart = ({ text: _text, ...style }: TextSpan) => Object.values(style).some(Boolean);
