import { expect, it } from 'vitest';
import { usualFolder } from './usual-folder.ts';

it.each([
  ['the folder most pages lie in', ['/shop/a', '/journal/a', '/journal/b', '/'], 'journal'],
  ['also where it comes first', ['/journal/a', '/journal/b', '/shop/a'], 'journal'],
  ['none where no page lies in one', ['/', '/about', '/shop/'], undefined],
  ['none of no pages', [], undefined],
])('%s', (_, paths, folder) => expect(usualFolder(paths.map((path) => ({ path })))).toBe(folder));
