import { HELD_REASONS, PERSON_STATES } from '@velarium/contract/values';
import { describe, expect, it, test } from 'vitest';
import { barsOf, standingWords } from './counts-words.ts';
import {
  type AnswerArrival,
  heldReason,
  heldWords,
  MOST_OF_ADDRESS,
  MOST_OF_SITE,
  MOST_OF_VISITOR,
} from './held.ts';
import { mayBeWrittenTo, nextPersonState, type PersonDeed, personStateWords } from './person-state.ts';

const HONEST: AnswerArrival = {
  milliseconds: 9000,
  isUnseenFilled: false,
  ofAddress: 1,
  ofVisitor: 1,
  ofSite: 1,
};

describe('what is kept apart', () => {
  test.each<[Partial<AnswerArrival>, string | null]>([
    [{}, null],
    [{ milliseconds: 1000 }, null],
    [{ milliseconds: 999 }, 'tooSoon'],
    // A page's clock set back between showing and sending says nothing a person could have done.
    [{ milliseconds: -5 }, 'tooSoon'],
    // The news of the showing was blocked: nothing is known, and nobody is held for it.
    [{ milliseconds: null }, null],
    [{ isUnseenFilled: true }, 'unseenField'],
    [{ isUnseenFilled: true, milliseconds: 0 }, 'unseenField'],
    [{ ofAddress: MOST_OF_ADDRESS }, null],
    [{ ofAddress: MOST_OF_ADDRESS + 1 }, 'manyFromAddress'],
    [{ ofVisitor: MOST_OF_VISITOR }, null],
    [{ ofVisitor: MOST_OF_VISITOR + 1 }, 'manyFromVisitor'],
    [{ ofSite: MOST_OF_SITE }, null],
    [{ ofSite: MOST_OF_SITE + 1 }, 'manyOnSite'],
  ])('%o: %s', (arrival, reason) => {
    expect(heldReason({ ...HONEST, ...arrival })).toBe(reason);
  });

  it('has words for every reason', () => {
    expect(new Set(HELD_REASONS.map(heldWords)).size).toBe(HELD_REASONS.length);
  });
});

describe('how a person stands', () => {
  test.each<[(typeof PERSON_STATES)[number] | null, PersonDeed, string]>([
    [null, 'answered', 'agreed'],
    [null, 'askedToConfirm', 'waiting'],
    ['agreed', 'answered', 'agreed'],
    ['agreed', 'askedToConfirm', 'waiting'],
    ['waiting', 'answered', 'waiting'],
    ['waiting', 'confirmed', 'confirmed'],
    ['confirmed', 'askedToConfirm', 'confirmed'],
    ['confirmed', 'answered', 'confirmed'],
    ['confirmed', 'left', 'left'],
    ['left', 'answered', 'left'],
    ['left', 'askedToConfirm', 'left'],
    ['left', 'confirmed', 'left'],
  ])('%s, %s: %s', (state, deed, next) => {
    expect(nextPersonState(state, deed)).toBe(next);
  });

  test.each<[(typeof PERSON_STATES)[number], boolean, boolean]>([
    ['agreed', false, true],
    ['agreed', true, true],
    ['waiting', false, false],
    ['waiting', true, true],
    ['confirmed', false, true],
    ['confirmed', true, false],
    ['left', false, false],
    ['left', true, false],
  ])('%s, a confirmation %s: may be written to %s', (state, isConfirmation, may) => {
    expect(mayBeWrittenTo(state, isConfirmation)).toBe(may);
  });

  it('has words for every state', () => {
    expect(new Set(PERSON_STATES.map((state) => personStateWords(state))).size).toBe(PERSON_STATES.length);
    expect(personStateWords('waiting', true)).toBe('did not confirm in time');
    expect(personStateWords('confirmed', true)).toBe('confirmed');
  });
});

test.each([
  [{}, 0, ''],
  [{ agreed: 9 }, 0, ''],
  [{ confirmed: 1 }, 0, '1 person confirmed'],
  [
    { confirmed: 1200, waiting: 3, left: 2 },
    1,
    '1,200 people confirmed, 2 asked to confirm, 1 did not confirm in time, 2 left',
  ],
  [{ waiting: 2 }, 2, '2 did not confirm in time'],
])('%j with %i expired stand as %j', (people, expired, words) => {
  expect(standingWords({ agreed: 0, waiting: 0, confirmed: 0, left: 0, ...people }, expired)).toBe(words);
});

test.each([
  [[], 0, 1],
  [[0, 0], 0, 1],
  [[2, 5, 1], 8, 5],
])('bars of %j', (values, sum, most) => {
  expect(barsOf(values)).toEqual({ sum, most });
});
