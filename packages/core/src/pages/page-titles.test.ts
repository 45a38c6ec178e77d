import { expect, it } from 'vitest';
import { ownTitles, tidyTitle } from './page-titles.ts';

it.each<[what: string, titles: string[], own: string[]]>([
  ['the site’s name behind', ['Aurora · Fell', 'Tours · Fell', 'Fell'], ['Aurora', 'Tours', 'Fell']],
  ['the site’s name before', ['Fell | Aurora', 'Fell | Tours'], ['Aurora', 'Tours']],
  ['on both sides', ['Fell – A – Home', 'Fell – B – Home'], ['A', 'B']],
  [
    'separators of the page’s own',
    ['Saturn: a guide - Fell', 'Mars: a guide - Fell'],
    ['Saturn: a guide', 'Mars: a guide'],
  ],
  ['a hyphen within a word is none', ['Well-known - Fell', 'So-so - Fell'], ['Well-known', 'So-so']],
  ['nothing in common', ['A · B', 'C · D'], ['A · B', 'C · D']],
  ['one page says nothing of a site', ['Aurora · Fell'], ['Aurora · Fell']],
  ['alike without it', ['A · Fell', 'A · Fell', 'B · Fell'], ['A · Fell', 'A · Fell', 'B']],
  ['half of them', ['A · Fell', 'B · Fell', 'C', 'D'], ['A', 'B', 'C', 'D']],
  ['fewer than half', ['A · Fell', 'B · Fell', 'C', 'D', 'E'], ['A · Fell', 'B · Fell', 'C', 'D', 'E']],
  ['none', [], []],
])('%s', (_, titles, own) => {
  expect(ownTitles(titles)).toEqual(own);
});

it.each([
  ['in one line', ' Finding\n  Saturn\t', 'Finding Saturn'],
  ['as long as it is read', 'a'.repeat(5000), 'a'.repeat(300)],
  ['nothing but room', ' '.repeat(100_000), ''],
  ['words after too much room', `${' '.repeat(2000)}Saturn`, ''],
])('a title is kept %s', (_, said, kept) => {
  expect(tidyTitle(said)).toBe(kept);
});
