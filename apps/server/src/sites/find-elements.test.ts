import { Headers } from 'undici';
import { expect, it } from 'vitest';
import type { ReadOutside } from '../infra/outside.ts';
import { findElements } from './find-elements.ts';

const page = `<main>${'<p><b>Words</b></p>'.repeat(5000)}</main>`;
const read: ReadOutside = async (address) => ({
  status: 200,
  bytes: Buffer.from(page),
  type: 'text/html',
  headers: new Headers(),
  address,
});

it('a selector that is looked for without end is given up, and the others are found', async () => {
  const beganMs = performance.now();
  const seen = await findElements(
    read,
    'https://fell.example',
    ['/a', '/b'],
    ['main > p b', '.none ~ * ~ * ~ *', '.none'],
  );
  expect(seen).toEqual([
    { selector: 'main > p b', of: 2, pages: ['/a', '/b'] },
    { selector: '.none ~ * ~ * ~ *', of: 0, pages: [] },
    { selector: '.none', of: 2, pages: [] },
  ]);
  // Its limit is half a second a page; a machine may stand still.
  expect(performance.now() - beganMs).toBeLessThan(15_000);
});

it('of more than there is time for the last are not counted', async () => {
  const endless = Array.from({ length: 20 }, (_, n) => `.none${n} ~ * ~ * ~ *`);
  const beganMs = performance.now();
  const seen = await findElements(read, 'https://fell.example', ['/a', '/b'], endless);
  expect(seen.map(({ of }) => of)).toEqual(endless.map(() => 0));
  expect(performance.now() - beganMs).toBeLessThan(15_000);
});
