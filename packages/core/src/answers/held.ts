import type { HeldReason } from '@velarium/contract';

/** What is known of how an answer came. */
export interface AnswerArrival {
  /** Between the showing and the sending, by the page's own clock; `null` when no showing was told of. */
  readonly milliseconds: number | null;
  /** Whether the field that people do not see holds something. */
  readonly isUnseenFilled: boolean;
  /** Answers in the last ten minutes, this one among them. */
  readonly ofAddress: number;
  readonly ofVisitor: number;
  readonly ofSite: number;
}

/** Nobody reads a message and answers it sooner. */
const LEAST_MS = 1000;
/**
 * In ten minutes. A school class, an office or a lecture hall behind one address stays far below; a visitor who writes
 * more often than this is a program.
 */
export const MOST_OF_ADDRESS = 120;
export const MOST_OF_VISITOR = 6;
export const MOST_OF_SITE = 6000;

/** Why an answer is kept apart until a person has looked at it; `null` when it is not. */
export function heldReason(arrival: AnswerArrival): HeldReason | null {
  if (arrival.isUnseenFilled) return 'unseenField';
  if (arrival.milliseconds !== null && arrival.milliseconds < LEAST_MS) return 'tooSoon';
  if (arrival.ofVisitor > MOST_OF_VISITOR) return 'manyFromVisitor';
  if (arrival.ofAddress > MOST_OF_ADDRESS) return 'manyFromAddress';
  return arrival.ofSite > MOST_OF_SITE ? 'manyOnSite' : null;
}

const HELD_WORDS: Readonly<Record<HeldReason, string>> = {
  unseenField: 'A field that people do not see was filled in.',
  tooSoon: 'It was sent within a second of the message being shown.',
  manyFromVisitor: 'The same visitor sent many answers within ten minutes.',
  manyFromAddress: 'Very many answers came from one network address within ten minutes.',
  manyOnSite: 'The whole site got very many answers within ten minutes.',
};
export const heldWords = (reason: HeldReason): string => HELD_WORDS[reason];
