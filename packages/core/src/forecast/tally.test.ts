import { expect, it } from 'vitest';
import { wilson } from '../statistics/wilson.ts';
import { createTally } from './tally.ts';

const showing = { day: 0, device: 'desktop', page: '/a', second: 8 } as const;

// Mean and variance of a sample, common practice: visitors with 2, 1, none and 3 showings have 1.5 on average, with a variance of 5/3.
it('showings have the interval of how they are spread over visitors', () => {
  const tally = createTally('a', 1, 4);
  for (const [nth, times] of [2, 1, 0, 3].entries())
    for (let n = 0; n < times; n++) tally.opened(nth, showing);
  const half = 1.959964 * Math.sqrt((5 / 3) * 4);
  const { showings, reached } = tally.result(4, 1000);
  expect(reached.value).toBe(3000);
  expect(showings.value).toBe(6000);
  expect(showings.low).toBe(Math.round((6 - half) * 1000));
  expect(showings.high).toBe(Math.round((6 + half) * 1000));
  const share = wilson(3, 4);
  expect([reached.low, reached.high]).toEqual([share.low, share.high].map((one) => Math.round(one * 4000)));
});
it('of one visitor the spread is not known, and of two it is', () => {
  const tally = createTally('a', 1, 2);
  tally.opened(0, showing);
  tally.opened(0, showing);
  expect(tally.result(1, 1).showings).toEqual({ value: 2, low: 2, high: 2 });
  // 2 and none: a variance of 2.
  expect(tally.result(2, 100).showings).toEqual({
    value: 200,
    low: 0,
    high: Math.round((2 + 1.959964 * 2) * 100),
  });
});

it('the five pages where it opens most are named, the most first', () => {
  const tally = createTally('a', 1, 21);
  let nth = 0;
  for (const [n, page] of ['/f', '/e', '/d', '/c', '/b', '/a'].entries())
    for (let times = 0; times <= n; times++)
      tally.opened(nth++, { ...showing, page: `${page}?from=${times}` });
  const { pages } = tally.result(21, 1);
  expect(pages.map(({ path }) => path)).toEqual(['/a', '/b', '/c', '/d', '/e']);
  expect(pages[0]?.share).toBeCloseTo(6 / 21, 10);
});
