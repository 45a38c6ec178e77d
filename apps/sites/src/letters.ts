import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';

const { resolve } = createRequire(import.meta.url);

/** Letters a site loads for itself, as most sites do: each a family and where its file lies. Free under the OFL 1.1. */
const FAMILIES = {
  fraunces: 'Fraunces',
  figtree: 'Figtree',
  nunito: 'Nunito',
} as const;
export type SiteLetters = keyof typeof FAMILIES;

export const isSiteLetters = (name: string): name is SiteLetters => name in FAMILIES;

export const lettersFile = (name: SiteLetters): Buffer =>
  readFileSync(resolve(`@fontsource-variable/${name}/files/${name}-latin-wght-normal.woff2`));

/** The rule by which a sheet loads them. */
export const fontFace = (name: SiteLetters): string =>
  `@font-face{font-family:"${FAMILIES[name]}";src:url(/letters/${name}.woff2) format("woff2");font-weight:200 900;font-display:swap}\n`;
