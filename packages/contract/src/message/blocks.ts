import { z } from 'zod';
import { localTimeSchema } from '../schedule.ts';
import { ATTENTIONS, COUNTDOWN_UNITS, FIELD_KINDS, LIMITS } from '../values.ts';
import { pictureRefSchema, styledSchema } from './style.ts';
import { frameAddressSchema, line, linkAddressSchema, richTextSchema } from './text.ts';

export const blockIdSchema = z
  .string()
  .regex(/^[a-z0-9-]{1,40}$/, 'use 1 to 40 lower-case letters, digits and hyphens');

export const actionSchema = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('link'),
    address: linkAddressSchema,
    newTab: z.boolean(),
    /** Addresses for visitors of these systems instead. */
    ios: linkAddressSchema.optional(),
    android: linkAddressSchema.optional(),
  }),
  z.strictObject({ kind: z.literal('close') }),
  /** Says no: shows the step for it if there is one, else closes. */
  z.strictObject({ kind: z.literal('refuse') }),
  z.strictObject({ kind: z.literal('step'), step: blockIdSchema }),
  z.strictObject({ kind: z.literal('copy'), text: line(200) }),
  /** Opens the system's share sheet for the page. */
  z.strictObject({ kind: z.literal('share') }),
  /** Tells the page's script, which listens for `called`. */
  z.strictObject({ kind: z.literal('call'), name: line(80) }),
]);
export type Action = z.infer<typeof actionSchema>;

const base = { id: blockIdSchema, style: styledSchema };
/** Where words lead; to a new tab unless it is said otherwise. */
const linkSchema = z.strictObject({ address: linkAddressSchema, isHere: z.boolean() });

export const headingBlockSchema = z.strictObject({
  ...base,
  kind: z.literal('heading'),
  text: line(300),
  link: linkSchema.optional(),
});
export const textBlockSchema = z.strictObject({
  ...base,
  kind: z.literal('text'),
  content: richTextSchema,
  size: z.enum(['body', 'small']),
  /** What stands before each paragraph when they are a list. */
  marks: z.enum(['none', 'dot', 'tick', 'number']),
});
export const pictureBlockSchema = z.strictObject({
  ...base,
  kind: z.literal('picture'),
  picture: pictureRefSchema.nullable(),
  /** What it shows, for those who cannot see it; empty when it only decorates. */
  alt: line(300),
  isDecoration: z.boolean(),
  /** Width to height, per cent; `null` for its own. */
  ratio: z.number().int().min(20).max(500).nullable(),
  focus: z.tuple([z.number().int().min(0).max(100), z.number().int().min(0).max(100)]),
  address: linkAddressSchema,
});
export const buttonBlockSchema = z.strictObject({
  ...base,
  kind: z.literal('button'),
  label: line(120),
  action: actionSchema,
  tone: z.enum(['main', 'quiet', 'words']),
  attention: z.enum(ATTENTIONS),
});

export const fieldSchema = z.strictObject({
  id: blockIdSchema,
  kind: z.enum(FIELD_KINDS),
  label: line(120),
  placeholder: line(120),
  required: z.boolean(),
  /** What may be chosen from. */
  options: z.array(line(120)).max(40).optional(),
  /** A regular expression the whole answer must fit. */
  pattern: line(200).optional(),
  /** Words when the answer does not fit. */
  errorText: line(200).optional(),
  /** What a hidden field holds. */
  value: line(300).optional(),
  /** Whether it stands beside the field before it, where there is room. */
  beside: z.literal(true).optional(),
});
export type Field = z.infer<typeof fieldSchema>;
export const formBlockSchema = z.strictObject({
  ...base,
  kind: z.literal('form'),
  fields: z.array(fieldSchema).min(1).max(20),
  /** The exact words agreed to; empty when the form asks for no consent. */
  consentText: line(600),
  submitLabel: line(120),
  /** A sum in words that keeps robots out. */
  asksSum: z.boolean(),
  /** Whether the first field has the focus when it opens; only where a message may take it: a modal. */
  takesFocus: z.boolean().optional(),
});
export interface FormBlock extends z.infer<typeof formBlockSchema> {}

export const codeBlockSchema = z.strictObject({
  ...base,
  kind: z.literal('code'),
  code: line(60),
  copyLabel: line(60),
  copiedLabel: line(60),
});

