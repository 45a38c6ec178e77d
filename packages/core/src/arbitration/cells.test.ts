import { expect, it, test } from 'vitest';
import { cellsOf, type PlacedMessage } from './cells.ts';

const NOWHERE_ELSE = { all: {}, tablet: {}, mobile: {} };
/** The cells as one would draw them: three rows from the top, a filled cell for each bit. */
const drawn = (bits: number) =>
  [0, 1, 2]
    .map((row) => [0, 1, 2].map((at) => ((bits >> (row * 3 + at)) & 1 ? '#' : '.')).join(''))
    .join('/');
const [TOP, MIDDLE, BOTTOM, ALL] = ['###/.../...', '.../###/...', '.../.../###', '###/###/###'];

test.each<[PlacedMessage['format'], PlacedMessage['anchor'], desktop: string, phone: string]>([
  ['modal', 'center', ALL, ALL],
  ['fullscreen', 'center', ALL, ALL],
  ['bar', 'top', TOP, TOP],
  ['bar', 'bottom', BOTTOM, BOTTOM],
  ['popup', 'center', '.../.#./...', MIDDLE],
  ['popup', 'top-start', '#../.../...', TOP],
  ['popup', 'end', '.../..#/...', MIDDLE],
  ['flyin', 'bottom-end', '.../.../..#', BOTTOM],
  ['flyin', 'bottom-start', '.../.../#..', BOTTOM],
  // A side of the window from above to below; from above or below it is a bar of its own.
  ['slidein', 'start', '#../#../#..', ALL],
  ['slidein', 'end', '..#/..#/..#', ALL],
  ['slidein', 'bottom', BOTTOM, BOTTOM],
])('a %s at %s lies on %s, on a phone on %s', (format, anchor, desktop, phone) => {
  const [onDesktop, onTablet, onPhone] = cellsOf([{ format, anchor, style: NOWHERE_ELSE }]);
  expect([drawn(onDesktop), drawn(onTablet), drawn(onPhone)]).toEqual([desktop, desktop, phone]);
});

it('a campaign lies wherever one of its messages may, and on a device where that says', () => {
  const message: PlacedMessage = { format: 'flyin', anchor: 'bottom-end', style: NOWHERE_ELSE };
  const other: PlacedMessage = {
    format: 'flyin',
    anchor: 'bottom-start',
    style: { ...NOWHERE_ELSE, tablet: { anchor: 'top-start' } },
  };
  expect(cellsOf([message, other]).map(drawn)).toEqual(['.../.../#.#', '#../.../..#', BOTTOM]);
});
