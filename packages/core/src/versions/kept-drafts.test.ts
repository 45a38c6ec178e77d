import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { DRAFTS_KEPT_SECONDS, keptDrafts, THINNINGS, thinnedTo } from './kept-drafts.ts';

const NOW = Date.UTC(2026, 10, 27, 12) / 1000;
const DAY = 86_400;

describe('how coarsely drafts are kept', () => {
  it.each([
    [0, 0],
    [3599, 0],
    [3600, 600],
    [DAY - 1, 600],
    [DAY, 3600],
    [30 * DAY - 1, 3600],
    [30 * DAY, DAY],
    [90 * DAY, 7 * DAY],
    [700 * DAY, 7 * DAY],
  ])('%i seconds old: one in %i seconds', (age, every) => {
    expect(thinnedTo(age)).toBe(every);
  });
});

it('a day of saving every five seconds leaves every one of the last hour, and one in ten minutes before', () => {
  const at = Array.from({ length: DAY / 5 }, (_, n) => NOW - DAY + 5 + n * 5);
  const kept = keptDrafts(at, NOW);
  expect(kept.filter((one) => NOW - one < 3600)).toHaveLength(720);
  // A stretch that begins before and ends after is one more.
  const older = kept.filter((one) => NOW - one >= 3600).length;
  expect([older, older <= 23 * 6 + 1 && older >= 23 * 6]).toEqual([older, true]);
});

it('what is kept is among them, holds the newest, and is kept again a while later or thinned, never another', () => {
  fc.assert(
    fc.property(
      fc.uniqueArray(fc.integer({ min: 1, max: 800 * DAY }), { minLength: 1, maxLength: 60 }),
      fc.integer({ min: 0, max: 40 * DAY }),
      (ages, later) => {
        const at = ages.map((age) => NOW - age).sort((a, b) => a - b);
        const kept = keptDrafts(at, NOW);
        expect(kept.at(-1)).toBe(at.at(-1));
        expect(new Set(kept).size).toBe(kept.length);
        for (const one of kept) expect(at).toContain(one);
        // Thinned twice is thinned once: nothing depends on how often the worker comes by.
        expect(keptDrafts(kept, NOW)).toEqual(kept);
        // Where stretches of different lengths meet, one more may stay than would have of all.
        const direct = keptDrafts(at, NOW + later);
        const stepwise = keptDrafts(kept, NOW + later);
        for (const one of stepwise) expect(at).toContain(one);
        expect(stepwise.length).toBeLessThanOrEqual(direct.length + THINNINGS.length);
        // What lies further back than is kept is gone, but for the newest.
        for (const one of kept.slice(0, -1)) expect(NOW - one).toBeLessThanOrEqual(DRAFTS_KEPT_SECONDS);
      },
    ),
  );
});
