import { expect, it } from 'vitest';
import { isAsAsked } from './event-data.ts';

const DATA = { cart: { total: 40, kind: 'gift' } };
const asked = (path: string, comparison: 'exactly' | 'atLeast' | 'atMost', value: string | number) =>
  isAsAsked({ path, comparison, value }, DATA);

it('where nothing is asked, anything is as asked', () => expect(isAsAsked(null, DATA)).toBe(true));
it.each([
  ['a word that is there', 'cart.kind', 'exactly', 'gift', true],
  ['another word', 'cart.kind', 'exactly', 'book', false],
  ['more than a word, which no word is', 'cart.kind', 'atLeast', 'gift', false],
  ['a number that is there', 'cart.total', 'exactly', 40, true],
  ['at least as much', 'cart.total', 'atLeast', 40, true],
  ['at most less', 'cart.total', 'atMost', 39, false],
  ['a number where a word is', 'cart.kind', 'exactly', 40, false],
  ['a word where a number is', 'cart.total', 'exactly', '40', false],
  ['what is not there', 'cart.more.deep', 'exactly', 'gift', false],
] as const)('%s', (_, path, comparison, value, holds) => expect(asked(path, comparison, value)).toBe(holds));
