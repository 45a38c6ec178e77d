import { happeningSchema } from '@velarium/contract';
import { describe, expect, it } from 'vitest';
import type { Verdict } from '../verdict/verdict.ts';
import {
  beginHappening,
  HAPPENING_NAMES,
  happeningWords,
  type LaneShape,
  laneShape,
} from './rehearsal-words.ts';

const CAMPAIGN = '00000000-0000-4000-8000-000000000001';

describe('what a stretch of a lane is', () => {
  it.each<[LaneShape, Verdict['code'][]]>([
    ['open', ['shown', 'ready']],
    ['waits', ['waiting:trigger']],
    ['queues', ['waiting:floor', 'blocked:yielded', 'blocked:limit.day', 'blocked:limit.gap']],
    ['held', ['held:holdout']],
    ['shut', ['blocked:schedule.after', 'blocked:device', 'blocked:audience', 'blocked:page.view']],
  ])('%s', (shape, codes) => {
    for (const code of codes) expect(laneShape({ code } as Verdict), code).toBe(shape);
  });
});

describe('what can happen on a page', () => {
  const kinds = Object.keys(HAPPENING_NAMES) as (keyof typeof HAPPENING_NAMES)[];
  const begun = kinds.map((what) => beginHappening(what, 12, CAMPAIGN));
  it('begins as something that can be kept, where it is put', () => {
    for (const happening of begun) {
      expect(happeningSchema.parse(happening)).toEqual(happening);
      expect(happening.at).toBe(12);
    }
  });
  it('is said in a few words', () => {
    const words = begun.map((happening) => happeningWords(happening, () => 'Letter'));
    expect(Object.fromEntries(kinds.map((kind, n) => [kind, words[n]]))).toEqual({
      leavesByMouse: 'leaves (likely)',
      leavesByTouch: 'scrolls up quickly',
      away: 'another tab for 10 seconds',
      still: 'still for 15 seconds',
      interacts: 'click .cta',
      reaches: 'reaches footer',
      articleEnd: 'end of the article',
      event: 'event “reserved”',
      basket: 'basket: 3 things, worth 60',
      signIn: 'signs in',
      asks: 'asks for “Letter”',
    });
    expect(happeningWords({ at: 0, what: 'leavesByTouch', by: 'back' }, String)).toBe('goes back');
    expect(happeningWords({ at: 0, what: 'signIn', is: false }, String)).toBe('signs out');
  });
});
