import { DELIVERY_KINDS, DELIVERY_STATES, TOLD_EVENTS } from '@velarium/contract/values';
import fc from 'fast-check';
import { describe, expect, it, test } from 'vitest';
import { deliveryKindWords, deliveryStateWords, toldEventWords } from './delivery-words.ts';
import { GIVE_UP_MS, nextTryMs, retryAfterMs } from './next-try.ts';

const NOW = Date.UTC(2026, 10, 27, 9);
const failed = (tries: number, more: object = {}) => ({
  tries,
  begunMs: NOW,
  nowMs: NOW,
  askedMs: 0,
  random: 0.5,
  ...more,
});

describe('when a failed delivery is tried again', () => {
  test.each([
    [1, 10],
    [2, 30],
    [3, 90],
    [6, 2430],
    [8, 21_600],
    [20, 21_600],
  ])('after try %i: %i seconds', (tries, seconds) => {
    expect(nextTryMs(failed(tries))).toBe(NOW + seconds * 1000);
  });

  it('spreads by a quarter either way', () => {
    expect(nextTryMs(failed(1, { random: 0 }))).toBe(NOW + 7500);
    expect(nextTryMs(failed(1, { random: 0.999999 }))).toBeCloseTo(NOW + 12_500, -1);
  });

  it('never comes before the other side wants it', () => {
    expect(nextTryMs(failed(1, { askedMs: 120_000 }))).toBe(NOW + 120_000);
    expect(nextTryMs(failed(3, { askedMs: 5000 }))).toBe(NOW + 90_000);
  });

  it('tries for three days, once more as they end, and then no more', () => {
    const begunMs = NOW - GIVE_UP_MS;
    expect(nextTryMs(failed(9, { begunMs: begunMs + 60_000 }))).toBe(NOW + 60_000);
    expect(nextTryMs(failed(9, { begunMs: begunMs + 1 }))).toBe(NOW + 1);
    expect(nextTryMs(failed(9, { begunMs }))).toBeNull();
  });

  it('comes to an end within three days of the first try, whatever happens between', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: 0, max: 0.999, noNaN: true }), { minLength: 60 }), (chances) => {
        let [nowMs, tries] = [NOW, 0];
        for (const random of chances) {
          tries += 1;
          const next = nextTryMs({ tries, begunMs: NOW, nowMs, askedMs: 0, random });
          if (next === null) break;
          expect(next).toBeGreaterThan(nowMs);
          nowMs = next;
        }
        expect(nowMs).toBe(NOW + GIVE_UP_MS);
        expect(tries).toBeGreaterThan(15);
      }),
    );
  });
});

// RFC 9110, 10.2.3, with its own examples.
test.each([
  ['120', 120_000],
  ['Fri, 27 Nov 2026 09:02:00 GMT', 120_000],
  ['Fri, 31 Dec 1999 23:59:59 GMT', 0],
  ['soon', 0],
  ['-5', 0],
  [null, 0],
])('Retry-After %s is %i ms', (field, ms) => {
  expect(retryAfterMs(field, NOW)).toBe(ms);
});

it('has words of its own for every kind, state and event', () => {
  for (const [all, words] of [
    [DELIVERY_KINDS, deliveryKindWords],
    [DELIVERY_STATES, deliveryStateWords],
    [TOLD_EVENTS, toldEventWords],
  ] as const)
    expect(new Set(all.map(words as (one: string) => string)).size).toBe(all.length);
});
