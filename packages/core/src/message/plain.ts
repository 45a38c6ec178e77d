import type { Block, BlockKind, Close, Message, Motion, Styled } from '@velarium/contract';
import { isSame } from '../merge/is-same.ts';

/** Nothing said: everything is as the format and the Look say. */
export const PLAIN_STYLE: Styled = { all: {}, tablet: {}, mobile: {} };

export const PLAIN_CLOSE: Close = {
  place: 'inside',
  corner: 'end',
  sign: 'cross',
  word: 'Close',
  picture: null,
  size: 36,
  colour: 'ink',
  hoverColour: 'ink',
  ground: null,
  delaySeconds: 0,
  onHover: false,
  means: 'later',
  afterSeconds: null,
};

export const PLAIN_ENTER: Motion = {
  kind: 'drift',
  from: 'bottom',
  distance: 14,
  ms: 220,
  delayMs: 0,
  easing: 'soft',
};
export const PLAIN_LEAVE: Motion = { ...PLAIN_ENTER, kind: 'fade', ms: 140, easing: 'even' };

/** Everything about a message but what it is for and what it says. */
export const PLAIN_MESSAGE = {
  look: null,
  palette: {},
  darkens: false,
  style: PLAIN_STYLE,
  close: PLAIN_CLOSE,
  motion: { enter: PLAIN_ENTER, leave: PLAIN_LEAVE },
  backdropCloses: true,
  holdsPage: true,
  pushesPage: false,
  isSticky: true,
} as const satisfies Partial<Message>;

type Made = Omit<Block, 'id' | 'style'> & Record<string, unknown>;

/** What each kind of block begins as. */
const BEGINNINGS: { readonly [Kind in BlockKind]: Made & { readonly kind: Kind } } = {
  heading: { kind: 'heading', text: 'A heading' },
  text: { kind: 'text', content: [[{ text: 'Write here.' }]], size: 'body', marks: 'none' },
  picture: {
    kind: 'picture',
    picture: null,
    alt: '',
    isDecoration: false,
    ratio: null,
    focus: [50, 50],
    address: '',
  },
  button: {
    kind: 'button',
    label: 'Go on',
    action: { kind: 'link', address: '', newTab: false },
    tone: 'main',
    attention: 'none',
  },
  form: {
    kind: 'form',
    fields: [
      {
        id: 'email',
        kind: 'email',
        label: 'Your mail address',
        placeholder: 'name@example.org',
        required: true,
      },
    ],
    consentText: '',
    submitLabel: 'Send',
    asksSum: false,
  },
  code: { kind: 'code', code: 'CLEAR10', copyLabel: 'Copy', copiedLabel: 'Copied' },
  countdown: {
    kind: 'countdown',
    until: { kind: 'visitor', minutes: 360 },
    units: ['hours', 'minutes', 'seconds'],
    whenOver: 'words',
    overText: 'This is over.',
  },
  share: {
    kind: 'share',
    ways: [
      { id: 'system', way: 'system', label: 'Share', address: '' },
      { id: 'mail', way: 'mail', label: 'By mail', address: '' },
      { id: 'copy', way: 'copy', label: 'Copy the link', address: '' },
    ],
    columns: 3,
    shape: 'round',
    shows: 'both',
    hasGaps: true,
    hasCounts: false,
  },
  count: { kind: 'count', of: 'readers', from: 25, text: '{{count}} readers so far' },
  film: { kind: 'film', address: '', title: 'A film', picture: null, ratio: 178 },
  frame: { kind: 'frame', address: '', title: 'Another page', height: 240 },
  html: { kind: 'html', markup: '<p>Your own HTML</p>', title: 'Own HTML', height: 120 },
  saved: { kind: 'saved', saved: '' },
  divider: { kind: 'divider' },
  space: { kind: 'space', height: 16 },
  columns: {
    kind: 'columns',
    columns: [
      { id: 'column-a', share: 1, blocks: [] },
      { id: 'column-b', share: 1, blocks: [] },
    ],
  },
};

/** A new block of a kind, as it begins. Its ids may be taken in a message: see {@link withFreshIds}. */
export const newBlock = <Kind extends BlockKind>(kind: Kind): Extract<Block, { kind: Kind }> =>
  ({ id: kind, style: PLAIN_STYLE, ...BEGINNINGS[kind] }) as unknown as Extract<Block, { kind: Kind }>;

/** Whether a block still holds the words it began with, which stand for the marketer's own. */
export function isUntouched(block: Block): boolean {
  const { heading, text, html, code } = BEGINNINGS;
  switch (block.kind) {
    case 'heading':
      return block.text === heading.text;
    case 'text':
      return isSame(block.content, text.content);
    case 'html':
      return block.markup === html.markup;
    case 'code':
      return block.code === code.code;
    default:
      return false;
  }
}
