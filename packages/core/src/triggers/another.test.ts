import type { Trigger } from '@velarium/contract';
import { triggerSchema } from '@velarium/contract';
import { describe, expect, it } from 'vitest';
import { usualFolder } from '../pages/usual-folder.ts';
import { anotherTrigger } from './another.ts';

const time = (seconds: number): Trigger => ({ kind: 'time', seconds });

describe('another trigger of a kind', () => {
  it.each<[Trigger, Trigger[], Trigger | undefined]>([
    [time(10), [], time(10)],
    [time(10), [time(10)], time(20)],
    [time(10), [time(10), time(20)], time(30)],
    [time(10), [time(12)], time(10)],
    [
      { kind: 'scroll', unit: 'percent', amount: 50 },
      [{ kind: 'scroll', unit: 'percent', amount: 50 }],
      { kind: 'scroll', unit: 'percent', amount: 75 },
    ],
    [
      { kind: 'scroll', unit: 'pixels', amount: 800 },
      [{ kind: 'scroll', unit: 'pixels', amount: 800 }],
      { kind: 'scroll', unit: 'pixels', amount: 1300 },
    ],
    // From the end of the page one begins above it; from near it the end is next.
    ...(
      [
        [100, 25],
        [90, 100],
      ] as const
    ).map(([amount, next]): [Trigger, Trigger[], Trigger] => [
      { kind: 'scroll', unit: 'percent', amount },
      [{ kind: 'scroll', unit: 'percent', amount }],
      { kind: 'scroll', unit: 'percent', amount: next },
    ]),
    ...(
      [
        ['early', 'likely'],
        ['likely', 'certain'],
        ['certain', 'early'],
      ] as const
    ).map(([certainty, next]): [Trigger, Trigger[], Trigger] => [
      { kind: 'exitMouse', certainty },
      [{ kind: 'exitMouse', certainty }],
      { kind: 'exitMouse', certainty: next },
    ]),
    ...(
      [
        ['click', 'hover'],
        ['hover', 'focus'],
        ['focus', 'click'],
      ] as const
    ).map(([what, next]): [Trigger, Trigger[], Trigger] => [
      { kind: 'interact', what, selector: 'main' },
      [{ kind: 'interact', what, selector: 'main' }],
      { kind: 'interact', what: next, selector: 'main' },
    ]),
    [
      { kind: 'count', of: 'sessions', atLeast: 2 },
      [{ kind: 'count', of: 'sessions', atLeast: 2 }],
      { kind: 'count', of: 'sessions', atLeast: 3 },
    ],
    [{ kind: 'load', when: 'loaded' }, [{ kind: 'load', when: 'loaded' }], { kind: 'load', when: 'ready' }],
    [
      { kind: 'load', when: 'loaded' },
      [
        { kind: 'load', when: 'loaded' },
        { kind: 'load', when: 'ready' },
      ],
      undefined,
    ],
    [
      { kind: 'exitTouch', by: 'back' },
      [{ kind: 'exitTouch', by: 'back' }],
      { kind: 'exitTouch', by: 'scrollUp' },
    ],
    [
      { kind: 'exitTouch', by: 'scrollUp' },
      [{ kind: 'exitTouch', by: 'scrollUp' }],
      { kind: 'exitTouch', by: 'back' },
    ],
    [{ kind: 'articleEnd' }, [{ kind: 'articleEnd' }], undefined],
    [
      { kind: 'element', selector: 'footer' },
      [{ kind: 'element', selector: 'footer' }],
      { kind: 'element', selector: 'main' },
    ],
  ])('%j beside %j begins as %j', (beginning, triggers, expected) => {
    expect(anotherTrigger(beginning, triggers)).toEqual(expected);
    if (expected) expect(triggerSchema.safeParse(expected).success).toBe(true);
  });
});

it.each([
  [[], undefined],
  [['/', '/about'], undefined],
  [['/journal/a', '/shop/x', '/journal/b?c=d'], 'journal'],
])('of pages %j the usual folder is %j', (paths, folder) => {
  expect(usualFolder(paths.map((path) => ({ path })))).toBe(folder);
});
