import type { Happening, Rehearsal, Trigger } from '@velarium/contract';
import fc from 'fast-check';
import { describe, expect, it, test } from 'vitest';
import { type Change, campaign, on, time } from '../testing/begin-page-view.ts';
import { playOn } from '../testing/play-on.ts';
import { clockWords, judge, outcomeOf } from './expectations.ts';

const A = '00000000-0000-4000-8000-00000000000a';
const B = '00000000-0000-4000-8000-00000000000b';
const page = (path = '/a', seconds = 60, more: Partial<Rehearsal['pages'][number]> = {}) => ({
  path,
  seconds,
  depth: 80,
  afterMinutes: 0,
  happenings: [],
  ...more,
});
const play = playOn(page());
const seconds = (trigger: Trigger, happenings: Happening[] = [], change: Change = {}) =>
  play([campaign(A, { ...on(trigger), ...change })], {
    pages: [page('/a', 60, { happenings })],
  }).openings.map(({ second }) => second);

test.each<[string, Trigger, Happening[], number[]]>([
  ['a time', time(12.5), [], [12.5]],
  ['at once', time(0), [], [0]],
  ['later than the stay', time(61), [], []],
  ['time in sight alone', time(20), [{ at: 5, what: 'away', seconds: 30 }], [50]],
  ['a depth, evenly reached', { kind: 'scroll', unit: 'percent', amount: 40 }, [], [30]],
  // Pages are taken to be 3,000 pixels long: 600 are a fifth, and 80 % are read in a minute.
  ['a depth in pixels', { kind: 'scroll', unit: 'pixels', amount: 600 }, [], [15]],
  ['deeper than anybody comes', { kind: 'scroll', unit: 'percent', amount: 81 }, [], []],
  [
    'leaving by mouse',
    { kind: 'exitMouse', certainty: 'likely' },
    [{ at: 9, what: 'leavesByMouse', certainty: 'certain' }],
    [9],
  ],
  [
    'a sign less sure',
    { kind: 'exitMouse', certainty: 'certain' },
    [{ at: 9, what: 'leavesByMouse', certainty: 'early' }],
    [],
  ],
  ['coming back to the tab', { kind: 'tabReturn' }, [{ at: 9, what: 'away', seconds: 4 }], [13]],
  ['stillness', { kind: 'inactivity', seconds: 10 }, [{ at: 20, what: 'still', seconds: 15 }], [30]],
  ['stillness too short', { kind: 'inactivity', seconds: 10 }, [{ at: 20, what: 'still', seconds: 9 }], []],
  [
    'an event with its data',
    { kind: 'event', name: 'x', condition: { path: 'n', comparison: 'atLeast', value: 3 } },
    [
      { at: 1, what: 'event', name: 'x', data: { n: 2 } },
      { at: 4, what: 'event', name: 'x', data: { n: 3 } },
    ],
    [4],
  ],
  [
    'a click',
    { kind: 'interact', what: 'click', selector: '.b' },
    [{ at: 7, what: 'interacts', by: 'click', selector: '.b' }],
    [7],
  ],
  ['the page is there', { kind: 'load', when: 'loaded' }, [], [0]],
])('%s opens it', (_what, trigger, happenings, expected) => {
  expect(seconds(trigger, happenings)).toEqual(expected);
});

