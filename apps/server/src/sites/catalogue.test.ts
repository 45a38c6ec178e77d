import { expect, test } from 'vitest';
import { cataloguePath } from './catalogue.ts';

const pathOf = cataloguePath({ trackingParameters: ['utm_source', 'Ref'] } as never);

/** As browsers write addresses (WHATWG URL). */
test.each([
  ['/', '/'],
  ['/tours/', '/tours'],
  ['/tours///', '/tours'],
  ['/nightfall öl', '/nightfall%20%C3%B6l'],
  ['/tours?b=1&utm_source=letter&ref=x', '/tours?b=1'],
  ['/a/../b/./c', '/b/c'],
  // Two slashes at its beginning, or what browsers take for them, are no other host.
  ['//promo', '//promo'],
  ['//promo<da', '//promo%3Cda'],
  ['/\\*|t', '//*|t'],
  ['//', '/'],
  ['/@other.example/x', '/@other.example/x'],
  ['/:99999', '/:99999'],
])('%s is known as %s', (path, known) => {
  expect(pathOf(path)).toBe(known);
});
