import type { CampaignDocument } from '@velarium/contract';
import { campaignDocumentSchema } from '@velarium/contract';
import { withFormat } from '../message/placement.ts';
import { experimentWords } from '../sentence/limits-words.ts';
import { readSentence } from '../sentence/read-sentence.ts';
import type { SentenceInput } from '../sentence/rule-sentence.ts';
import { readPiece } from './read-piece.ts';
import {
  type Answer,
  changeOf,
  idsOf,
  newReading,
  type Reading,
  type SiteWords,
  setJoin,
  setMatch,
} from './reading.ts';

export interface Wishes {
  /** What the wishes make of a campaign; the same one where nothing was understood. */
  readonly apply: (document: CampaignDocument) => CampaignDocument;
  readonly isUnderstood: boolean;
  /** What becomes of the message's design, each change in words. */
  readonly designs: readonly string[];
  /** What was typed and not understood, piece by piece, with the reason where there is one. */
  readonly rest: readonly string[];
}

/** More than anybody types into a palette; a whole sentence of the product's own may be longer. */
const MOST_LETTERS = 400;
const MOST_SENTENCE_LETTERS = 900_000;
/** Pieces that can belong together, as in the name of a page. */
const MOST_PIECES = 10;

/** Words with which something new begins. */
const BEGINS =
  '(?:only|just|not|never|no|for|on|in|under|from|until|till|before|between|starting|once|twice|every|after|at|when|if|while|with|without|who|closes?|weekdays|weekends?|as an?|priority|hold)';
/** After these what follows belongs to what was begun. */
const GOES_ON =
  '(?:only|just|not|never|no|closes?|itself|and|or|but|on|at|for|once|each|times|of|is|as|from|after|except|apart|before|who|in|with)';
/** Between two pieces: commas, conjunctions, and the blank before a word that begins a new one. */
const BETWEEN = new RegExp(
  `[,;.]\\s+(?:(?:and|or|then|but)\\s+)?|,(?!\\d)|;|\\s+(?:and|or|then|but)\\s+|\\s+(?=everywhere\\b)|\\s+(?=${BEGINS}\\b)(?<!\\b${GOES_ON} )`,
  'gi',
);
/** How a piece begins that the next ones may leave out: “not on tablets or phones”. */
const LEAD =
  /^(?:only on|not on|never on|not from|not in|only in|not|no|without|on|in|under|after|from|with|for|only)(?= )/i;
const BEGINS_ANEW = new RegExp(`^(?:everywhere|${BEGINS})\\b`, 'i');
const LEFT_OUT = /\b(?:but|except|apart from|other than)\b/i;
const leadOf = (piece: string): string => (LEFT_OUT.test(piece) ? 'not on' : (LEAD.exec(piece)?.[0] ?? ''));

/** A whole sentence of the product's own takes the place of the whole rule. */
function ofSentence({ format, anchor, closing, rule, variants }: SentenceInput, document: CampaignDocument) {
  const message = withFormat(document.message, format);
  return {
    message: { ...message, anchor, close: { ...message.close, ...closing } },
    rule,
    variants: document.variants.map((variant) => ({
      ...variant,
      weight: variants.find(({ id }) => id === variant.id)?.weight ?? variant.weight,
    })),
  };
}

/** A sentence that speaks of other variants than there are cannot be had whole. */
function otherVariants({ variants }: SentenceInput, { variants: known }: SiteWords): string[] {
  const isSame = variants.length === known.length && variants.every(({ id }) => known.includes(id));
  return isSame ? [] : [`${experimentWords(0, variants) || 'one variant'} (${known.length + 1} are there)`];
}

/**
 * Reads wishes as people type them: `after 20 seconds on journal, not on phones, once a week`, or a whole sentence as
 * the product writes it. A piece is taken whole or named among the rest: nothing is taken by halves, cut to what is
 * allowed, or silently changed.
 */
