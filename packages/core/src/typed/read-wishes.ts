import type { CampaignDocument } from '@velarium/contract';
import { campaignDocumentSchema } from '@velarium/contract';
import { withFormat } from '../message/placement.ts';
import { experimentWords } from '../sentence/limits-words.ts';
import { readSentence } from '../sentence/read-sentence.ts';
import type { SentenceInput } from '../sentence/rule-sentence.ts';
import { BEGINS_ANEW, isWithin, joinBefore, type Piece, piecesOf, withItsTail, wordsOf } from './pieces.ts';
import { readPiece } from './read-piece.ts';
import {
  type Answer,
  changeOf,
  idsOf,
  newReading,
  type Reading,
  type SiteWords,
  setJoin,
} from './reading.ts';
import { isFiller, plainly, withoutFiller } from './spoken.ts';

export interface Wishes {
  /** What the wishes make of a campaign; the same one where nothing was understood. */
  readonly apply: (document: CampaignDocument) => CampaignDocument;
  readonly isUnderstood: boolean;
  /** What becomes of the message's design, each change in words. */
  readonly designs: readonly string[];
  /** What was typed and not understood, piece by piece, with the reason where there is one. */
  readonly rest: readonly string[];
  /** Those of them that say why they cannot be had. */
  readonly reasons: readonly string[];
}

/** A whole sentence of the product’s own may be long. */
const MOST_SENTENCE_LETTERS = 900_000;
/** Pieces that can belong together, as in the name of a page. */
const MOST_PIECES = 10;

/** How a piece begins that the next ones may leave out: “not on tablets or phones”. */
const LEAD =
  /^(?:(?:only )?(?:for |to )?(?:the )?(?:visitors|people|readers|those|everybody|anyone)(?: who)?(?: (?:are|come|came))? (?:not )?(?:from|in|with|on)|(?:visitors |people )?(?:speaking|reading)|on pages (?:with|that hold)|when (?:they|visitors|people) (?:click|press|tap|hover over|reach|see)(?: on)?|only on|not on|never on|not from|not in|only in|not|no|without|on|in|under|after|from|with|for|only)(?= )/i;
const LEFT_OUT = /\b(?:but|except|apart from|other than)\b/i;
/** From whom it keeps away: “everyone except people from France”, and from Belgium too. */
const KEEPS_FROM = /(?:^not (?:for|to)|\b(?:but|except|excluding))\b.*\b(from|speaking)\b/i;
function leadOf(piece: string): string {
  const from = KEEPS_FROM.exec(piece)?.[1];
  if (from !== undefined) return `not ${from}`;
  return LEFT_OUT.test(piece) ? 'not on' : (LEAD.exec(piece)?.[0] ?? '');
}

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
      reasons: [],
    };
  const reading = newReading(site.today);
  const { pieces, beyond } = piecesOf(text);
  const rest: string[] = [];
  const reasons: string[] = [];
  const refuse = (said: string, why: string) => {
    const told = `${said} (${why})`;
    rest.push(told);
    reasons.push(told);
  };
  let lead = '';
  let before: Taken | undefined;
  /** Whether what was said just before was not understood. */
  let isRefused = false;
  /** Where the moment that was said last begins among the triggers, and whether one was said of a device. */
  let momentAt = 0;
  let isOfDevice = false;
  for (let at = 0; at < pieces.length; ) {
    const state = keepState(reading);
    const taken = takeLongest(
      text,
      pieces,
      at,
      { lead, mustLead: isRefused && joinBefore(text, pieces, at) !== undefined },
      reading,
      site,
    );
    const { piece, answer, count, grown } = taken;
    if (answer !== true) {
      const whole = withItsTail(text, pieces, at, count);
      if (!(whole.count === 1 && pieces.length > 1 && isFiller(piece)))
        if (typeof answer === 'string') refuse(piece, answer);
        else rest.push(whole.words);
      at += typeof answer === 'string' ? count : whole.count;
      before = undefined;
      // What is added to it by a word is of its kind, or is not understood either.
      [lead, isRefused] = [leadOf(piece), true];
      continue;
    }
    const join = joinBefore(text, pieces, at);
    const isJoined = grown === 'triggers' && before?.grown === 'triggers' && join !== undefined;
    if (grown === 'triggers' && !isJoined) {
      if (isOfDevice) {
        // Which device has which moment would be lost.
        restore(reading, state);
        let next = at + count;
        while (next < pieces.length && isWithin(text, pieces, next)) next++;
        refuse(wordsOf(text, pieces[at] as Piece, pieces[next - 1] as Piece), ONE_MOMENT);
        [before, at] = [undefined, next];
        continue;
      }
      momentAt = state.triggers;
    }
    [lead, isRefused] = [leadOf(piece), false];
    if (isJoined && join) {
      const joined = setJoin(reading, join);
      if (joined !== true) refuse(`“${join === 'all' ? 'and' : 'or'}” before ${piece}`, `${joined}`);
    }
    if (grown === 'conditions' && before?.grown === 'conditions' && isAlternative(reading, taken, join))
      reading.alternatives.add(state.conditions);
    const bound = grown === 'devices' && before && isWithin(text, pieces, at) ? before : undefined;
    const why =
      bound?.grown === 'designs'
        ? ONE_DESIGN
        : bound?.grown === 'triggers' && momentAt > 0
          ? ONE_MOMENT
          : undefined;
    if (bound && why) {
      restore(reading, bound.state);
      refuse(`${bound.piece} ${piece}`, why);
    } else if (bound?.grown === 'triggers') isOfDevice = true;
    before = { ...taken, state };
    at += count;
  }
  if (beyond !== '') rest.push(beyond);
  const isAny = reading.settings.size > 0 || LISTS.some((name) => reading[name].length > 0);
  return {
    apply: isAny ? changeOf(reading) : (document) => document,
    isUnderstood: isAny,
    designs: reading.designs.map(({ said }) => said),
    rest,
    reasons,
  };
}

