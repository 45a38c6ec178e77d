import { describe, expect, it, test } from 'vitest';
import { aroundDay, readDayCounts } from './day-counts.ts';
import { byCertainty, saysLittle } from './order.ts';
import { askedDays, daysIn, daysOf } from './period.ts';

describe('the days a question is about', () => {
  const today = '2026-03-30';
  const ask = (more: object) =>
    askedDays({ period: '28', against: 'before', ...more } as never, today, '2026-01-10');
  test.each<[object, [string, string], [string, string] | null]>([
    [{ period: 'today' }, ['2026-03-30', '2026-03-30'], ['2026-03-29', '2026-03-29']],
    [{ period: 'today', against: 'weekdays' }, ['2026-03-30', '2026-03-30'], ['2026-03-23', '2026-03-23']],
    [{ period: 'yesterday', against: 'none' }, ['2026-03-29', '2026-03-29'], null],
    [{ period: '7' }, ['2026-03-24', '2026-03-30'], ['2026-03-17', '2026-03-23']],
    [{}, ['2026-03-03', '2026-03-30'], ['2026-02-03', '2026-03-02']],
    // Eighty days back to the first; the same weekdays lie twelve weeks back.
    [{ period: 'launch', against: 'weekdays' }, ['2026-01-10', '2026-03-30'], ['2025-10-18', '2026-01-05']],
    [
      { period: 'own', from: '2026-02-27', until: '2026-03-01' },
      ['2026-02-27', '2026-03-01'],
      ['2026-02-24', '2026-02-26'],
    ],
    [
      { period: '7', against: 'own', againstFrom: '2025-12-01', againstUntil: '2025-12-31' },
      ['2026-03-24', '2026-03-30'],
      ['2025-12-01', '2025-12-31'],
    ],
  ])('%j', (question, [from, until], against) => {
    expect(ask(question)).toEqual({
      period: { from, until },
      against: against && { from: against[0], until: against[1] },
    });
  });
  test.each([
    [{ period: 'own' }, /^Choose the first and the last day/],
    [{ period: 'own', from: '2026-03-02', until: '2026-03-01' }, /lies before the first/],
    [{ period: 'own', from: '2020-01-01', until: '2026-03-01' }, /At most 1100 days/],
    // One day more than there may be, counted by hand from three years of 365 and five days.
    [{ period: 'own', from: '2023-03-01', until: '2026-03-05' }, /At most 1100 days/],
    [{ against: 'own', againstFrom: '2026-03-02', againstUntil: '2026-03-01' }, /days to compare with lies/],
  ])('%j is refused in words', (question, words) => {
    expect(ask(question)).toMatch(words);
  });
  it('may be as many days as are said, and no more', () => {
    const found = ask({ period: 'own', from: '2023-03-02', until: '2026-03-05' });
    expect(daysIn((found as { period: { from: string; until: string } }).period)).toBe(1100);
  });
  it('counts both ends, over a change of the clocks too', () => {
    expect(daysIn({ from: '2026-03-28', until: '2026-03-30' })).toBe(3);
    expect(daysOf({ from: '2026-03-28', until: '2026-03-30' })).toEqual([
      '2026-03-28',
      '2026-03-29',
      '2026-03-30',
    ]);
  });
});

describe('what is certain comes first', () => {
  const counts = (visitors: number, converters: number) => ({ visitors, converters });
  it('two of two do not lead a hundred of a thousand', () => {
    const rows = [counts(2, 2), counts(1000, 100), counts(0, 0), counts(1000, 400)];
    expect(byCertainty(rows, (row) => row).map(({ visitors, converters }) => [visitors, converters])).toEqual(
      [
        [1000, 400],
        [2, 2],
        [1000, 100],
        [0, 0],
      ],
    );
    expect(saysLittle(counts(2, 2))).toBe(true);
    expect(saysLittle(counts(1000, 100))).toBe(false);
    expect(saysLittle(counts(0, 0))).toBe(true);
  });
});

describe('counts of days from a file', () => {
  it('are as many as three years have', () => {
    const lines = (count: number) =>
      Array.from(
        { length: count },
        (_, n) => `${new Date(n * 86_400_000).toISOString().slice(0, 10)},${n}`,
      ).join('\n');
    expect(readDayCounts(lines(1100))).toMatchObject({ faults: [], days: { length: 1100 } });
    for (const count of [1101, 1103])
      expect(readDayCounts(lines(count)).faults).toEqual([
        { line: 1101, words: 'There are more than 1100 lines. Leave out the oldest.' },
      ]);
  });
  it('part at a day, of none into nothing', () => {
    expect(aroundDay([], '2026-11-27')).toEqual({ before: [], after: [] });
  });
  it('are read as people have them', () => {
    expect(readDayCounts('\uFEFFday,count\r\n2026-11-02,14\r\n"2026-11-01";"3"\n\n2026-11-03\t0\n')).toEqual({
      days: [
        { day: '2026-11-01', count: 3 },
        { day: '2026-11-02', count: 14 },
        { day: '2026-11-03', count: 0 },
      ],
      faults: [],
    });
  });
  test.each([
    ['2026-13-01,4', 1, /no day/],
    ['2026-11-01,4\n2026-02-30,4', 2, /no day/],
    ['2026-11-01,four', 1, /no count/],
    ['2026-11-01,-4', 1, /no count/],
    ['2026-11-01,4,and more', 1, /more on this line/],
    ['2026-11-01,4\n2026-11-01,5', 2, /twice/],
    ['day,count\n,', 2, /no day/],
  ])('%j: line %i', (text, line, words) => {
    const { faults } = readDayCounts(text);
    expect(faults).toHaveLength(1);
    expect(faults[0]).toMatchObject({ line, words: expect.stringMatching(words) });
  });
  it('part at a day, with those that are missing counted as none', () => {
    const { before, after } = aroundDay(
      [
        { day: '2026-10-30', count: 4 },
        { day: '2026-11-02', count: 6 },
      ],
      '2026-11-01',
    );
    expect(before).toEqual([
      { day: '2026-10-30', count: 4 },
      { day: '2026-10-31', count: 0 },
    ]);
    expect(after).toEqual([
      { day: '2026-11-01', count: 0 },
      { day: '2026-11-02', count: 6 },
    ]);
    expect(aroundDay([], '2026-11-01')).toEqual({ before: [], after: [] });
  });
});
