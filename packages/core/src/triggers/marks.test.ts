import type { Moment, Trigger } from '@velarium/contract';
import { expect, it } from 'vitest';
import { plainRule } from '../testing/arbitrary.ts';
import { momentMarks } from './marks.ts';

const time = (seconds: number): Trigger => ({ kind: 'time', seconds });
const momentOf = (change: Partial<Moment>): Moment => ({
  ...plainRule.moment,
  notBeforeSeconds: 0,
  ...change,
});

it.each([
  ['any', 5],
  ['all', 20],
] as const)('joined by %s the mark at %i seconds decides', (join, second) => {
  expect(momentMarks(momentOf({ join, triggers: [time(20), time(5)] })).decidingSecond).toBe(second);
});

it('keeps each trigger’s place in the list; a depth in pixels has none on a page of unknown height', () => {
  const triggers: Trigger[] = [
    { kind: 'scroll', unit: 'pixels', amount: 900 },
    time(8),
    { kind: 'scroll', unit: 'percent', amount: 50 },
  ];
  const { timed, scrolled, others } = momentMarks(momentOf({ triggers }));
  expect([timed, scrolled, others].map((list) => list.map(({ at }) => at))).toEqual([[1], [2], [0]]);
});

it('without time marks nothing decides, and the arming time is the last that is said', () => {
  const marks = momentMarks(
    momentOf({ triggers: [{ kind: 'scroll', unit: 'percent', amount: 1 }], notBeforeSeconds: 7 }),
  );
  expect(marks).toMatchObject({ decidingSecond: null, lastSecond: 7 });
});
