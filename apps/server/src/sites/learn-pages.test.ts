import { expect, test } from 'vitest';
import { withOwnTitles } from './learn-pages.ts';

test('the name of a site is cut from the titles that were read, however many pages were not', () => {
  const page = (path: string, title = path) => ({ path, title, kind: null });
  const unread = Array.from({ length: 50 }, (_, n) => page(`/log/${n}`));
  const pages = [page('/tours', 'Tours · Quillon Fell'), page('/aurora', 'Aurora · Quillon Fell'), ...unread];
  expect(withOwnTitles(pages).map(({ title }) => title)).toEqual([
    'Tours',
    'Aurora',
    ...unread.map(({ path }) => path),
  ]);
});
