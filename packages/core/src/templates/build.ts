import type {
  Action,
  Block,
  Condition,
  Field,
  LeafBlock,
  Limits,
  Message,
  Step,
  Style,
  Styled,
  TextSpan,
  Trigger,
} from '@velarium/contract';
import { newBlock, PLAIN_CLOSE, PLAIN_MESSAGE, PLAIN_STYLE } from '../message/plain.ts';

/** What people want from a message; the gallery is sorted by it. */
export const AIMS = ['gather', 'lead', 'tell', 'offer', 'ask', 'share'] as const;
export type Aim = (typeof AIMS)[number];

export interface Template {
  readonly id: string;
  readonly name: string;
  readonly aim: Aim;
  /** What it is for, in a few words. */
  readonly purpose: string;
  readonly message: Message;
  /** Seconds on the page before it opens, where its purpose names no other moment. */
  readonly seconds: number;
  /** What its purpose promises of moment, audience and limits; the rest is as gentle as any beginning. */
  readonly promise?: {
    readonly triggers?: readonly Trigger[];
    readonly audience?: readonly Condition[];
    readonly limits?: Partial<Limits>;
  };
}

/** Somebody is leaving, whatever they leave by. */
export const LEAVING: readonly Trigger[] = [
  { kind: 'exitMouse', certainty: 'likely' },
  { kind: 'exitTouch', by: 'scrollUp' },
];

export const styled = (all: Style, mobile: Style = {}, tablet: Style = {}): Styled => ({
  all,
  tablet,
  mobile,
});

/** As wide as the box. */
export const WIDE: Styled = styled({ width: { unit: 'percent', value: 100 } });

export const heading = (id: string, text: string, style = PLAIN_STYLE): LeafBlock => ({
  ...newBlock('heading'),
  id,
  text,
  style,
});

/** `**bold**` parts of a line become bold spans. */
const spans = (line: string): TextSpan[] =>
  line
    .split('**')
    .flatMap((text, n) => (text === '' ? [] : n % 2 === 1 ? { text, bold: true as const } : { text }));

export const text = (id: string, ...lines: string[]): LeafBlock => ({
  ...newBlock('text'),
  id,
  content: lines.map(spans),
});
export const small = (id: string, ...lines: string[]): LeafBlock => ({
  ...newBlock('text'),
  id,
  size: 'small',
  content: lines.map(spans),
});
export const points = (id: string, ...lines: string[]): LeafBlock => ({
  ...newBlock('text'),
  id,
  marks: 'tick',
  content: lines.map(spans),
});

type Tone = Extract<Block, { kind: 'button' }>['tone'];
export const button = (
  id: string,
  label: string,
  action: Action,
  tone: Tone = 'main',
  style = PLAIN_STYLE,
): LeafBlock => ({
  ...newBlock('button'),
  id,
  label,
  action,
  tone,
  style,
});
export const link = (address: string, newTab = false): Action => ({ kind: 'link', address, newTab });
export const closes: Action = { kind: 'close' };

export const picture = (
  id: string,
  name: string,
  alt: string,
  style: Styled,
  ratio: number | null = null,
): LeafBlock => ({
  ...newBlock('picture'),
  id,
  picture: `drawn:${name}`,
  alt,
  isDecoration: alt === '',
  ratio,
  style,
});

export const field = (id: string, kind: Field['kind'], label: string, more: Partial<Field> = {}): Field => ({
  id,
  kind,
  label,
  placeholder: '',
  required: true,
  ...more,
});
export const MAIL = field('email', 'email', 'Your mail address', { placeholder: 'name@example.org' });

export const form = (
  id: string,
  submitLabel: string,
  consentText: string,
  ...fields: Field[]
): LeafBlock => ({
  ...newBlock('form'),
  id,
  submitLabel,
  consentText,
  fields,
});

export const columns = (
  id: string,
  ...parts: (readonly [share: number, ...blocks: LeafBlock[]])[]
): Block => ({
  ...newBlock('columns'),
  id,
  columns: parts.map(([share, ...blocks], n) => ({ id: `${id}-${n + 1}`, share, blocks })),
});

export const first = (...blocks: Block[]): Step => ({ id: 'first', role: 'first', blocks });
export const thanks = (title: string, words: string): Step => ({
  id: 'thanks',
  role: 'success',
  blocks: [
    heading('thanks-title', title),
    text('thanks-words', words),
    button('thanks-close', 'Back to the page', closes),
  ],
});
export const refused = (title: string, words: string): Step => ({
  id: 'refused',
  role: 'refused',
  blocks: [
    heading('no-title', title),
    text('no-words', words),
    button('no-close', 'Back to the page', closes, 'quiet'),
  ],
});

export const message = (
  format: Message['format'],
  anchor: Message['anchor'],
  label: string,
  style: Styled,
  steps: readonly Step[],
  more: Partial<Message> = {},
): Message => ({
  ...PLAIN_MESSAGE,
  format,
  anchor,
  label,
  style,
  steps: [...steps],
  // On a picture the sign needs a ground of its own.
  ...(steps.some(bearsSignOnPicture) ? { close: { ...PLAIN_CLOSE, ground: 'surface' } } : {}),
  ...more,
});

const bearsSignOnPicture = ({ blocks }: Step): boolean =>
  blocks[0]?.kind === 'picture' ||
  blocks.some(({ style: { all, tablet, mobile } }) =>
    [all, tablet, mobile].some(({ side }) => side && side !== 'flow'),
  );
