import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  boundMemory,
  type Memory,
  NO_ARRIVAL,
  newMemory,
  readMemory,
  rememberAnswered,
  rememberConverted,
  rememberShown,
  rememberView,
  touchSession,
  writeMemory,
} from './memory.ts';

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
    const memory = newMemory(ids, 1_000_000, NO_ARRIVAL);
    const later = touchSession(memory, 1_000_000 + awayMs, 30, ids, NO_ARRIVAL);
    expect(later.session.id === memory.session.id).toBe(isSame);
  });
});

it('of all showings those of the last day are kept, and of one campaign all', () => {
  const HOUR_MS = 60 * MINUTE_MS;
  const shownAt = (memory: Memory, hours: number) =>
    rememberShown(memory, { id: 'this', epoch: 0 }, hours * HOUR_MS);
  const memory = [0, 1, 24, 25].reduce(shownAt, newMemory(ids, 0, NO_ARRIVAL));
  // One of exactly a day ago is over.
  expect(memory.shownAtMs).toEqual([24 * HOUR_MS, 25 * HOUR_MS]);
  expect(memory.campaigns.this?.showings).toBe(4);
});

it('a clock set back takes no activity back', () => {
  const memory = touchSession(
    newMemory(ids, 1_000_000, NO_ARRIVAL),
    1_000_000 + 20 * MINUTE_MS,
    30,
    ids,
    NO_ARRIVAL,
  );
  const later = touchSession(memory, 1_000_000, 30, ids, NO_ARRIVAL);
  // 31 minutes after the start, 11 after the last activity.
  expect(touchSession(later, 1_000_000 + 31 * MINUTE_MS, 30, ids, NO_ARRIVAL).session.id).toBe(
    memory.session.id,
  );
});

it('remembers the forty pages seen last, and how often each', () => {
  const pages = Array.from({ length: 60 }, (_, n) => `/${n}`);
  const memory = [...pages, '/30', '/61'].reduce(rememberView, newMemory(ids, 0, NO_ARRIVAL));
  expect(Object.keys(memory.pages)).toHaveLength(40);
  expect(memory.pages).toMatchObject({ '/30': 2, '/59': 1, '/61': 1 });
  expect(memory.pages).not.toHaveProperty('/20');
  expect(memory.pages).toHaveProperty('/22');
  expect(memory.session.views).toBe(62);
});

describe('reading what storage holds', () => {
  const good = rememberShown(newMemory(ids, 0, NO_ARRIVAL), { id: 'c', epoch: 0 }, 5);

  it('reads back what was written', () => {
    expect(readMemory(writeMemory(good))).toEqual(good);
  });

  it.each<[what: string, text: string | null]>([
    ['nothing', null],
    ['an empty text', ''],
    ['JSON without its check sum', JSON.stringify(good)],
    ['another thing’s text', 'hello world'],
    ['a newer version', writeMemory({ ...good, v: 2 } as unknown as Memory)],
    ['a record cut short', writeMemory(good).slice(0, -9)],
    ['a record with one digit changed', writeMemory(good).replace('"number":1', '"number":9')],
  ])('%s is as if there were nothing', (_what, text) => {
    expect(readMemory(text)).toBeUndefined();
  });

  it('never throws, whatever is stored', () => {
    fc.assert(
      fc.property(
        fc.oneof(
          fc.string(),
          fc.json(),
          fc.tuple(fc.integer(), fc.json()).map((parts) => parts.join(' ')),
        ),
        (text) => {
          readMemory(text);
        },
      ),
    );
  });

  it('a single character changed anywhere is noticed', () => {
    const text = writeMemory(good);
    fc.assert(
      fc.property(
        fc.nat({ max: text.length - 1 }),
        fc.string({ minLength: 1, maxLength: 1 }),
        (at, character) => {
          fc.pre(text[at] !== character);
          expect(readMemory(text.slice(0, at) + character + text.slice(at + 1))).toBeUndefined();
        },
      ),
      { numRuns: 2000 },
    );
  });
});