describe('a visit of several pages', () => {
  it('counts pages and time of the session, and begins another after a long break', () => {
    const third = campaign(A, on({ kind: 'count', of: 'viewsInSession', atLeast: 3 }));
    const pages = [page('/a', 10), page('/b', 10), page('/c', 10)];
    expect(play([third], { pages }).openings).toMatchObject([{ page: 2, second: 0, onLine: 20 }]);
    const apart = [page('/a', 10), page('/b', 10), page('/c', 10, { afterMinutes: 60 })];
    expect(play([third], { pages: apart }).openings).toEqual([]);
    const later = campaign(B, on({ kind: 'sessionTime', seconds: 15 }));
    expect(play([later], { pages }).openings).toMatchObject([
      { page: 1, second: 5 },
      { page: 2, second: 0 },
    ]);
    const second = campaign(A, on({ kind: 'count', of: 'sessions', atLeast: 2 }));
    expect(play([second], { pages: apart }).openings).toMatchObject([{ page: 2 }]);
  });
  it('remembers what the visitor did', () => {
    const often = campaign(A, { ...on(time(2)), afterClose: 'session', afterConversion: 'ever' });
    const pages = [page('/a', 10), page('/b', 10)];
    expect(play([often], { pages }).openings).toHaveLength(2);
    const close = [{ campaign: A, does: 'close', afterSeconds: 3 } as const];
    const played = play([often], { pages, reactions: close });
    expect(played.openings).toHaveLength(1);
    expect(
      played.lanes[0]?.stretches.map(({ from, to, page: of, verdict }) => [from, to, of, verdict.code]),
    ).toEqual([
      [0, 2, 0, 'waiting:trigger'],
      [2, 5, 0, 'shown'],
      [5, 10, 0, 'blocked:cap.closed'],
      [10, 20, 1, 'blocked:cap.closed'],
    ]);
    const met = (what: 'seen' | 'converted') => ({ who: { met: [{ campaign: A, what, hoursBefore: 5 }] } });
    expect(play([often], met('seen')).openings).toHaveLength(1);
    expect(play([often], met('converted')).openings).toEqual([]);
  });
  it('what lies before the visit has no part in its session', () => {
    const once = campaign(A, { ...on(time(1)), caps: [{ max: 1, per: 'session' }] });
    const who = { met: [{ campaign: A, what: 'seen' as const, hoursBefore: 0.1 }] };
    expect(play([once], { who }).openings).toHaveLength(1);
    expect(play([once], { who, limits: { perDay: 1 } }).openings).toEqual([]);
  });
});

it('who waits for the floor gets it when it is free, and who gives way does not', () => {
  const first = campaign(A, on(time(1)));
  const close = [{ campaign: A, does: 'close', afterSeconds: 4 } as const];
  const second = (whenBusy: 'wait' | 'yield') =>
    play([first, campaign(B, { ...on(time(2)), whenBusy })], { reactions: close }).openings.map((one) => [
      one.campaign,
      one.second,
    ]);
  expect(second('wait')).toEqual([
    [A, 1],
    [B, 5],
  ]);
  expect(second('yield')).toEqual([[A, 1]]);
});

it('divides a visitor who has a name as the tag does, and nobody else', () => {
  const withheld = campaign(A, {
    ...on(time(1)),
    experiment: { salt: 's', holdout: 100_000, variants: [] },
  });
  expect(play([withheld]).openings).toHaveLength(1);
  const played = play([withheld], { divided: 'f'.repeat(32) });
  expect(played.openings).toEqual([]);
  expect(played.held).toMatchObject([{ campaign: A, second: 1 }]);
});

it('plays the moment of the variant that a visitor who has a name is given, and else the first', () => {
  const { moment } = campaign(A, on(time(2)));
  const variant = (id: string, from: number, to: number) => ({
    id,
    buckets: [[from, to]],
    message: 'f'.repeat(32),
  });
  const tried = (of: 'a' | 'b') =>
    campaign(A, {
      ...on(time(2)),
      experiment: {
        salt: 's',
        holdout: 0,
        variants: [
          variant('a', 0, of === 'a' ? 100_000 : 0),
          { ...variant('b', 0, of === 'b' ? 100_000 : 0), moment: { ...moment, triggers: [time(9)] } },
        ],
      } as never,
    });
  const seconds = (of: 'a' | 'b', divided?: string) =>
    play([tried(of)], divided ? { divided } : {}).openings.map(({ second }) => second);
  expect(seconds('b', 'f'.repeat(32))).toEqual([9]);
  expect(seconds('a', 'f'.repeat(32))).toEqual([2]);
  expect(seconds('b')).toEqual([2]);
});

