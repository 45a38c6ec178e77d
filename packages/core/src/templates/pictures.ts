import type { Pictures } from '@velarium/contract';

/** The pictures that come with Velarium, drawn for it; every one is 1200 by 800. */
export const DRAWN_PICTURES = {
  dome: 'The observatory dome under the Milky Way',
  'milky-way': 'The Milky Way over a ridge',
  saturn: 'Saturn and its rings',
  ridge: 'The ridge at dusk',
  'star-map': 'A star map with the summer triangle marked',
  comet: 'A comet over the hills',
  hut: 'A hut with a lit window in the snow',
  moon: 'The moon in its phases',
  aurora: 'Green aurora over a lake',
  ferry: 'A ferry between two islands',
} as const;
export type DrawnPicture = keyof typeof DRAWN_PICTURES;

/** The drawn pictures as pages load them. They are drawings, so they scale by themselves. */
export const DRAWN_FILES: Pictures = Object.fromEntries(
  Object.keys(DRAWN_PICTURES).map((name) => [
    `drawn:${name}`,
    { path: `/pictures/drawn/${name}.svg`, width: 1200, height: 800, widths: [] },
  ]),
);
