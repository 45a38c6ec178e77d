import { fontSchema } from '@velarium/contract';
import { expect, it, test } from 'vitest';
import { fontOfPage } from './font-of-page.ts';
import { firstFamily, fontStack, lettersOf, nearestFont, withFiles } from './letters.ts';
import { FONT_STACKS, PLAIN_LOOK } from './looks.ts';

test.each([
  // As sheets write them (CSS Fonts Level 4, font-family and font).
  ["'Own Serif', serif", '"Own Serif", serif'],
  ['Two Words,Other , sans-serif', '"Two Words", Other, sans-serif'],
  ['17px/1.5 Georgia, serif', 'Georgia, serif'],
  ['italic 600 1.1rem / 1.4 "A, B", serif', '"A, B", serif'],
  ['bold 12pt Times', `Times, ${FONT_STACKS.serif}`],
  ['"Own Rounded"', `"Own Rounded", ${FONT_STACKS.round}`],
  ['Own', `Own, ${FONT_STACKS.sans}`],
  ['-apple-system, "Segoe UI", sans-serif', 'sans'],
  ['ui-monospace, monospace', 'mono'],
  ['inherit', undefined],
  ['16px', undefined],
  // What could end a declaration is no name of a family.
  ['"a}b{c", serif', 'serif'],
  ['"<b>", sans-serif', 'sans'],
  ['"back\\\\slash", serif', 'serif'],
  [`${'x'.repeat(2000)}, serif`, 'sans'],
])('a page set in %s is set in %s', (value, font) => {
  expect(fontOfPage(value)).toBe(font);
});

test.each([
  'sans',
  'Georgia, serif',
  '"Own, with a comma", Georgia',
  FONT_STACKS.sans,
  FONT_STACKS.narrow,
  '"velarium 0123456789abcdef", ui-serif,"Iowan Old Style","Palatino Linotype",Georgia,serif',
])('%s can stand in a sheet', (font) => {
  expect(fontSchema.safeParse(font).success).toBe(true);
});
test.each([
  '',
  'Georgia;color:red',
  'Georgia}body{display:none',
  '"open',
  '"a"b"',
  'url(x)',
  '"a\nb"',
  'Georgia, ',
  'var(--x)',
  '"</style>"',
  "'single'",
])('%j cannot', (font) => {
  expect(fontSchema.safeParse(font).success).toBe(false);
});

it('kinds become families, families stay, and each is called by its first', () => {
  expect(fontStack('serif')).toBe(FONT_STACKS.serif);
  expect(fontStack('Own, serif')).toBe('Own, serif');
  expect([firstFamily('serif'), firstFamily('"Two Words", serif'), firstFamily('system-ui, serif')]).toEqual([
    undefined,
    'Two Words',
    undefined,
  ]);
});

it('letters of the site’s own are found in a Look, each once', () => {
  const own = (id: string) => `"velarium ${id}", Georgia, serif`;
  const [a, b] = ['0123456789abcdef', 'fedcba9876543210'];
  expect(lettersOf({ fonts: { text: own(a), heading: own(a) } })).toEqual([a]);
  expect(lettersOf({ fonts: { text: own(a), heading: own(b) } })).toEqual([a, b]);
  expect(lettersOf({ fonts: { text: 'sans', heading: '"velarium x", serif' } })).toEqual([]);
});

it('a Look asks for the files that are there before the letters themselves', () => {
  const [a, b] = ['0123456789abcdef', 'fedcba9876543210'];
  const fonts = { text: `"velarium ${a}", serif`, heading: `"velarium ${b}", serif` };
  expect(withFiles({ ...PLAIN_LOOK, fonts }, (id) => (id === a ? 'a file' : undefined)).fonts).toEqual({
    text: `"a file", "velarium ${a}", serif`,
    heading: fonts.heading,
  });
});

test.each([
  ['Own Mono', 'mono'],
  ['Courier New', 'mono'],
  ['Own Condensed, sans-serif', 'narrow'],
  ['Own Narrow', 'narrow'],
  ['Own Rounded', 'round'],
  ['Georgia', 'serif'],
  ['Own, serif', 'serif'],
  ['Own, sans-serif', 'sans'],
  ['Own Sans Serif', 'sans'],
])('%s is nearest to %s', (names, kind) => {
  expect(nearestFont(names)).toBe(kind);
});
