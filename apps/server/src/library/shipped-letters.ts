import { createHash } from 'node:crypto';
import { statSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import type { Letters } from '@velarium/contract';
import { lettersFamily } from '@velarium/contract';

const require = createRequire(import.meta.url);

/** What the first file of a family is made for; the second has the rest of the Latin script. Source: the packages' `unicode.json`. */
const BEYOND_FIRST =
  /(?![\u0304\u0308\u0329])[^\0-\xff\u0131\u0152\u0153\u02bb\u02bc\u02c6\u02da\u02dc\u2000-\u206f\u20ac\u2122\u2191\u2193\u2212\u2215\ufeff\ufffd]/gu;

/** Families that come with the product, each in a posture of its own: free to be used, cut and served (SIL Open Font License 1.1). */
const FAMILIES = [
  {
    name: 'Clear',
    called: 'Figtree',
    like: 'sans',
    weights: [300, 900],
    files: [
      require.resolve('@fontsource-variable/figtree/files/figtree-latin-wght-normal.woff2'),
      require.resolve('@fontsource-variable/figtree/files/figtree-latin-ext-wght-normal.woff2'),
    ],
  },
  {
    name: 'Soft',
    called: 'Nunito',
    like: 'round',
    weights: [200, 1000],
    files: [
      require.resolve('@fontsource-variable/nunito/files/nunito-latin-wght-normal.woff2'),
      require.resolve('@fontsource-variable/nunito/files/nunito-latin-ext-wght-normal.woff2'),
    ],
  },
  {
    name: 'Loud',
    called: 'Bricolage Grotesque',
    like: 'sans',
    weights: [200, 800],
    files: [
      require.resolve(
        '@fontsource-variable/bricolage-grotesque/files/bricolage-grotesque-latin-wght-normal.woff2',
      ),
      require.resolve(
        '@fontsource-variable/bricolage-grotesque/files/bricolage-grotesque-latin-ext-wght-normal.woff2',
      ),
    ],
  },
  {
    name: 'Bookish',
    called: 'Literata',
    like: 'serif',
    weights: [200, 900],
    files: [
      require.resolve('@fontsource-variable/literata/files/literata-latin-wght-normal.woff2'),
      require.resolve('@fontsource-variable/literata/files/literata-latin-ext-wght-normal.woff2'),
    ],
  },
  {
    name: 'Slim',
    called: 'Archivo Narrow',
    like: 'narrow',
    weights: [400, 700],
    files: [
      require.resolve('@fontsource-variable/archivo-narrow/files/archivo-narrow-latin-wght-normal.woff2'),
      require.resolve('@fontsource-variable/archivo-narrow/files/archivo-narrow-latin-ext-wght-normal.woff2'),
    ],
  },
  {
    name: 'Typed',
    called: 'Sometype Mono',
    like: 'mono',
    weights: [400, 700],
    files: [
      require.resolve('@fontsource-variable/sometype-mono/files/sometype-mono-latin-wght-normal.woff2'),
      require.resolve('@fontsource-variable/sometype-mono/files/sometype-mono-latin-ext-wght-normal.woff2'),
    ],
  },
] as const;

/** The same for ever, whatever becomes of the files: Looks name them by it. */
const idOf = (called: string) =>
  createHash('sha256').update(`velarium letters ${called}`).digest('hex').slice(0, 16);

export const SHIPPED_LETTERS: readonly Letters[] = FAMILIES.map(({ name, called, like, weights, files }) => {
  const id = idOf(called);
  return {
    id,
    name,
    family: lettersFamily(id),
    like,
    weights: [weights[0], weights[1]],
    licence: called,
    from: 'product',
    bytes: files.reduce((sum, file) => sum + statSync(file).size, 0),
  };
});

/** One file of letters, and what is written with it. */
export interface LettersFile {
  readonly read: () => Promise<Buffer>;
  readonly text: string;
}

/** The files of a family that a text is written with; `undefined` where it is none of the product's. */
export function shippedFiles(id: string, text: string): LettersFile[] | undefined {
  const family = FAMILIES.find(({ called }) => idOf(called) === id);
  if (!family) return undefined;
  const [first, second] = family.files;
  const further = (text.match(BEYOND_FIRST) ?? []).join('');
  return [
    { read: () => readFile(first), text },
    ...(further === '' ? [] : [{ read: () => readFile(second), text: further }]),
  ];
}
