/** More than anybody types into a palette. */
const MOST_LETTERS = 400;

/** Words with which something new begins. */
const BEGINS =
  '(?:only|just|not|never|no|for|on|in|under|from|until|till|before|between|starting|once|twice|every|after|at|when|if|while|with|without|who|closes?|weekdays|weekends?|coming|arriving|landing|speaking|as an?|priority|hold)';
/** After these what follows belongs to what was begun. */
const GOES_ON =
  '(?:only|just|not|never|no|closes?|itself|and|or|but|on|at|for|once|each|times|of|is|as|from|after|except|apart|before|who|in|with)';
/** Between two pieces: commas, conjunctions, and the blank before a word that begins a new one. */
const BETWEEN = new RegExp(
  `(?<!\\d\\.\\d{1,2})[,;.]\\s+(?:(?:and|or|then|but)\\s+)?|,(?!\\d)|;|\\s+(?:and|or|then|but)\\s+|\\s+(?=everywhere\\b)|\\s+(?=${BEGINS}\\b)(?<!\\b(?!(?<=at )once )${GOES_ON} )`,
  'gi',
);
export const BEGINS_ANEW = new RegExp(`^(?:everywhere|${BEGINS})\\b`, 'i');

/** A part of what was typed, from one letter to another. */
export interface Piece {
  readonly from: number;
  readonly to: number;
}

export function piecesOf(text: string): { pieces: Piece[]; beyond: string } {
  const cut = text.length > MOST_LETTERS ? Math.max(text.lastIndexOf(' ', MOST_LETTERS), 1) : text.length;
  // The last dot of a date is its own.
  const read = text.slice(0, cut).replace(/[,;\s]+$|(?<!\d\.\d{1,2})[,;.\s]+$/, '');
  const pieces: Piece[] = [];
  let from = 0;
  for (const { index, 0: between } of read.matchAll(BETWEEN)) {
    if (index > from) pieces.push({ from, to: index });
    from = index + between.length;
  }
  if (read.length > from) pieces.push({ from, to: read.length });
  return { pieces, beyond: text.slice(cut).trim() };
}

export const wordsOf = (text: string, first: Piece, last: Piece): string =>
  text
    .slice(first.from, last.to)
    .trim()
    .replace(/\s+/g, ' ')
    .replace(/^(?:and|or|then|but) /i, '');

/** The words between a piece and the one before, as the way of joining two triggers. */
export function joinBefore(text: string, pieces: readonly Piece[], at: number): 'any' | 'all' | undefined {
  const between = text.slice(pieces[at - 1]?.to, pieces[at]?.from);
  return /\band\b/i.test(between) ? 'all' : /\bor\b/i.test(between) ? 'any' : undefined;
}

/** Whether a piece follows the one before without a comma or a conjunction, as a part of the same phrase. */
export const isWithin = (text: string, pieces: readonly Piece[], at: number): boolean =>
  /^\s*$/.test(text.slice(pieces[at - 1]?.to, pieces[at]?.from));

const REFUSES = /^(?:but )?(?:not|never|no|do not|don[’']t|nobody|nothing|hide|except|without|exclud)/i;
/**
 * What is not understood, with the rest of its phrase: taken by itself that could mean the opposite (“hide it after 30
 * seconds”).
 */
export function withItsTail(
  text: string,
  pieces: readonly Piece[],
  at: number,
  count: number,
): { readonly words: string; readonly count: number } {
  const first = pieces[at] as Piece;
  const piece = wordsOf(text, first, first);
  const hangs = (next: number): boolean => {
    if (REFUSES.test(piece) && joinBefore(text, pieces, next) === 'any') return true;
    // “After 5 or 15 seconds”, “on 25 and 26 December”: one says of what the other is.
    const said = text.slice(pieces[next - 1]?.from, pieces[next - 1]?.to);
    if (/\d$/.test(said) && joinBefore(text, pieces, next) && /^\d/.test(text.slice(pieces[next]?.from)))
      return true;
    return isWithin(text, pieces, next);
  };
  let next = at + count;
  while (next < pieces.length && hangs(next)) next++;
  return { words: wordsOf(text, first, pieces[next - 1] as Piece), count: next - at };
}
