import type { Moment, Trigger } from '@velarium/contract';
import { describe, expect, it } from 'vitest';
import { at, begin, campaign, memory } from '../testing/begin-page-view.ts';
import { causeOf } from './cause.ts';

const TIME: Trigger = { kind: 'time', seconds: 10 };
const RETURN: Trigger = { kind: 'tabReturn' };
const SCROLL: Trigger = { kind: 'scroll', unit: 'percent', amount: 40 };

describe('what opens a message', () => {
  it.each<
    [what: string, join: Moment['join'], triggers: Trigger[], until: number, cause: string | undefined]
  >([
    ['the only one', 'all', [TIME], 10, 'time'],
    ['a fact before its time', 'any', [TIME, RETURN], 6, 'tabReturn'],
    ['time, where no fact came', 'any', [SCROLL, TIME], 10, 'time'],
    ['of two that came the first in the rule', 'any', [TIME, RETURN], 12, 'time'],
    ['none by itself of those needed together', 'all', [TIME, RETURN], 12, undefined],
    ['none while none has come', 'any', [TIME, SCROLL], 3, undefined],
  ])('%s', (_, join, triggers, until, cause) => {
    const one = campaign('a', { moment: { join, triggers } });
    const view = begin([one]);
    view.tell({ kind: 'tabReturned' }, 5);
    expect(causeOf(one.moment, view.leftOf('a', memory, at(until)))).toBe(cause);
  });

  it('is told anew of every opening', () => {
    const one = campaign('a', { moment: { triggers: [RETURN, TIME], againAfterSeconds: 0 } });
    const view = begin([one]);
    view.tell({ kind: 'tabReturned' }, 2);
    view.onOpened('a');
    view.gone('a', 4);
    expect(causeOf(one.moment, view.leftOf('a', memory, at(13.9)))).toBeUndefined();
    expect(causeOf(one.moment, view.leftOf('a', memory, at(14)))).toBe('time');
  });
});
