import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { boundMemory, newMemory, readMemory, rememberShown, touchSession } from './memory.ts';

const MINUTE_MS = 60_000;
let next = 0;
const ids = { visitor: () => '0123456789abcdef0123456789abcdef', session: () => `session-${++next}` };

describe('sessions', () => {
  it.each<[rule: string, awayMs: number, isSame: boolean]>([
    ['goes on after 29 minutes', 29 * MINUTE_MS, true],
    // Common practice: a session ends after 30 minutes without activity.
    ['goes on at exactly 30 minutes', 30 * MINUTE_MS, true],
    ['ends a millisecond later', 30 * MINUTE_MS + 1, false],
    ['goes on when the clock was set back', -5 * MINUTE_MS, true],
  ])('%s', (_rule, awayMs, isSame) => {
    const memory = newMemory(ids, 1_000_000);
    const later = touchSession(memory, 1_000_000 + awayMs, 30, ids);
    expect(later.session.id === memory.session.id).toBe(isSame);
  });
});

describe('reading what storage holds', () => {
  const good = rememberShown(newMemory(ids, 0), { id: 'c', caps: [] }, 5);

  it('reads back what was written', () => {
    expect(readMemory(JSON.stringify(good))).toEqual(good);
  });

  it.each<[what: string, json: string | null]>([
    ['nothing', null],
    ['no JSON', '{'],
    ['another thing’s JSON', '[1,2]'],
    ['a newer version', JSON.stringify({ ...good, v: 2 })],
    ['a visitor id that is none', JSON.stringify({ ...good, visitor: '<script>' })],
    ['a session without times', JSON.stringify({ ...good, session: { id: 'x' } })],
  ])('%s is as if there were nothing', (_what, json) => {
    expect(readMemory(json)).toBeUndefined();
  });

  it('a damaged campaign is left out and the rest kept', () => {
    const damaged = { ...good, campaigns: { ...good.campaigns, d: { showings: 'many' } } };
    expect(readMemory(JSON.stringify(damaged))).toEqual(good);
  });

  it('never throws and never returns half a record', () => {
    fc.assert(
      fc.property(
        fc.oneof(
          fc.string(),
          fc.json(),
          fc.jsonValue().map((value) => JSON.stringify({ ...good, session: value })),
        ),
        (json) => {
          const read = readMemory(json);
          if (read) expect(read.v).toBe(1);
        },
      ),
    );
  });
});

it('stays bounded, keeping live campaigns and the newest', () => {
  let memory = newMemory(ids, 0);
  for (let i = 0; i < 300; i++) memory = rememberShown(memory, { id: `c${i}`, caps: [] }, i);
  const bounded = boundMemory(memory, new Set(['c0']), 100);
  expect(Object.keys(bounded.campaigns)).toHaveLength(100);
  expect(bounded.campaigns).toHaveProperty('c0');
  expect(bounded.campaigns).toHaveProperty('c299');
  expect(bounded.campaigns).not.toHaveProperty('c150');
});

it('keeps no more instants of a campaign than its caps can ask for', () => {
  let memory = newMemory(ids, 0);
  const caps = [{ max: 3, per: { count: 1, unit: 'days' as const } }];
  for (let i = 0; i < 50; i++) memory = rememberShown(memory, { id: 'c', caps }, i);
  expect(memory.campaigns.c?.shownAtMs).toEqual([47, 48, 49]);
  expect(memory.campaigns.c?.showings).toBe(50);
});
