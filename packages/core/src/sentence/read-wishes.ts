import type { CampaignDocument } from '@velarium/contract';
import { campaignDocumentSchema } from '@velarium/contract';
import { withFormat } from '../message/placement.ts';
import { experimentWords } from './limits-words.ts';
import { readSentence } from './read-sentence.ts';
import type { SentenceInput } from './rule-sentence.ts';
import {
  type Answer,
  changeOf,
  idsOf,
  type PageNames,
  type Reading,
  readPiece,
  setJoin,
} from './wish-ways.ts';

export interface Wishes {
  /** What the wishes make of a campaign; the same one where nothing was understood. */
  readonly apply: (document: CampaignDocument) => CampaignDocument;
  readonly isUnderstood: boolean;
  /** What was typed and not understood, piece by piece, with the reason where there is one. */
  readonly rest: readonly string[];
}

/** More than anybody types into a palette; a whole sentence of the product's own may be longer. */
const MOST_LETTERS = 400;
const MOST_SENTENCE_LETTERS = 900_000;
/** Pieces that can belong together, as in the name of a page. */
const MOST_PIECES = 8;

/** Between two pieces: commas, conjunctions, and the blank before a word that begins a new one. */
const BETWEEN =
  /[,;.]\s+(?:(?:and|or|then|but)\s+)?|,|;|\s+(?:and|or|then|but)\s+|\s+(?=everywhere\b)|\s+(?=(?:only on|not on|never on|not before|for (?:all )?visitors|on|once|every|after|at most|at once|at the end|closes?)\b)(?<!\b(?:only|not|never|closes?|itself|and|or|but|on|at|once|each|times|of|is) )/gi;
/** How a piece begins that the next ones may leave out: “not on tablets or phones”. */
const LEAD = /^(?:only on|not on|never on|on|after)(?= )/i;

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

/** A sentence that speaks of other versions than there are cannot be had whole. */
function otherVersions({ variants }: SentenceInput, { versions }: PageNames): string[] {
  const isSame = variants.length === versions.length && variants.every(({ id }) => versions.includes(id));
  return isSame
    ? []
    : [`${experimentWords(0, variants) || 'one variant'} (${versions.length + 1} are there)`];
}

/**
 * Reads wishes as people type them: `after 20 seconds on journal, not on phones, once a week`, or a whole sentence as
 * the product writes it. A piece is taken whole or named among the rest: nothing is taken by halves, cut to what is
 * allowed, or silently changed.
 */
export function readWishes(typed: string, names: PageNames): Wishes {
  const text = typed.trim();
  const sentence = text.length <= MOST_SENTENCE_LETTERS ? readSentence(text, idsOf(names)) : undefined;
  if (sentence && campaignDocumentSchema.shape.rule.safeParse(sentence.rule).success)
    return {
      apply: (document) => ofSentence(sentence, document),
      isUnderstood: true,
      rest: otherVersions(sentence, names),
    };
  const reading: Reading = {
    triggers: [],
    include: [],
    exclude: [],
    caps: [],
    devices: [],
    withoutDevices: [],
    settings: new Map(),
  };
  const { pieces, beyond } = piecesOf(text);
  const rest: string[] = [];
  let isAny = false;
  let lead = '';
  let wasTrigger = false;
  for (let at = 0; at < pieces.length; ) {
    const taken = takeLongest(text, pieces, at, lead, reading, names);
    const { piece, answer, count } = taken;
    const isTrigger = answer === true && taken.hasTrigger;
    if (answer === true) {
      isAny = true;
      lead = LEAD.exec(piece)?.[0] ?? '';
      const join = isTrigger && wasTrigger ? joinBefore(text, pieces, at) : undefined;
      const joined = join ? setJoin(reading, join) : true;
      if (joined !== true) rest.push(`“${join === 'all' ? 'and' : 'or'}” before ${piece} (${joined})`);
    } else rest.push(typeof answer === 'string' ? `${piece} (${answer})` : piece);
    wasTrigger = isTrigger;
    at += count;
  }
  if (beyond !== '') rest.push(beyond);
  return { apply: isAny ? changeOf(reading) : (document) => document, isUnderstood: isAny, rest };
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

interface Taken {
  readonly piece: string;
  readonly answer: Answer;
  readonly count: number;
  readonly hasTrigger: boolean;
}

/** The longest run of pieces from here on that means something; one of them, not understood, where none does. */
function takeLongest(
  text: string,
  pieces: readonly Piece[],
  at: number,
  lead: string,
  reading: Reading,
  names: PageNames,
): Taken {
  const first = pieces[at] as Piece;
  const before = reading.triggers.length;
  let refused: Taken | undefined;
  const take = (piece: string, count: number): Taken => {
    const answer = readPiece(piece, reading, names);
    return { piece, answer, count, hasTrigger: reading.triggers.length > before };
  };
  for (let count = Math.min(MOST_PIECES, pieces.length - at); count > 0; count--) {
    const piece = wordsOf(text, first, pieces[at + count - 1] as Piece);
    const taken = take(piece, count);
    if (taken.answer === true) return taken;
    if (typeof taken.answer === 'string') refused ??= taken;
    if (lead === '') continue;
    const led = take(`${lead} ${piece}`, count);
    if (led.answer === true) return led;
    if (typeof led.answer === 'string') refused ??= { ...led, piece };
  }
  return refused ?? { piece: wordsOf(text, first, first), answer: false, count: 1, hasTrigger: false };
}
