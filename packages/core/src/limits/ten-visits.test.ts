import type { Limits } from '@velarium/contract';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { someRule } from '../testing/arbitrary.ts';
import { imagineVisits, type Reply, TEN_VISITS } from './ten-visits.ts';

const free = {
  caps: [],
  afterClose: 'none',
  afterNo: 'none',
  afterConversion: 'none',
  stopAfterUnanswered: null,
} as const;
const seen = (limits: Partial<Limits>, reply: Reply = 'closes') =>
  imagineVisits({ ...free, ...limits } as Limits, reply, 30)
    .map(({ isShown }) => (isShown ? '●' : '○'))
    .join('');

describe('ten visits, worked out by hand from the words of the limits', () => {
  it.each<[what: string, limits: Partial<Limits>, reply: Reply, expected: string]>([
    ['nothing in the way', {}, 'closes', '●●●●●●●●●●'],
    ['once per session of 30 minutes', { caps: [{ max: 1, per: 'session' }] }, 'closes', '●○●●●●●●●●'],
    ['once per visitor', { caps: [{ max: 1, per: 'ever' }] }, 'closes', '●○○○○○○○○○'],
    [
      'once a day, rolling from the showing',
      { caps: [{ max: 1, per: { count: 1, unit: 'days' } }] },
      'closes',
      '●○○●○●●●●●',
    ],
    ['twice a week', { caps: [{ max: 2, per: { count: 1, unit: 'weeks' } }] }, 'closes', '●●○○○○●●●●'],
    ['away for a month after a close', { afterClose: { count: 1, unit: 'months' } }, 'closes', '●○○○○○○○●●'],
    [
      'the same for one who only looks',
      { afterClose: { count: 1, unit: 'months' } },
      'ignores',
      '●●●●●●●●●●',
    ],
    ['never again after a conversion', { afterConversion: 'ever' }, 'converts', '●○○○○○○○○○'],
    ['away this session after a no', { afterNo: 'session' }, 'refuses', '●○●●●●●●●●'],
    ['stops after three without an answer', { stopAfterUnanswered: 3 }, 'ignores', '●●●○○○○○○○'],
  ])('%s', (_what, limits, reply, expected) => {
    expect(seen(limits, reply)).toBe(expected);
  });
  it('the first visit always sees it, and more limits never show it more often', () => {
    const replies = fc.constantFrom<Reply>('closes', 'refuses', 'converts', 'ignores');
    fc.assert(
      fc.property(someRule, replies, ({ limits }, reply) => {
        const visits = imagineVisits(limits, reply, 30);
        expect(visits).toHaveLength(TEN_VISITS.length);
        expect(visits[0]?.isShown).toBe(true);
        const count = (of: typeof visits) => of.filter(({ isShown }) => isShown).length;
        const stricter = { ...limits, caps: [{ max: 1, per: 'ever' as const }] };
        expect(count(imagineVisits(stricter, reply, 30))).toBeLessThanOrEqual(count(visits));
      }),
    );
  });
});