/** Of these a visitor has one at a time: who names two means either. */
const ONE_AT_A_TIME: ReadonlySet<string> = new Set([
  'country',
  'language',
  'source',
  'system',
  'browser',
  'referrer',
  'landing',
]);

/** Whether a condition just read is another way of meeting the one before it. */
function isAlternative({ conditions }: Reading, { isLed }: Taken, join: 'any' | 'all' | undefined): boolean {
  const [first, second] = conditions.slice(-2);
  if (!first || !second) return false;
  const isSame = first.condition.kind === second.condition.kind && first.not === second.not;
  // “Not from France or Belgium” keeps both away.
  if (isSame && second.not && isLed) return false;
  if (isSame && !second.not && (isLed || join !== undefined) && ONE_AT_A_TIME.has(second.condition.kind))
    return true;
  return join === 'any';
}

/** What there can be several of. */
type Grown = 'triggers' | 'conditions' | 'devices' | 'designs' | undefined;

interface Taken {
  readonly piece: string;
  readonly answer: Answer;
  readonly count: number;
  readonly grown: Grown;
  /** Whether its beginning was that of the piece before. */
  readonly isLed: boolean;
  /** Of the reading before it. */
  readonly state: State;
}

const ONE_MOMENT = 'a rule has one moment for all devices; a variant or a copy can have another';
const ONE_DESIGN = 'a design is for all devices; phones and tablets can differ';

/** The longest run of pieces from here on that means something; one of them, not understood, where none does. */
function takeLongest(
  text: string,
  pieces: readonly Piece[],
  at: number,
  { lead, mustLead }: { readonly lead: string; readonly mustLead: boolean },
  reading: Reading,
  site: SiteWords,
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
  for (let count = Math.min(MOST_PIECES, pieces.length - at); count > 0; count--) {
    const piece = wordsOf(text, first, pieces[at + count - 1] as Piece);
    const isNew = BEGINS_ANEW.test(piece);
    const isLed = lead !== '' && !isNew;
    const bare = withoutFiller(piece);
    const ways =
      mustLead && !isNew
        ? isLed
          ? [`${lead} ${piece}`]
          : []
        : [...(isLed ? [`${lead} ${piece}`] : []), piece, ...(bare === piece ? [] : [bare])];
    for (const said of ways) {
      const taken = take(said, count, isLed && said !== piece);
      if (taken.answer === true) return taken;
      if (typeof taken.answer === 'string') refused ??= { ...taken, piece };
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

const LISTS = [
  'triggers',
  'include',
  'exclude',
  'caps',
  'conditions',
  'devices',
  'withoutDevices',
  'designs',
] as const;
/** How far a reading has come. */
type State = Readonly<Record<(typeof LISTS)[number], number>> & { readonly settings: Reading['settings'] };

function keepState(reading: Reading): State {
  const lengths = Object.fromEntries(LISTS.map((name) => [name, reading[name].length]));
  return { ...(lengths as Record<(typeof LISTS)[number], number>), settings: new Map(reading.settings) };
}
function restore(reading: Reading, state: State): void {
  for (const name of LISTS) reading[name].splice(state[name]);
  reading.settings.clear();
  for (const [name, setting] of state.settings) reading.settings.set(name, setting);
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
