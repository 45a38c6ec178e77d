import type { AudienceItem, Happening, ManifestCampaign } from '@velarium/contract';
import { LONGEST_VISIT_SECONDS } from '@velarium/contract';
import { describe, expect, it } from 'vitest';
import { ordinal } from '../sentence/words.ts';
import { campaign, on, time } from '../testing/begin-page-view.ts';
import { playOn } from '../testing/play-on.ts';
import { beginPage, beginRehearsal } from './beginning.ts';
import { clockWords, exitOf, judge } from './expectations.ts';
import { arrivalAt } from './prepared-page.ts';
import { rehearsalOfRecorded } from './recorded.ts';

const [A, B, C] = ['a', 'b', 'c'].map((end) => `00000000-0000-4000-8000-00000000000${end}`) as [
  string,
  string,
  string,
];
const page = (seconds = 60, happenings: Happening[] = [], path = '/a') => ({
  ...beginPage(path, { seconds, depth: 80 }),
  happenings,
});
const BEGINS = '2026-11-25T20:00';
const play = playOn(page());
const lane = (played: ReturnType<typeof play>, of: string) =>
  (played.lanes.find((one) => one.campaign === of)?.stretches ?? []).map(({ from, to, verdict }) => [
    from,
    to,
    verdict.code,
  ]);
const opened = (played: ReturnType<typeof play>) =>
  played.openings.map(({ campaign: of, second }) => [of, second]);
const forThose = (condition: AudienceItem['condition']): ManifestCampaign['audience'] => ({
  match: 'all',
  groups: [{ not: false, match: 'all', items: [{ not: false, condition }] }],
});

describe('a page that is played', () => {
  it('is, unless more is known of it, one that half of all readers leave sooner', () => {
    expect(beginPage('/a')).toEqual({
      path: '/a',
      seconds: 30,
      depth: 60,
      afterMinutes: 0,
      happenings: [],
    });
    expect(beginPage('/a', { seconds: 0, depth: 0 })).toMatchObject({ seconds: 0, depth: 0 });
  });
  it('has one stretch for what lasts, and none for what lasts no time', () => {
    expect(lane(play([campaign(A, on(time(0)))]), A)).toEqual([[0, 60, 'shown']]);
    const still = on({ kind: 'inactivity', seconds: 10 });
    expect(
      lane(play([campaign(A, still)], { pages: [page(60, [{ at: 20, what: 'still', seconds: 15 }])] }), A),
    ).toEqual([
      [0, 30, 'waiting:trigger'],
      [30, 60, 'shown'],
    ]);
    expect(
      lane(play([campaign(A, { ...on(time(1)), include: [], includeKeys: ['s.example/b'] })]), A),
    ).toEqual([[0, 60, 'blocked:page.unmatched']]);
  });
  it('tells what happens at its very end, and nothing after', () => {
    const event = (at: number): Happening => ({ at, what: 'event', name: 'x', data: {} });
    const asked = campaign(A, on({ kind: 'event', name: 'x', condition: null }));
    expect(opened(play([asked], { pages: [page(60, [event(60)])] }))).toEqual([[A, 60]]);
    expect(opened(play([asked], { pages: [page(60, [event(60.5)])] }))).toEqual([]);
    expect(opened(play([campaign(A, on({ kind: 'scroll', unit: 'percent', amount: 80 }))]))).toEqual([
      [A, 60],
    ]);
    expect(opened(play([campaign(A, on(time(60)))]))).toEqual([[A, 60]]);
  });
  it('is as long in pixels as it has been read in per cent', () => {
    // 3,000 pixels: a tenth is read after 7.5 seconds, 600 after 15.
    const tenth = campaign(A, on({ kind: 'scroll', unit: 'percent', amount: 10 }));
    const pixels = campaign(B, on({ kind: 'scroll', unit: 'pixels', amount: 600 }));
    const reactions = [{ campaign: A, does: 'close' as const, afterSeconds: 1 }];
    expect(opened(play([tenth, pixels], { reactions }))).toEqual([
      [A, 7.5],
      [B, 15],
    ]);
  });
  it('shows what is asked of the page itself to nobody, for a rehearsal knows none', () => {
    const holds = campaign(A, { ...on(time(1)), include: [{ kind: 'holds', selector: '.open' }] });
    expect(opened(play([holds]))).toEqual([]);
  });
  it('lets those with what it tells of meanwhile have what is meant for them', () => {
    const basket = campaign(A, {
      ...on(time(1)),
      audience: forThose({ kind: 'basketItems', comparison: 'atLeast', count: 2 }),
    });
    const full: Happening = { at: 12, what: 'basket', items: 2, total: 30 };
    expect(lane(play([basket], { pages: [page(60, [full])] }), A)).toEqual([
      [0, 12, 'blocked:audience'],
      [12, 60, 'shown'],
    ]);
    const member = campaign(A, { ...on(time(1)), audience: forThose({ kind: 'signedIn', is: true }) });
    expect(opened(play([member], { pages: [page(60, [{ at: 9, what: 'signIn', is: true }])] }))).toEqual([
      [A, 9],
    ]);
    const guest = campaign(A, { ...on(time(20)), audience: forThose({ kind: 'signedIn', is: false }) });
    const out: Happening = { at: 9, what: 'signIn', is: false };
    expect(opened(play([guest], { pages: [page(60, [out])], who: { signedIn: true } }))).toEqual([[A, 20]]);
  });
  it('says that its time is over before it says that it is not on this page', () => {
    const until = (end: string) => {
      const schedule = { zone: 'site' as const, start: null, end, days: [], hours: [], blackouts: [] };
      const elsewhere = { ...on(time(1)), include: [], includeKeys: ['s.example/b'], schedule };
      return lane(play([campaign(A, elsewhere)]), A);
    };
    expect(until('2026-11-25T19:00')).toEqual([[0, 60, 'blocked:schedule.after']]);
    expect(until('2026-11-25T21:00')).toEqual([[0, 60, 'blocked:page.unmatched']]);
  });
});

