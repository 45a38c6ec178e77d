import { expect, test } from 'vitest';
import { siteLimitsWords } from './site-limits-words.ts';

test.each([
  [null, null, null, 0, 'A visitor can meet any number of messages.'],
  [null, null, null, 30, 'A visitor can meet any number of messages, never two within 30 seconds.'],
  [1, null, null, 0, 'A visitor meets at most 1 message on a page.'],
  [null, 8, null, 1, 'A visitor meets at most 8 in a session, never two within 1 second.'],
  [3, 8, 12, 0, 'A visitor meets at most 3 messages on a page, 8 in a session, 12 in a day.'],
] as const)(
  'limits %s a page, %s a session, %s a day, %s s apart',
  (perPageView, perSession, perDay, gapSeconds, words) => {
    expect(siteLimitsWords({ perPageView, perSession, perDay, gapSeconds })).toBe(words);
  },
);