/** When a countdown is over. */
export const countdownEndSchema = z.discriminatedUnion('kind', [
  /** A local date and time, `2026-12-24T18:00`, in an IANA zone; the site's where empty. */
  z.strictObject({
    kind: z.literal('date'),
    at: localTimeSchema,
    zone: line(60),
  }),
  /** Runs for each visitor from their first sight of the message. */
  z.strictObject({
    kind: z.literal('visitor'),
    minutes: z
      .number()
      .int()
      .min(1)
      .max(60 * 24 * 60),
  }),
  z.strictObject({
    kind: z.literal('daily'),
    at: z.string().regex(/^([01]\d|2[0-3]):[0-5]\d$/, 'write it like 18:00'),
    zone: line(60),
  }),
]);
export type CountdownEnd = z.infer<typeof countdownEndSchema>;
export const countdownBlockSchema = z.strictObject({
  ...base,
  kind: z.literal('countdown'),
  until: countdownEndSchema,
  units: z.array(z.enum(COUNTDOWN_UNITS)).min(1).max(4),
  whenOver: z.enum(['stay', 'hide', 'words', 'close']),
  overText: line(200),
});

export const SHARE_WAYS = ['system', 'mail', 'copy', 'address'] as const;
export const shareBlockSchema = z.strictObject({
  ...base,
  kind: z.literal('share'),
  ways: z
    .array(
      z.strictObject({
        id: blockIdSchema,
        way: z.enum(SHARE_WAYS),
        label: line(60),
        /** Of the marketer's own; `{{page.address}}` and `{{page.title}}` are filled in. */
        address: linkAddressSchema,
      }),
    )
    .min(1)
    .max(12),
  columns: z.number().int().min(1).max(3),
  /** `rounded` has the corners that the Look gives to buttons. */
  shape: z.enum(['round', 'rounded', 'square']),
  shows: z.enum(['both', 'words', 'sign']),
  hasGaps: z.boolean(),
  /** Whether each says how often it was used. */
  hasCounts: z.boolean().default(false),
});
export const countBlockSchema = z.strictObject({
  ...base,
  kind: z.literal('count'),
  of: z.enum(['readers', 'shares']),
  /** Shown from this number on. */
  from: z.number().int().min(1).max(1_000_000),
  /** `{{count}}` stands for the number. */
  text: line(200),
});
export const filmBlockSchema = z.strictObject({
  ...base,
  kind: z.literal('film'),
  address: frameAddressSchema,
  title: line(200),
  /** Shown until it is played; nothing of the video host is loaded before. */
  picture: pictureRefSchema.nullable(),
  ratio: z.number().int().min(40).max(300),
});
export const frameBlockSchema = z.strictObject({
  ...base,
  kind: z.literal('frame'),
  address: frameAddressSchema,
  title: line(200),
  height: z.number().int().min(40).max(1200),
});
export const htmlBlockSchema = z.strictObject({
  ...base,
  kind: z.literal('html'),
  /** Runs in a sandboxed frame without an origin, never in the page. */
  markup: line(20_000),
  title: line(200),
  height: z.number().int().min(20).max(1200),
});
export const dividerBlockSchema = z.strictObject({ ...base, kind: z.literal('divider') });
export const spaceBlockSchema = z.strictObject({
  ...base,
  kind: z.literal('space'),
  height: z.number().int().min(2).max(400),
});

const leaves = [
  headingBlockSchema,
  textBlockSchema,
  pictureBlockSchema,
  buttonBlockSchema,
  formBlockSchema,
  codeBlockSchema,
  countdownBlockSchema,
  shareBlockSchema,
  countBlockSchema,
  filmBlockSchema,
  frameBlockSchema,
  htmlBlockSchema,
  dividerBlockSchema,
  spaceBlockSchema,
] as const;
/** Stands for a block of the site's library: it changes wherever it is used when that is changed. */
export const savedRefSchema = z.strictObject({ ...base, kind: z.literal('saved'), saved: z.uuid() });
export const leafBlockSchema = z.discriminatedUnion('kind', [...leaves, savedRefSchema]);
export type LeafBlock = z.infer<typeof leafBlockSchema>;

export const columnsBlockSchema = z.strictObject({
  ...base,
  kind: z.literal('columns'),
  columns: z
    .array(
      z.strictObject({
        id: blockIdSchema,
        /** Parts of the whole width. */
        share: z.number().int().min(1).max(12),
        blocks: z.array(leafBlockSchema).max(LIMITS.blocksPerStep),
      }),
    )
    .min(2)
    .max(4),
});
export type ColumnsBlock = z.infer<typeof columnsBlockSchema>;

/** What can be kept in the library: anything but a block that is kept there already. */
export const leafOrColumnsSchema = z.discriminatedUnion('kind', [...leaves, columnsBlockSchema]);
export const blockSchema = z.discriminatedUnion('kind', [...leaves, savedRefSchema, columnsBlockSchema]);
export type Block = z.infer<typeof blockSchema>;
export type BlockKind = Block['kind'];
export type BlockOf<Kind extends BlockKind> = Extract<Block, { kind: Kind }>;