export function readWishes(typed: string, site: SiteWords): Wishes {
  const text = typed.trim();
  const sentence = text.length <= MOST_SENTENCE_LETTERS ? readSentence(text, idsOf(site)) : undefined;
  if (sentence && campaignDocumentSchema.shape.rule.safeParse(sentence.rule).success)
    return {
      apply: (document) => ofSentence(sentence, document),
      isUnderstood: true,
      designs: [],
      rest: otherVariants(sentence, site),
    };
  const reading = newReading(site.today);
  const { pieces, beyond } = piecesOf(text);
  const rest: string[] = [];
  let isAny = false;
  let lead = '';
  let before: Grown;
  for (let at = 0; at < pieces.length; ) {
    const taken = takeLongest(text, pieces, at, lead, reading, site);
    const { piece, answer, count } = taken;
    const grown = answer === true ? taken.grown : undefined;
    if (answer === true) {
      isAny = true;
      lead = leadOf(piece);
      const join = grown !== undefined && grown === before ? joinBefore(text, pieces, at) : undefined;
      const joined = join ? (grown === 'triggers' ? setJoin : setMatch)(reading, join) : true;
      if (joined !== true) rest.push(`“${join === 'all' ? 'and' : 'or'}” before ${piece} (${joined})`);
    } else rest.push(typeof answer === 'string' ? `${piece} (${answer})` : piece);
    before = grown;
    at += count;
  }
  if (beyond !== '') rest.push(beyond);
  return {
    apply: isAny ? changeOf(reading) : (document) => document,
    isUnderstood: isAny,
    designs: reading.designs.map(({ said }) => said),
    rest,
  };
}

interface Piece {
  readonly from: number;
  readonly to: number;
}

function piecesOf(text: string): { pieces: Piece[]; beyond: string } {
  const cut = text.length > MOST_LETTERS ? Math.max(text.lastIndexOf(' ', MOST_LETTERS), 1) : text.length;
  const read = text.slice(0, cut).replace(/[,;.\s]+$/, '');
  const pieces: Piece[] = [];
  let from = 0;
  for (const { index, 0: between } of read.matchAll(BETWEEN)) {
    if (index > from) pieces.push({ from, to: index });
    from = index + between.length;
  }
  if (read.length > from) pieces.push({ from, to: read.length });
  return { pieces, beyond: text.slice(cut).trim() };
}

const wordsOf = (text: string, first: Piece, last: Piece): string =>
  text
    .slice(first.from, last.to)
    .trim()
    .replace(/\s+/g, ' ')
    .replace(/^(?:and|or|then|but) /i, '');

/** The words between a piece and the one before, as the way of joining two triggers. */
function joinBefore(text: string, pieces: readonly Piece[], at: number): 'any' | 'all' | undefined {
  const between = text.slice(pieces[at - 1]?.to, pieces[at]?.from);
  return /\band\b/i.test(between) ? 'all' : /\bor\b/i.test(between) ? 'any' : undefined;
}

/** What there can be several of, joined by a word. */
type Grown = 'triggers' | 'conditions' | undefined;

interface Taken {
  readonly piece: string;
  readonly answer: Answer;
  readonly count: number;
  readonly grown: Grown;
}

/** The longest run of pieces from here on that means something; one of them, not understood, where none does. */
function takeLongest(
  text: string,
  pieces: readonly Piece[],
  at: number,
  lead: string,
  reading: Reading,
  site: SiteWords,
): Taken {
  const first = pieces[at] as Piece;
  let refused: Taken | undefined;
  const take = (piece: string, count: number): Taken => {
    const before = { triggers: reading.triggers.length, conditions: reading.conditions.length };
    const answer = readWholly(piece, reading, site);
    const grown = (['triggers', 'conditions'] as const).find((name) => reading[name].length > before[name]);
    return { piece, answer, count, grown };
  };
  for (let count = Math.min(MOST_PIECES, pieces.length - at); count > 0; count--) {
    const piece = wordsOf(text, first, pieces[at + count - 1] as Piece);
    const isLed = lead !== '' && !BEGINS_ANEW.test(piece);
    for (const said of isLed ? [`${lead} ${piece}`, piece] : [piece]) {
      const taken = take(said, count);
      if (taken.answer === true) return taken;
      if (typeof taken.answer === 'string') refused ??= { ...taken, piece };
    }
  }
  return refused ?? { piece: wordsOf(text, first, first), answer: false, count: 1, grown: undefined };
}

/** Reads a piece whole; of one that cannot be nothing stays. */
function readWholly(piece: string, reading: Reading, site: SiteWords): Answer {
  const { triggers, include, exclude, caps, conditions, devices, withoutDevices, designs, settings } =
    reading;
  const lists = [triggers, include, exclude, caps, conditions, devices, withoutDevices, designs];
  const lengths = lists.map(({ length }) => length);
  const known = new Map(settings);
  const answer = readPiece(piece, reading, site);
  if (answer === true) return true;
  for (const [n, list] of lists.entries()) list.splice(lengths[n] ?? 0);
  settings.clear();
  for (const [name, setting] of known) settings.set(name, setting);
  return answer;
}
