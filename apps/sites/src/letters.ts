import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';

const require = createRequire(import.meta.url);

/** Letters a site loads for itself, as most sites do: by what name, and where they lie. Free under the OFL 1.1. */
const LETTERS = {
  fraunces: {
    family: 'Fraunces',
    file: require.resolve('@fontsource-variable/fraunces/files/fraunces-latin-wght-normal.woff2'),
  },
  figtree: {
    family: 'Figtree',
    file: require.resolve('@fontsource-variable/figtree/files/figtree-latin-wght-normal.woff2'),
  },
  nunito: {
    family: 'Nunito',
    file: require.resolve('@fontsource-variable/nunito/files/nunito-latin-wght-normal.woff2'),
  },
} as const;
export type SiteLetters = keyof typeof LETTERS;

export const isSiteLetters = (name: string): name is SiteLetters => Object.hasOwn(LETTERS, name);

export const lettersFile = (name: SiteLetters): Buffer => readFileSync(LETTERS[name].file);

/** The rule by which a sheet loads them. */
export const fontFace = (name: SiteLetters): string =>
  `@font-face{font-family:"${LETTERS[name].family}";src:url(/letters/${name}.woff2) format("woff2");font-weight:200 900;font-display:swap}\n`;
