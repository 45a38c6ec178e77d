import { describe, expect, it } from 'vitest';
import { seasonWindow, ticksOf, windowWords, type Zoom } from './window.ts';

const LONDON = 'Europe/London';
const at = (iso: string) => Date.parse(iso);
const iso = (ms: number) => new Date(ms).toISOString().slice(0, 16);

describe('what is looked at', () => {
  it.each<[zoom: Zoom, steps: number, from: string, to: string, words: string]>([
    ['day', 0, '2026-11-26T00:00', '2026-11-27T00:00', 'Thursday 26 November 2026'],
    ['day', -1, '2026-11-25T00:00', '2026-11-26T00:00', 'Wednesday 25 November 2026'],
    ['week', 0, '2026-11-23T00:00', '2026-11-30T00:00', '23 Nov 2026 to 29 Nov 2026'],
    ['week', 2, '2026-12-07T00:00', '2026-12-14T00:00', '7 Dec 2026 to 13 Dec 2026'],
    ['month', 0, '2026-11-01T00:00', '2026-12-01T00:00', 'November 2026'],
    ['month', 2, '2027-01-01T00:00', '2027-02-01T00:00', 'January 2027'],
    ['quarter', 0, '2026-11-23T00:00', '2027-02-22T00:00', '23 Nov 2026 to 21 Feb 2027'],
    ['year', 0, '2026-11-01T00:00', '2027-11-01T00:00', '1 Nov 2026 to 31 Oct 2027'],
    ['year', 1, '2027-11-01T00:00', '2028-11-01T00:00', '1 Nov 2027 to 31 Oct 2028'],
    ['year', -1, '2025-11-01T00:00', '2026-11-01T00:00', '1 Nov 2025 to 31 Oct 2026'],
    // It begins by the clocks of summer.
    ['quarter', -1, '2026-08-23T23:00', '2026-11-23T00:00', '24 Aug 2026 to 22 Nov 2026'],
  ])('%s, %i on', (zoom, steps, from, to, words) => {
    const window = seasonWindow(zoom, at('2026-11-26T20:15Z'), LONDON, steps);
    expect(window.map(iso)).toEqual([from, to]);
    expect(windowWords(zoom, window, LONDON)).toBe(words);
  });
  it('a Sunday is the last day of its week, and a Monday the first', () => {
    expect(iso(seasonWindow('week', at('2026-11-29T23:59Z'), LONDON)[0])).toBe('2026-11-23T00:00');
    expect(iso(seasonWindow('week', at('2026-11-30T00:00Z'), LONDON)[0])).toBe('2026-11-30T00:00');
  });
});

describe('the line', () => {
  const ticks = (zoom: Zoom, when: string) =>
    ticksOf(zoom, seasonWindow(zoom, at(when), LONDON), LONDON).map(({ words }) => words);
  it('has every hour there is', () => {
    // IANA: Europe/London goes from 01:00 to 02:00 on 29 March 2026, and from 02:00 to 01:00 on 25 October.
    expect(ticks('day', '2026-03-29T12:00Z').slice(0, 3)).toEqual(['00:00', '02:00', '03:00']);
    expect(ticks('day', '2026-03-29T12:00Z')).toHaveLength(23);
    expect(ticks('day', '2026-10-25T12:00Z').slice(0, 4)).toEqual(['00:00', '01:00', '01:00', '02:00']);
  });
  it('has days, Mondays or months', () => {
    expect(ticks('week', '2026-11-26T12:00Z')[0]).toBe('Mon 23 Nov');
    expect(ticks('month', '2026-11-26T12:00Z')).toHaveLength(30);
    expect(ticks('quarter', '2026-11-26T12:00Z').slice(0, 2)).toEqual(['23 Nov', '30 Nov']);
    expect(ticks('quarter', '2026-11-26T12:00Z')).toHaveLength(13);
    expect(ticks('year', '2026-11-26T12:00Z').slice(0, 3)).toEqual(['Nov', 'Dec', 'Jan']);
    expect(ticks('year', '2026-11-26T12:00Z')).toHaveLength(12);
  });
});
