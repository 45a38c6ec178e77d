import { expect, it } from 'vitest';
import { isOutdated } from './outdated.ts';

const HOUR_MS = 3_600_000;
it.each<[what: string, made: number, current: number, now: number, is: boolean]>([
  ['the current one', 10, 10, 10 + 9 * HOUR_MS, false],
  ['an older one, an hour after it was replaced', 9, 10, 10 + HOUR_MS, false],
  ['an older one, later', 9, 10, 11 + HOUR_MS, true],
  ['a newer one than this process knows', 11, 10, 10 + 9 * HOUR_MS, false],
  ['one of a site of which it is not known when its manifest was made', 9, 0, 9 * HOUR_MS, false],
])('a page that runs %s', (_, made, current, now, is) => expect(isOutdated(made, current, now)).toBe(is));