describe('what a visitor does with what opens', () => {
  const pages = [page(20), page(20)];
  it.each([
    ['refuse', { afterNo: 'ever' as const }, 'blocked:cap.refused'],
    ['convert', { afterConversion: 'ever' as const }, 'blocked:cap.converted'],
    ['close', { afterClose: 'ever' as const }, 'blocked:cap.closed'],
  ] as const)('to %s is remembered', (does, pause, code) => {
    const one = campaign(A, { ...on(time(2)), ...pause });
    const reactions = [{ campaign: A, does, afterSeconds: 3 }];
    expect(lane(play([one], { pages, reactions }), A)).toEqual([
      [0, 2, 'waiting:trigger'],
      [2, 5, 'shown'],
      [5, 20, code],
      [20, 40, code],
    ]);
    // Nobody who only saw it has done so.
    expect(opened(play([one], { pages }))).toEqual([
      [A, 2],
      [A, 2],
    ]);
  });
  it('is done to each of two that are open, the sooner one first', () => {
    const [left, right] = [1, 4].map((cells) => [cells, cells, cells]) as [number[], number[]];
    const first = campaign(A, { ...on(time(1)), cells: left as never, afterClose: 'ever' });
    const second = campaign(B, { ...on(time(2)), cells: right as never, afterClose: 'ever' });
    const reactions = [
      { campaign: A, does: 'close' as const, afterSeconds: 20 },
      { campaign: B, does: 'close' as const, afterSeconds: 3 },
    ];
    const played = play([first, second], { reactions });
    expect(lane(played, A).slice(1)).toEqual([
      [1, 21, 'shown'],
      [21, 60, 'blocked:cap.closed'],
    ]);
    expect(lane(played, B).slice(1)).toEqual([
      [2, 5, 'shown'],
      [5, 60, 'blocked:cap.closed'],
    ]);
  });
  it('names who has the place, one after the other', () => {
    const all = [campaign(A, on(time(1))), campaign(B, on(time(2))), campaign(C, on(time(3)))];
    const reactions = [A, B].map((of) => ({ campaign: of, does: 'close' as const, afterSeconds: 10 }));
    const held = (play(all, { reactions }).lanes[2]?.stretches ?? []).map(({ from, verdict }) => [
      from,
      'heldBy' in verdict ? verdict.heldBy : verdict.code,
    ]);
    expect(held).toEqual([
      [0, 'waiting:trigger'],
      [3, A],
      [11, B],
      [21, 'shown'],
    ]);
  });
});

