import { BEGINS_ANEW, isWithin, type Piece, wordsOf } from './pieces.ts';
import { readPiece } from './read-piece.ts';
import { type Answer, keepState, type Reading, restore, type SiteWords, type State } from './reading.ts';
import { plainly, withoutFiller } from './spoken.ts';

/** Pieces that can belong together, as in the name of a page. */
const MOST_PIECES = 10;

/** What was typed, and what has been made of it so far. */
export interface Heard {
  readonly text: string;
  readonly pieces: readonly Piece[];
  readonly reading: Reading;
  readonly site: SiteWords;
}

/** What there can be several of. */
type Grown = 'triggers' | 'conditions' | 'devices' | 'designs' | undefined;

/** What became of some pieces. */
export interface Taken {
  readonly piece: string;
  readonly answer: Answer;
  readonly count: number;
  readonly grown: Grown;
  /** Whether its beginning was that of the piece before. */
  readonly isLed: boolean;
  /** Of the reading before it. */
  readonly state: State;
}

/** How a piece is begun by the one before it. */
interface Led {
  readonly lead: string;
  /** Whether it means nothing by itself. */
  readonly mustLead: boolean;
  /** Whether a *not* goes on over it: “not in the shop or on contact”. */
  readonly isNot: boolean;
}
const TAKES_NOT = /^(?:on|in|under|at|from|with)\b/i;

/** The longest run of pieces from here on that means something; one of them, not understood, where none does. */
export function takeLongest(
  { text, pieces, reading, site }: Heard,
  at: number,
  { lead, mustLead, isNot }: Led,
): Taken {
  const first = pieces[at] as Piece;
  let refused: Taken | undefined;
  const state = keepState(reading);
  const take = (piece: string, count: number, isLed: boolean): Taken => {
    const answer = readWholly(piece, reading, site);
    const grown = (['triggers', 'conditions', 'devices', 'designs'] as const).find(
      (name) => reading[name].length > state[name],
    );
    return { piece, answer, count, grown, isLed, state };
  };
  const isOnePhrase = (count: number): boolean =>
    pieces.slice(at + 1, at + count).every((_, n) => isWithin(text, pieces, at + 1 + n));
  for (let count = Math.min(MOST_PIECES, pieces.length - at); count > 0; count--) {
    const piece = wordsOf(text, first, pieces[at + count - 1] as Piece);
    const isNew = BEGINS_ANEW.test(piece);
    const isNegated = isNot && TAKES_NOT.test(piece);
    const led = isNegated ? [`not ${piece}`] : lead !== '' && !isNew ? [`${lead} ${piece}`] : [];
    const ways = isNegated || (mustLead && !isNew) ? led : new Set([...led, piece, withoutFiller(piece)]);
    for (const said of ways) {
      const taken = take(said, count, led.includes(said));
      if (taken.answer === true) return taken;
      if (typeof taken.answer !== 'string') continue;
      refused ??= { ...taken, piece };
      // Of one phrase that cannot be had nothing shorter is meant.
      if (isOnePhrase(count)) return refused;
    }
  }
  return (
    refused ?? {
      piece: wordsOf(text, first, first),
      answer: false,
      count: 1,
      grown: undefined,
      isLed: false,
      state,
    }
  );
}

/** Reads a piece whole, as it is or in plainer words; of one that cannot be nothing stays. */
function readWholly(piece: string, reading: Reading, site: SiteWords): Answer {
  const state = keepState(reading);
  let refused: Answer = false;
  for (const said of new Set([piece, plainly(piece)])) {
    const answer = readPiece(said, reading, site);
    if (answer === true) return true;
    restore(reading, state);
    refused = refused || answer;
  }
  return refused;
}
