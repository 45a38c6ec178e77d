import type { CampaignDocument, Message, Schedule, Trigger } from '@velarium/contract';
import { describe, expect, it } from 'vitest';
import { withLanguage } from '../languages/translate.ts';
import { PLAIN_LOOK } from '../look/looks.ts';
import { newBlock } from '../message/plain.ts';
import { plainMessage, plainRule } from '../testing/arbitrary.ts';
import { documentFindings, drawnMessages, launchFindings, measuredFindings, patternFault } from './launch.ts';
import { neverFindings, scheduleFindings } from './never.ts';

const message: Message = {
  ...plainMessage,
  steps: [{ id: 'first', role: 'first' as const, blocks: [{ ...newBlock('heading'), text: 'Hello' }] }],
};
const inWelsh = withLanguage(withLanguage(message, 'en'), 'cy');
const document = (change: Partial<CampaignDocument> = {}): CampaignDocument => ({
  message,
  rule: plainRule,
  variants: [],
  ...change,
});
const variant = (id: string, of: Message = message) => ({ id, weight: 10, message: of });

describe('every message a campaign can show', () => {
  const names = (of: Pick<CampaignDocument, 'message' | 'variants'>) =>
    drawnMessages(of).map(({ language, name }) => [language, name]);
  it('is named by its variant and its language, the first as it was written by neither', () => {
    expect(names(document())).toEqual([[undefined, '']]);
    expect(names(document({ variants: [variant('b'), variant('c')] }))).toEqual([
      [undefined, ''],
      [undefined, 'Variant 2'],
      [undefined, 'Variant 3'],
    ]);
    expect(names(document({ message: inWelsh, variants: [variant('b', inWelsh)] }))).toEqual([
      ['en', ''],
      ['cy', 'In Welsh'],
      ['en', 'Variant 2'],
      ['cy', 'Variant 2, In Welsh'],
    ]);
  });
  it('is told of what is cut off in it by that name, and of a hint nothing', () => {
    const cut = (pixels: number, buttons: string[] = []) => [
      { device: 'mobile' as const, step: 'first', pixels, buttons },
    ];
    const found = measuredFindings(document({ message: inWelsh }), [cut(40), cut(40, ['Send'])]);
    expect(found.map(({ severity, text }) => [severity, text.replace(/:.*/s, '')])).toEqual([
      ['warn', 'In Welsh'],
    ]);
    expect(measuredFindings(document(), [])).toEqual([]);
  });
});

it('what stops a launch comes before what it is warned of, whatever finds it', () => {
  const past: Schedule = {
    zone: 'site',
    start: null,
    end: '2020-01-01T00:00',
    days: [],
    hours: [],
    blackouts: [],
  };
  const launched = {
    id: 'one',
    name: 'One',
    document: document({
      message: { ...message, palette: { ink: '#8a8a8a' } },
      rule: {
        ...plainRule,
        reach: { ...plainRule.reach, devices: [] },
        limits: { ...plainRule.limits, schedule: past },
      },
    }),
  };
  const found = launchFindings(launched, {
    lookOf: () => PLAIN_LOOK,
    savedOf: () => undefined,
    running: [],
    zone: 'Europe/London',
    nowMs: Date.UTC(2026, 10, 26),
  }).map(({ severity, code }) => [severity, code]);
  expect(found).toEqual([
    ['stop', 'schedule.never'],
    ['stop', 'devices.none'],
    ['warn', 'contrast'],
  ]);
  const nowhere = document({
    message: { ...message, palette: { ink: '#8a8a8a' } },
    rule: { ...plainRule, reach: { ...plainRule.reach, pages: { include: [], exclude: [], follows: null } } },
  });
  expect(documentFindings(nowhere, () => PLAIN_LOOK).map(({ severity }) => severity)).toEqual([
    'stop',
    'warn',
  ]);
});

it('what is wrong with a pattern is told in words, and of what is none nothing', () => {
  expect(patternFault({ kind: 'regex', pattern: '(' })).toEqual({
    pattern: '(',
    why: 'a group is not closed (at character 1)',
  });
  expect(patternFault({ kind: 'regex', pattern: 'a' })).toBeUndefined();
  expect(patternFault({ kind: 'exact', address: '/(' })).toBeUndefined();
});

describe('what can never come true, in words', () => {
  const texts = (trigger: Trigger, devices: CampaignDocument['rule']['reach']['devices']) =>
    neverFindings({
      ...plainRule,
      moment: { ...plainRule.moment, triggers: [trigger] },
      reach: { ...plainRule.reach, devices },
    }).map(({ text }) => text);
  it('names the devices on which nothing can happen', () => {
    const byMouse: Trigger = { kind: 'exitMouse', certainty: 'likely' };
    expect(texts(byMouse, ['desktop', 'mobile'])).toEqual([
      'Nothing of its moment can happen on a phone: add a trigger that can, or leave it out under Reach.',
    ]);
    expect(texts(byMouse, ['desktop', 'tablet', 'mobile'])).toEqual([
      'Nothing of its moment can happen on a tablet or a phone: add a trigger that can, or leave them out under Reach.',
    ]);
  });
  it('tells a schedule that is over from one that never opens', () => {
    const found = (change: Partial<Schedule> | null) =>
      scheduleFindings(
        {
          ...plainRule,
          limits: {
            ...plainRule.limits,
            schedule: change && {
              zone: 'site',
              start: null,
              end: null,
              days: [],
              hours: [],
              blackouts: [],
              ...change,
            },
          },
        },
        Date.UTC(2026, 10, 26, 12),
        'Europe/London',
      ).map(({ text }) => text);
    expect(found({ end: '2026-11-26T11:00' })).toEqual([
      'Its schedule is over. Choose a later end, or none.',
    ]);
    expect(found({ end: '2026-11-28T00:00', days: [7] })).toEqual([
      'Its schedule never opens: its days, hours and blackouts leave nothing.',
    ]);
    expect(found({})).toEqual([]);
    expect(found(null)).toEqual([]);
  });
  it('keeps pages apart of which no beginning is known', () => {
    const codes = (include: CampaignDocument['rule']['reach']['pages']['include']) =>
      neverFindings({
        ...plainRule,
        reach: {
          ...plainRule.reach,
          pages: { include, exclude: [{ kind: 'begins', address: '/tours' }], follows: null },
        },
      }).map(({ code }) => code);
    expect(codes([{ kind: 'exact', address: '/tours/one' }])).toEqual(['pages.taken-back']);
    expect(codes([{ kind: 'wildcard', pattern: '/tours/*' }])).toEqual([]);
    expect(codes([{ kind: 'exact', address: '/shop' }])).toEqual([]);
  });
});
