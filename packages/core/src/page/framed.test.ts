import { expect, it } from 'vitest';
import { type Framed, worksInFrame } from './framed.ts';

const around = (host: string, hostAround: string | undefined, more?: Partial<Framed>): Framed => ({
  host,
  hostAround,
  isSameOrigin: false,
  width: 800,
  height: 600,
  ...more,
});
const resting = { sharedDomain: null };
const working = { sharedDomain: null, worksInFrames: true };

it.each([
  ['the same host, another port', around('fell.example', 'fell.example'), false],
  ['a host below', around('shop.fell.example', 'fell.example'), false],
  ['a host below, www left out', around('shop.fell.example', 'www.fell.example'), false],
  ['a host above', around('www.fell.example', 'shop.fell.example'), false],
  ['two that only end alike', around('shopfell.example', 'fell.example'), true],
  ['two beside one another, not known to be one', around('shop.fell.example', 'tours.fell.example'), true],
  ["somebody else's page", around('fell.example', 'skerry.example'), true],
  ['a page nobody names', around('fell.example', undefined), true],
])('in a frame of another origin: %s', (_, framed, works) => {
  expect(worksInFrame(framed, resting)).toBe(works);
  // A floor that cannot be seen cannot be shared, whatever the site allows.
  expect(worksInFrame(framed, working)).toBe(works);
});
it('subdomains that share a session are one site', () => {
  const settings = { sharedDomain: 'fell.example', worksInFrames: true };
  const among = (host: string, other: string) => worksInFrame(around(host, other), settings);
  expect(among('shop.fell.example', 'tours.fell.example')).toBe(false);
  expect(among('shop.fell.example', 'skerry.example')).toBe(true);
  expect(among('skerry.example', 'tours.fell.example')).toBe(true);
});
it.each([
  [{ width: 800, height: 600 }, true],
  [{ width: 240, height: 200 }, true],
  [{ width: 239, height: 600 }, false],
  [{ width: 800, height: 199 }, false],
  [{ width: 0, height: 0 }, false],
])(
  "in a frame of the page's own origin, where the site allows it, by what can be read in it: %j",
  (size, works) => {
    const framed = around('fell.example', 'fell.example', { isSameOrigin: true, ...size });
    expect(worksInFrame(framed, working)).toBe(works);
    expect(worksInFrame(framed, resting)).toBe(false);
  },
);