it('stays bounded, keeping live campaigns and the newest', () => {
  let memory = newMemory(ids, 0, NO_ARRIVAL);
  for (let i = 0; i < 300; i++) memory = rememberShown(memory, { id: `c${i}`, epoch: 0 }, i);
  const bounded = boundMemory(memory, new Set(['c0']), 100);
  expect(Object.keys(bounded.campaigns)).toHaveLength(100);
  expect(bounded.campaigns).toHaveProperty('c0');
  expect(bounded.campaigns).toHaveProperty('c299');
  expect(bounded.campaigns).not.toHaveProperty('c150');
});

it('keeps more instants of a campaign than its caps ask for today, and no more than a hundred', () => {
  let memory = newMemory(ids, 0, NO_ARRIVAL);
  for (let i = 0; i < 150; i++) memory = rememberShown(memory, { id: 'c', epoch: 0 }, i);
  expect(memory.campaigns.c?.shownAtMs).toHaveLength(100);
  expect(memory.campaigns.c?.shownAtMs.at(-1)).toBe(149);
  expect(memory.campaigns.c?.showings).toBe(150);
});

describe('what is remembered of campaigns', () => {
  const one = (id: string) => ({ id, epoch: 0 });
  it('is bound to two hundred: those that run before those that do not, then those seen last', () => {
    const many = (count: number) =>
      Array.from({ length: count }, (_, n) => n).reduce(
        (memory, n) => rememberShown(memory, one(`c${n}`), n),
        newMemory(ids, 0, NO_ARRIVAL),
      );
    const full = many(200);
    expect(boundMemory(full, new Set())).toBe(full);
    const kept = Object.keys(boundMemory(many(203), new Set(['c0'])).campaigns);
    expect(kept).toHaveLength(200);
    expect(kept).toContain('c0');
    for (const gone of ['c1', 'c2', 'c3']) expect(kept).not.toContain(gone);
    expect(Object.keys(boundMemory(many(4), new Set(), 2).campaigns)).toEqual(['c3', 'c2']);
  });
  it('is in the order of the clock, also where that was set back, and begins anew with an answer', () => {
    const back = [50, 10, 30].reduce(
      (memory, at) => rememberShown(memory, one('a'), at),
      newMemory(ids, 0, NO_ARRIVAL),
    );
    expect(back.campaigns.a).toMatchObject({ shownAtMs: [10, 30, 50], unanswered: 3, showingsInSession: 3 });
    expect(rememberAnswered(back, 'a').campaigns.a?.unanswered).toBe(0);
    expect(rememberConverted(back, 'a', 60).campaigns.a).toMatchObject({ unanswered: 0, convertedAtMs: 60 });
    const later = touchSession(back, 10_000_000, 30, ids, NO_ARRIVAL);
    expect(later.session).toMatchObject({ number: 2, views: 0, visibleMs: 0, shown: 0 });
    expect(rememberShown(later, one('a'), 10_000_001).campaigns.a).toMatchObject({
      showings: 4,
      showingsInSession: 1,
    });
    // Another epoch is another campaign.
    expect(rememberShown(back, { id: 'a', epoch: 1 }, 70).campaigns.a).toMatchObject({
      showings: 1,
      shownAtMs: [70],
      showingsInSession: 1,
      unanswered: 1,
      epoch: 1,
    });
  });
  it('of one that was never shown begins with nothing', () => {
    expect(rememberAnswered(newMemory(ids, 0, NO_ARRIVAL), 'new').campaigns.new).toMatchObject({
      showings: 0,
      shownAtMs: [],
      showingsInSession: 0,
      unanswered: 0,
      epoch: 0,
    });
  });
  it('is five hundred showings of a day, and a hundred of one campaign', () => {
    const memory = Array.from({ length: 510 }, (_, n) => n).reduce(
      (before, n) => rememberShown(before, one('a'), n),
      newMemory(ids, 0, NO_ARRIVAL),
    );
    expect([memory.shownAtMs.length, memory.shownAtMs[0]]).toEqual([500, 10]);
    expect([memory.campaigns.a?.shownAtMs.length, memory.campaigns.a?.shownAtMs[0]]).toEqual([100, 410]);
  });
});
