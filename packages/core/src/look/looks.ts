import type { LookStyle, Palette } from '@velarium/contract';

/** Looks to begin from; a site's own are saved with the site. */
export interface LookPreset {
  readonly id: string;
  readonly name: string;
  readonly style: LookStyle;
}

const NIGHT: Palette = {
  surface: '#16223b',
  ink: '#f6f1e4',
  soft: '#b9c3d6',
  accent: '#f0c257',
  accentText: '#1b1a16',
  line: '#3a4a6b',
  field: '#fffdf5',
  fieldText: '#1d2433',
  backdrop: '#0a1020',
};
const LINEN: Palette = {
  surface: '#fbf7ee',
  ink: '#1d2433',
  soft: '#56606f',
  accent: '#234a6d',
  accentText: '#ffffff',
  line: '#cfc8b6',
  field: '#ffffff',
  fieldText: '#1d2433',
  backdrop: '#101828',
};
const EMBER: Palette = {
  surface: '#7a2f1d',
  ink: '#fff6ea',
  soft: '#f2cdb4',
  accent: '#ffe3b0',
  accentText: '#3b150b',
  line: '#a45a45',
  field: '#fff6ea',
  fieldText: '#3b150b',
  backdrop: '#1a0d08',
};
const FIR: Palette = {
  surface: '#12372a',
  ink: '#f1f6ea',
  soft: '#b3cdbb',
  accent: '#e9d38a',
  accentText: '#1f2412',
  line: '#2f5b49',
  field: '#f8faf3',
  fieldText: '#12372a',
  backdrop: '#06140f',
};
const SLACK_TIDE: Palette = {
  surface: '#ffffff',
  ink: '#0f2a38',
  soft: '#4c6572',
  accent: '#0b6b76',
  accentText: '#ffffff',
  line: '#c6d6da',
  field: '#f3f8f8',
  fieldText: '#0f2a38',
  backdrop: '#072027',
};

/** Linen paper, the Look of a site that has not chosen one. */
export const PLAIN_LOOK: LookStyle = {
  palette: LINEN,
  fonts: { text: 'sans', heading: 'sans' },
  textSize: 16,
  scale: 124,
  corners: { box: 14, control: 8 },
  shadow: 'lifted',
  buttons: 'solid',
  fields: 'boxed',
};

export const LOOKS: readonly LookPreset[] = [
  { id: 'linen', name: 'Linen', style: PLAIN_LOOK },
  {
    id: 'night-ridge',
    name: 'Night ridge',
    style: {
      ...PLAIN_LOOK,
      palette: NIGHT,
      fonts: { text: 'sans', heading: 'serif' },
      corners: { box: 4, control: 3 },
    },
  },
  {
    id: 'ember',
    name: 'Ember',
    style: {
      ...PLAIN_LOOK,
      palette: EMBER,
      corners: { box: 0, control: 0 },
      shadow: 'floating',
      buttons: 'soft',
    },
  },
  {
    id: 'fir',
    name: 'Fir',
    style: {
      ...PLAIN_LOOK,
      palette: FIR,
      fonts: { text: 'serif', heading: 'serif' },
      scale: 133,
      corners: { box: 18, control: 24 },
      fields: 'filled',
    },
  },
  {
    id: 'slack-tide',
    name: 'Slack tide',
    style: {
      ...PLAIN_LOOK,
      palette: SLACK_TIDE,
      fonts: { text: 'round', heading: 'round' },
      corners: { box: 10, control: 20 },
      shadow: 'hair',
      buttons: 'outline',
      fields: 'ruled',
    },
  },
];

/** Families of each kind that are on a device already. */
export const FONT_STACKS = {
  sans: 'ui-sans-serif,system-ui,-apple-system,"Segoe UI",sans-serif',
  serif: 'ui-serif,"Iowan Old Style","Palatino Linotype",Georgia,serif',
  round: 'ui-rounded,"Hiragino Maru Gothic ProN",Quicksand,"Nunito Sans",system-ui,sans-serif',
  narrow: '"Avenir Next Condensed","Roboto Condensed","Arial Narrow",system-ui,sans-serif',
  mono: 'ui-monospace,"SF Mono","Cascadia Mono",Menlo,monospace',
} as const;