describe('what was before a visit', () => {
  const once = campaign(A, { ...on(time(1)), caps: [{ max: 1, per: { count: 1, unit: 'days' } as never }] });
  const met = (hoursBefore: number, what: 'seen' | 'closed' | 'refused' | 'converted' = 'seen', of = A) => ({
    campaign: of,
    what,
    hoursBefore,
  });
  it('lies as many hours back as it says', () => {
    expect(opened(play([once], { who: { met: [met(23.9)] } }))).toEqual([]);
    expect(opened(play([once], { who: { met: [met(24.1)] } }))).toEqual([[A, 1]]);
  });
  it.each([
    ['closed', { afterClose: 'ever' as const }, 'blocked:cap.closed'],
    ['refused', { afterNo: 'ever' as const }, 'blocked:cap.refused'],
    ['converted', { afterConversion: 'ever' as const }, 'blocked:cap.converted'],
  ] as const)('%s is what the browser remembers', (what, pause, code) => {
    const one = campaign(A, { ...on(time(1)), ...pause });
    expect(lane(play([one], { who: { met: [met(5, what)] } }), A)).toEqual([[0, 60, code]]);
    expect(opened(play([one], { who: { met: [met(5)] } }))).toEqual([[A, 1]]);
  });
  it('came in the order of its hours, however it is told', () => {
    const twice = campaign(A, { ...on(time(1)), stopAfterUnanswered: 2 });
    const answered = [met(50, 'seen'), met(2, 'converted')];
    const lanes = [answered, [...answered].reverse()].map((all) =>
      lane(play([twice], { who: { met: all } }), A),
    );
    expect(lanes[0]).toEqual(lanes[1]);
  });
  it('may be of a campaign that is gone', () => {
    expect(opened(play([once], { who: { met: [met(2, 'seen', B)] } }))).toEqual([[A, 1]]);
  });
  it('leaves a gap by the clock on the wall', () => {
    const [first, second] = [campaign(A, on(time(5))), campaign(B, on(time(20)))];
    const reactions = [{ campaign: A, does: 'close' as const, afterSeconds: 5 }];
    expect(opened(play([first, second], { reactions, limits: { gapSeconds: 30 } }))).toEqual([
      [A, 5],
      [B, 35],
    ]);
  });
});

it('an opening lies on the line of the visit and on the clock', () => {
  const often = campaign(A, on(time(5)));
  const beginsMs = Date.parse(`${BEGINS}Z`);
  expect(play([often], { pages: [page(20), { ...page(20), afterMinutes: 2 }] }).openings).toEqual([
    { campaign: A, page: 0, second: 5, onLine: 5, atMs: beginsMs + 5000 },
    { campaign: A, page: 1, second: 5, onLine: 25, atMs: beginsMs + 145_000 },
  ]);
});

it('of a page that the visit does not have says so, and a tenth of a second too', () => {
  const opens = { kind: 'opens', campaign: A, page: 5, bySecond: null } as const;
  const rehearsal = { pages: [page()], expectations: [opens] };
  expect(judge(play([campaign(A, on(time(80)))]), rehearsal, () => 'Letter', String)).toEqual([
    { words: `“Letter” opens on the ${ordinal(6)} page`, holds: false, why: 'The visit has no such page.' },
  ]);
  expect(clockWords(0.1)).toBe('0:00.1');
});

it('a build that asks is told what failed, and fails for it alone', () => {
  const rehearsed = (name: string, ...holds: boolean[]) => ({
    id: name,
    name,
    expectations: holds.map((one, n) => ({ words: `${n}`, holds: one, why: one ? '' : 'It opened.' })),
    since: null,
  });
  expect(exitOf([rehearsed('nothing'), rehearsed('held', true)])).toEqual({
    exitCode: 0,
    asked: 1,
    failing: [],
  });
  expect(exitOf([rehearsed('held', true), rehearsed('half', true, false)])).toEqual({
    exitCode: 1,
    asked: 2,
    failing: [{ name: 'half', expectations: [{ words: '1', why: 'It opened.' }] }],
  });
});

it('a session begins with twenty of the parameters it came with, by a path without its last slash', () => {
  const asked = Array.from({ length: 25 }, (_, n) => `p${n}=${n}`).join('&');
  expect(Object.keys(arrivalAt(`/a?${asked}`, '').arrival)).toHaveLength(20);
  expect(['/', '/a/', '/a//', '/a'].map((path) => arrivalAt(path, '').landing)).toEqual([
    '/',
    '/a',
    '/a',
    '/a',
  ]);
});

it('of a recorded visit as much is played as a rehearsal has room for, and nobody is supposed to have left by an edge', () => {
  const recorded = (...stays: number[]) =>
    rehearsalOfRecorded(
      {
        days: 28,
        visitors: 1,
        isSample: false,
        list: [
          {
            ...beginRehearsal(page(), BEGINS).visitor,
            referrer: '',
            pages: stays.map((seconds, n) => ({ path: '/a', atMs: n * 4_000_000, seconds, depth: 50 })),
          },
        ],
      },
      0,
      { timeZone: 'Europe/London' },
    )?.pages ?? [];
  const full = Array.from({ length: LONGEST_VISIT_SECONDS / 3600 }, () => 3600);
  expect(recorded(...full)).toHaveLength(full.length);
  expect(recorded(...full, 1)).toHaveLength(full.length);
  for (const { happenings } of recorded(...full)) expect(happenings).toEqual([]);
});
