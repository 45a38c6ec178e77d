import { isWithin, joinBefore, type Piece, withItsTail, wordsOf } from './pieces.ts';
import { type Reading, restore, setJoin } from './reading.ts';
import { isFiller } from './spoken.ts';
import { type Heard, type Taken, takeLongest } from './take-longest.ts';

/** How a piece begins that the next ones may leave out: “not on tablets or phones”. */
const LEAD =
  /^(?:(?:only )?(?:for |to )?(?:the )?(?:visitors|people|readers|those|everybody|anyone)(?: who)?(?: (?:are|come|came))? (?:not )?(?:from|in|with|on)|(?:visitors |people )?(?:speaking|reading)|on pages (?:with|that hold)|when (?:they|visitors|people) (?:click|press|tap|hover over|reach|see)(?: on)?|only on|just on|not on|never on|not from|not in|only in|not|no|without|on|in|under|after|from|with|for|only|(?:make |set )?(?:the )?(?:heading|headline|title|text|button|close button))(?= )/i;
const LEFT_OUT = /\b(?:but|except|apart from|other than)\b/i;
/** From whom it keeps away: “everyone except people from France”, and from Belgium too. */
const KEEPS_FROM = /(?:^not (?:for|to)|\b(?:but|except|excluding))\b.*\b(from|speaking)\b/i;
function leadOf(piece: string): string {
  const from = KEEPS_FROM.exec(piece)?.[1];
  if (from !== undefined) return `not ${from}`;
  return LEFT_OUT.test(piece) ? 'not on' : (LEAD.exec(piece)?.[0] ?? '');
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
  // “Not from France or Belgium” keeps both away, “not for new visitors or from search” too.
  if (first.not && second.not && isLed) return false;
  if (isSame && !second.not && (isLed || join !== undefined) && ONE_AT_A_TIME.has(second.condition.kind))
    return true;
  return join === 'any';
}

/** How a piece begins without which the one before it would mean more than was said: “all pages with a map”. */
const QUALIFIES =
  /^(?:with|without|that|which|whose|where|who|but|except|apart from|other than|having|containing)\b/i;

/** Whether what was just understood left pages or devices out, in whatever words. */
const hasKeptAway = ({ exclude, withoutDevices }: Reading, { state }: Taken): boolean =>
  exclude.length > state.exclude || withoutDevices.length > state.withoutDevices;

const ONE_MOMENT = 'a rule has one moment for all devices; a variant or a copy can have another';
const ONE_DESIGN = 'a design is for all devices; phones and tablets can differ';

interface Understood {
  /** What was not, piece by piece, with the reason where there is one. */
  readonly rest: readonly string[];
  /** Those of them that say why they cannot be had. */
  readonly reasons: readonly string[];
}

/** Hears one piece after another, each with those before it in mind, and takes into the reading what can be had whole. */
export function listen(heard: Heard): Understood {
  const { text, pieces, reading } = heard;
  const rest: string[] = [];
  const reasons: string[] = [];
  let lead = '';
  /** What was understood just before, and its first piece; nothing where that was not. */
  let before: Taken | undefined;
  let beforeAt = 0;
  let isRefused = false;
  /** Where the moment that was said last begins among the triggers, and whether one was said of a device. */
  let momentAt = 0;
  let isOfDevice = false;
  const refuse = (said: string, why: string) => {
    const told = `${said} (${why})`;
    rest.push(told);
    reasons.push(told);
  };

  /** Names what was not understood; how many pieces that are. */
  const misunderstood = (at: number, { piece, answer, count }: Taken): number => {
    const qualified = before;
    before = undefined;
    // What is added to it by a word is of its kind, or is not understood either.
    [lead, isRefused] = [leadOf(piece), true];
    const whole = withItsTail(text, pieces, at, count);
    if (typeof answer === 'string') {
      refuse(whole.words, answer);
      return whole.count;
    }
    if (qualified && isWithin(text, pieces, at) && QUALIFIES.test(piece)) {
      restore(reading, qualified.state);
      const last = pieces[at + whole.count - 1] as Piece;
      rest.push(wordsOf(text, pieces[beforeAt] as Piece, last));
      return whole.count;
    }
    const isNothing = whole.count === 1 && pieces.length > 1 && isFiller(piece);
    if (!isNothing) rest.push(whole.words);
    return whole.count;
  };

  /** Refuses a moment beside one that was said of a device, to the end of its phrase; how many pieces that are. */
  const anotherMoment = (at: number, { count, state }: Taken): number => {
    restore(reading, state);
    let next = at + count;
    while (next < pieces.length && isWithin(text, pieces, next)) next++;
    refuse(wordsOf(text, pieces[at] as Piece, pieces[next - 1] as Piece), ONE_MOMENT);
    before = undefined;
    return next - at;
  };

  /** Joins triggers and conditions as the word between them says. */
  const join = (taken: Taken, by: 'any' | 'all' | undefined): void => {
    const { grown, piece, state } = taken;
    if (grown !== before?.grown) return;
    if (grown === 'triggers' && by) {
      const joined = setJoin(reading, by);
      if (joined !== true) refuse(`“${by === 'all' ? 'and' : 'or'}” before ${piece}`, `${joined}`);
    }
    if (grown === 'conditions' && isAlternative(reading, taken, by))
      reading.alternatives.add(state.conditions);
  };

  /** What a device was said of may not be had for it alone. */
  const ofDevice = (of: Taken, device: string): void => {
    const why =
      of.grown === 'designs' ? ONE_DESIGN : of.grown === 'triggers' && momentAt > 0 ? ONE_MOMENT : undefined;
    if (why) {
      restore(reading, of.state);
      refuse(`${of.piece} ${device}`, why);
    } else if (of.grown === 'triggers') isOfDevice = true;
  };

  const hear = (at: number): number => {
    const by = joinBefore(text, pieces, at);
    const taken = takeLongest(heard, at, {
      lead,
      mustLead: isRefused && by !== undefined,
      isNot: by === 'any' && before !== undefined && (/^not\b/i.test(lead) || hasKeptAway(reading, before)),
    });
    if (taken.answer !== true) return misunderstood(at, taken);
    const isNewMoment = taken.grown === 'triggers' && !(before?.grown === 'triggers' && by);
    if (isNewMoment && isOfDevice) return anotherMoment(at, taken);
    if (isNewMoment) momentAt = taken.state.triggers;
    [lead, isRefused] = [leadOf(taken.piece), false];
    join(taken, by);
    if (taken.grown === 'devices' && before && isWithin(text, pieces, at)) ofDevice(before, taken.piece);
    [before, beforeAt] = [taken, at];
    return taken.count;
  };

  for (let at = 0; at < pieces.length; ) at += hear(at);
  return { rest, reasons };
}
