import { DomUtils } from 'htmlparser2';
import { expect, it } from 'vitest';
import { parseHtml } from './html.ts';

it.each([
  ['elements', '<div>'],
  ['links', '<b><a href="/x">'],
  ['tables', '<table><tr><td>'],
])('a page of nothing but the beginnings of %s ends where it lies too deep', (_, beginnings) => {
  const beganMs = performance.now();
  const document = parseHtml(`<title>Fell</title>${beginnings.repeat(200_000)}<p>Words`);
  expect(DomUtils.textContent(DomUtils.getElementsByTagName('title', document))).toBe('Fell');
  expect(DomUtils.getElementsByTagName('p', document)).toEqual([]);
  // It took a minute.
  expect(performance.now() - beganMs).toBeLessThan(10_000);
});

it('a page as deep as pages are is read to its end', () => {
  const document = parseHtml(`${'<div>'.repeat(1500)}<p>Words`);
  expect(DomUtils.textContent(DomUtils.getElementsByTagName('p', document))).toBe('Words');
});
