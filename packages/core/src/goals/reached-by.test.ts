import type { CampaignParts, ManifestGoal } from '@velarium/contract';
import fc from 'fast-check';
import { describe, expect, it, test } from 'vitest';
import { NO_NAMES } from '../sentence/names.ts';
import { deedsWords, deedWords } from './goal-words.ts';
import { reachedBy } from './reached-by.ts';

const goal = (over: Partial<ManifestGoal> = {}): ManifestGoal => ({
  id: '00000000-0000-4000-8000-000000000001',
  name: 'bought',
  condition: null,
  worth: null,
  ...over,
});
const TOTAL = { from: 'data', path: 'order.total' } as const;
const BASKET = { from: 'basket' } as const;
const AT_LEAST_60 = { path: 'order.total', comparison: 'atLeast', value: 60 } as const;

describe('goals an event reaches', () => {
  test.each<
    [string, Partial<ManifestGoal>, data: unknown, basket: number | null, worth: number | null | 'none']
  >([
    ['its name is enough', {}, undefined, null, null],
    ['another name', { name: 'reserved' }, {}, null, 'none'],
    ['data as asked', { condition: AT_LEAST_60 }, { order: { total: 60 } }, null, null],
    ['data below', { condition: AT_LEAST_60 }, { order: { total: 59.99 } }, null, 'none'],
    ['data missing', { condition: AT_LEAST_60 }, null, null, 'none'],
    ['worth of its data', { worth: TOTAL }, { order: { total: 42.5 } }, 7, 42.5],
    ['worth of nothing is a worth', { worth: TOTAL }, { order: { total: 0 } }, null, 0],
    ['worth that is words', { worth: TOTAL }, { order: { total: '42' } }, 7, null],
    ['worth below nothing', { worth: TOTAL }, { order: { total: -1 } }, 7, null],
    ['worth that is no number', { worth: TOTAL }, { order: { total: Number.NaN } }, 7, null],
    ['worth without end', { worth: TOTAL }, { order: { total: Number.POSITIVE_INFINITY } }, 7, null],
    ['worth of the basket', { worth: BASKET }, {}, 61, 61],
    ['a basket nobody told of', { worth: BASKET }, {}, null, null],
  ])('%s', (_what, over, data, basket, worth) => {
    const found = reachedBy([goal(over)], { name: 'bought', data }, basket);
    if (worth === 'none') return expect(found).toEqual([]);
    expect(found).toEqual([worth === null ? { goal: goal().id } : { goal: goal().id, worth }]);
  });

  it('takes whatever a page sends', () => {
    fc.assert(
      fc.property(fc.anything(), fc.string(), (data, path) => {
        const [found] = reachedBy(
          [goal({ worth: { from: 'data', path: path || 'x' } })],
          { name: 'bought', data },
          null,
        );
        const worth = found?.worth ?? 0;
        expect(worth >= 0 && worth <= 1e12).toBe(true);
      }),
    );
  });
});

test.each([
  [{ kind: 'answer' } as const, 'any form is answered'],
  [
    {
      kind: 'page',
      pages: [
        { kind: 'exact', address: '/a' },
        { kind: 'begins', address: '/b/' },
      ],
    } as const,
    'reached /a or addresses that begin with /b/',
  ],
  [{ kind: 'event', ...goal({ worth: TOTAL }) } as const, 'on the event “bought”, worth its “order.total”'],
  [{ kind: 'event', ...goal({ worth: BASKET }) } as const, 'on the event “bought”, worth the basket'],
])('a goal in words: %j', (deed, words) => {
  expect(deedWords(deed as Parameters<typeof deedWords>[0], NO_NAMES)).toBe(words);
});

test.each<[CampaignParts['goals'][number]['counts'], number, number, number | null, string]>([
  ['once', 10, 3, null, ''],
  ['each', 10, 3, null, '3 times'],
  ['each', 10, 1, null, '1 time'],
  ['once', 4, 2, 50, 'worth 50.00, 12.50 a visitor'],
  ['each', 4, 5, 1234.5, '5 times, worth 1,234.50, 308.63 a visitor'],
  ['once', 0, 0, 0, ''],
])('what was done, counting %s: %j visitors, %j times, worth %j', (counts, visitors, times, worth, words) => {
  expect(deedsWords({ counts }, { visitors, times, worth })).toBe(words);
});