it('every second of every page has one verdict for every campaign, whatever happens', () => {
  const at = fc.integer({ min: 0, max: 40 });
  const happening = fc.oneof(
    fc.record({ at, what: fc.constant('away' as const), seconds: at }),
    fc.record({ at, what: fc.constant('still' as const), seconds: at }),
    fc.record({
      at,
      what: fc.constant('leavesByMouse' as const),
      certainty: fc.constantFrom('early', 'certain'),
    }),
    fc.record({ at, what: fc.constant('basket' as const), items: at, total: at }),
  ) as fc.Arbitrary<Happening>;
  const trigger = fc.oneof(
    at.map(time),
    fc.integer({ min: 1, max: 20 }).map((n): Trigger => ({ kind: 'inactivity', seconds: n })),
    fc.constant<Trigger>({ kind: 'exitMouse', certainty: 'early' }),
    fc.integer({ min: 1, max: 90 }).map((amount): Trigger => ({ kind: 'scroll', unit: 'percent', amount })),
  );
  const reaction = fc.constantFrom('close', 'refuse', 'convert');
  fc.assert(
    fc.property(
      fc.array(
        fc.tuple(trigger, fc.constantFrom('wait', 'yield'), fc.option(fc.integer({ min: 1, max: 9 }))),
        {
          minLength: 1,
          maxLength: 4,
        },
      ),
      fc.array(fc.record({ seconds: at, happenings: fc.array(happening, { maxLength: 4 }) }), {
        minLength: 1,
        maxLength: 3,
      }),
      fc.array(fc.tuple(reaction, at), { maxLength: 4 }),
      (rules, pages, does) => {
        const ids = rules.map((_, n) => `00000000-0000-4000-8000-00000000000${n}`);
        const played = play(
          rules.map(([one, whenBusy, again], n) =>
            campaign(ids[n] as string, {
              moment: { triggers: [one], againAfterSeconds: again },
              whenBusy: whenBusy as 'wait',
            }),
          ),
          {
            pages: pages.map((one) => page('/a', one.seconds, { happenings: one.happenings })),
            reactions: does.flatMap(([what, afterSeconds], n) =>
              ids[n] ? [{ campaign: ids[n] as string, does: what as 'close', afterSeconds }] : [],
            ),
          },
        );
        for (const { stretches } of played.lanes) {
          let line = 0;
          for (const { from, to } of stretches) {
            expect(from).toBe(line);
            expect(to).toBeGreaterThanOrEqual(from);
            line = to;
          }
          expect(line).toBe(played.pages.at(-1)?.to);
        }
        for (const { page: of, second } of played.openings)
          expect(second).toBeLessThanOrEqual(pages[of]?.seconds ?? 0);
      },
    ),
    { numRuns: 300 },
  );
});

describe('what is expected', () => {
  it('is asked of those that expect anything, and fails where one of it does not hold', () => {
    const played = (name: string, ...holds: boolean[]) => ({
      id: name,
      name,
      expectations: holds.map((one) => ({ words: name, holds: one, why: one ? '' : 'It opened.' })),
      since: null,
    });
    const all = [played('nothing'), played('held', true, true), played('half', true, false)];
    const { asked, failing } = outcomeOf(all);
    expect(asked.map(({ name }) => name)).toEqual(['held', 'half']);
    expect(failing.map(({ name }) => name)).toEqual(['half']);
    expect(outcomeOf([])).toEqual({ asked: [], failing: [] });
  });
  const opens = (bySecond: number | null, of: number | null = null) =>
    ({ kind: 'opens', campaign: A, page: of, bySecond }) as const;
  const write = () => 'later';
  const judged = (expectations: Rehearsal['expectations'], change: Change = on(time(20))) =>
    judge(
      play([campaign(A, change)], { pages: [page('/a', 30), page('/b', 10)] }),
      { pages: [page('/a', 30), page('/b', 10)], expectations },
      () => 'Letter',
      write,
    );
  test.each<[Rehearsal['expectations'][number], string, string]>([
    [opens(20), '“Letter” opens by 0:20', ''],
    [opens(19.5), '“Letter” opens by 0:19.5', 'It opens only at 0:20.'],
    [opens(null, 0), '“Letter” opens on /a', ''],
    [opens(null, 1), '“Letter” opens on /b', 'Waiting: it opens after 20 s more. It opened on /a.'],
    [{ kind: 'never', campaign: A }, '“Letter” never opens', 'It opened: “Letter” at 0:20 on /a.'],
    [{ kind: 'never', campaign: B }, '“Letter” never opens', ''],
    [{ kind: 'atMost', count: 1 }, 'At most 1 message in this visit', ''],
    [
      { kind: 'atMost', count: 0 },
      'At most 0 messages in this visit',
      '1 message opened: “Letter” at 0:20 on /a.',
    ],
    [
      { ...opens(null), campaign: B },
      '“Letter” opens',
      'It is not among the campaigns this visit is played against.',
    ],
  ])('%j', (expectation, words, why) => {
    expect(judged([expectation])).toEqual([{ words, holds: why === '', why }]);
  });
  it('names the gate where it never opens', () => {
    expect(judged([opens(null)], { ...on(time(1)), devices: 4 })[0]?.why).toBe(
      'Not shown, because it is not meant for a desktop.',
    );
  });
  test.each([
    [0, '0:00'],
    [59.96, '1:00'],
    [65.5, '1:05.5'],
    [3600, '60:00'],
  ])('%s s are %s', (second, words) => expect(clockWords(second)).toBe(words));
});
