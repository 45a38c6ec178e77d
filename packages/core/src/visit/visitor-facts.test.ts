import { expect, test } from 'vitest';
import type { Memory } from './memory.ts';
import { type PageViewFacts, visitorFacts } from './visitor-facts.ts';

const told = {} as PageViewFacts;
const memoryOf = (past: object) =>
  ({ session: { number: 2, views: 3 }, campaigns: { one: past } }) as unknown as Memory;

test.each([
  [{ showings: 0 }, { seen: false, closed: false, converted: false }],
  [{ showings: 1 }, { seen: true, closed: false, converted: false }],
  [
    { showings: 1, closedAtMs: 0 },
    { seen: true, closed: true, converted: false },
  ],
  [
    { showings: 1, convertedAtMs: 0 },
    { seen: true, closed: false, converted: true },
  ],
])('what is remembered as %j', (past, history) => {
  expect(visitorFacts(memoryOf(past), told).history('one')).toEqual(history);
  expect(visitorFacts(memoryOf(past), told).history('another')).toEqual({
    seen: false,
    closed: false,
    converted: false,
  });
});
