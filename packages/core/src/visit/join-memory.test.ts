import { expect, it } from 'vitest';
import { joinMemory } from './join-memory.ts';
import {
  NO_ARRIVAL,
  newMemory,
  rememberClosed,
  rememberConverted,
  rememberRefused,
  rememberShown,
  rememberView,
  rememberVisible,
} from './memory.ts';

const ids = (name: string) => ({ visitor: () => name, session: () => `session of ${name}` });
const twice = { id: 'c', caps: [{ max: 2, per: { count: 1, unit: 'days' as const } }], epoch: 0 };

it('what a page learned before the visitor agreed is added to what is remembered from before', () => {
  const stored = rememberShown(rememberView(newMemory(ids('old'), 0, NO_ARRIVAL), '/a'), twice, 10);
  const page = rememberClosed(
    rememberShown(rememberView(newMemory(ids('new'), 50, NO_ARRIVAL), '/a'), twice, 60),
    'c',
    70,
  );
  const joined = joinMemory(stored, page);
  expect(joined.visitor).toBe('old');
  expect(joined.session).toMatchObject({ id: 'session of old', views: 2, shown: 2 });
  expect(joined.pages).toEqual({ '/a': 2 });
  expect(joined.campaigns.c).toMatchObject({
    showings: 2,
    shownAtMs: [10, 60],
    showingsInSession: 2,
    unanswered: 2,
    closedAtMs: 70,
    closedIn: 'session of old',
  });
});

it('a count of another epoch is not added to', () => {
  const stored = rememberShown(newMemory(ids('old'), 0, NO_ARRIVAL), twice, 10);
  const page = rememberShown(newMemory(ids('new'), 50, NO_ARRIVAL), { ...twice, epoch: 1 }, 60);
  expect(joinMemory(stored, page).campaigns.c).toMatchObject({ showings: 1, epoch: 1 });
});

it('what was shown in another session is none of this one’s', () => {
  const before = rememberShown(newMemory(ids('old'), 0, NO_ARRIVAL), twice, 10);
  const later = { ...before, session: { ...before.session, id: 'a later session', shown: 0 } };
  const page = rememberShown(newMemory(ids('new'), 50, NO_ARRIVAL), twice, 60);
  expect(joinMemory(later, page).campaigns.c).toMatchObject({ showings: 2, showingsInSession: 1 });
});

it('a campaign the visitor had never met is taken as it is, one the page has not is kept', () => {
  const stored = rememberShown(newMemory(ids('old'), 0, NO_ARRIVAL), { ...twice, id: 'kept' }, 10);
  const page = rememberShown(newMemory(ids('new'), 50, NO_ARRIVAL), twice, 60);
  const { campaigns } = joinMemory(stored, page);
  expect(campaigns.kept?.shownAtMs).toEqual([10]);
  expect(campaigns.c).toMatchObject({ showings: 1, shownAtMs: [60], shownIn: 'session of old' });
});

it('the time in sight is added up, and showings stand in the order of the clock', () => {
  const stored = rememberVisible(rememberShown(newMemory(ids('old'), 0, NO_ARRIVAL), twice, 60), 5000);
  const page = rememberVisible(rememberShown(newMemory(ids('new'), 0, NO_ARRIVAL), twice, 10), 700);
  const joined = joinMemory(stored, page);
  expect(joined.session.visibleMs).toBe(5700);
  expect(joined.shownAtMs).toEqual([10, 60]);
  expect(joined.campaigns.c?.shownAtMs).toEqual([10, 60]);
});

it('what the visitor did on the page was done in the session that goes on, and nothing else was', () => {
  const stored = newMemory(ids('old'), 0, NO_ARRIVAL);
  const shown = rememberShown(newMemory(ids('new'), 50, NO_ARRIVAL), twice, 60);
  const of = (page: typeof shown) => joinMemory(stored, page).campaigns.c;
  const SESSION = 'session of old';
  expect(of(rememberRefused(shown, 'c', 70))).toMatchObject({ refusedIn: SESSION, shownIn: SESSION });
  expect(of(rememberConverted(shown, 'c', 70))).toMatchObject({ convertedIn: SESSION });
  for (const key of ['closedIn', 'refusedIn', 'convertedIn'] as const)
    expect(of(shown)?.[key]).toBeUndefined();
});

it('a page that was never seen before is counted from nothing', () => {
  const stored = rememberView(newMemory(ids('old'), 0, NO_ARRIVAL), '/a');
  const page = rememberView(newMemory(ids('new'), 50, NO_ARRIVAL), '/b');
  expect(joinMemory(stored, page).pages).toEqual({ '/a': 1, '/b': 1 });
});
