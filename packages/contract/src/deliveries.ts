import { z } from 'zod';
import { mailAddressSchema } from './account.ts';
import { DELIVERY_KINDS, DELIVERY_STATES, TOLD_EVENTS } from './values.ts';

/** One thing that went or will go out. */
export const deliverySchema = z.strictObject({
  /** Stays the same over all tries: a receiver knows a repeat by it. */
  id: z.uuid(),
  kind: z.enum(DELIVERY_KINDS),
  state: z.enum(DELIVERY_STATES),
  recipient: z.string(),
  /** The mail address it is for or about, where it is about somebody. */
  about: z.string().nullable(),
  connection: z.string().nullable(),
  createdAt: z.iso.datetime(),
  dueAt: z.iso.datetime(),
  sentAt: z.iso.datetime().nullable(),
  tries: z.number().int(),
  /** What the last try was answered, in words. */
  words: z.string().nullable(),
});
export type Delivery = z.infer<typeof deliverySchema>;

export const deliveryFilterSchema = z.strictObject({
  q: z.string().trim().max(200).default(''),
  /** What goes out for the site, or to those who work in its workspace, whatever the site. */
  of: z.enum(['site', 'team']).default('site'),
  kind: z.enum(DELIVERY_KINDS).optional(),
  state: z.enum(DELIVERY_STATES).optional(),
  connection: z.uuid().optional(),
  from: z.iso.date().optional(),
  until: z.iso.date().optional(),
  cursor: z.string().max(200).optional(),
});
export type DeliveryFilter = z.infer<typeof deliveryFilterSchema>;

export const deliveryPageSchema = z.strictObject({
  deliveries: z.array(deliverySchema),
  next: z.string().nullable(),
  /** How many of the site stand in each state that is not the last. */
  counts: z.record(z.enum(DELIVERY_STATES).exclude(['sent']), z.number().int()),
});
export type DeliveryPage = z.infer<typeof deliveryPageSchema>;

export const deliveryTriesSchema = z.strictObject({
  tries: z.array(
    z.strictObject({
      at: z.iso.datetime(),
      milliseconds: z.number().int(),
      isGood: z.boolean(),
      status: z.number().int().nullable(),
      words: z.string(),
      /** The first 2 kB of what came back. */
      answer: z.string(),
    }),
  ),
  /** What was sent last, to the byte, with secrets covered and pictures named instead of written out. */
  sent: z.string().nullable(),
});
export type DeliveryTries = z.infer<typeof deliveryTriesSchema>;

/** Deliveries to be sent again or stopped: these, or all that fit a filter. */
export const moveDeliveriesSchema = z.strictObject({
  move: z.enum(['again', 'stop']),
  of: z.enum(['site', 'team']).default('site'),
  ids: z.array(z.uuid()).max(500).optional(),
  filter: deliveryFilterSchema.optional(),
});
export type MoveDeliveries = z.infer<typeof moveDeliveriesSchema>;

const httpAddress = z
  .url({ protocol: /^https?$/, message: 'write a whole address, as https://example.org/hook' })
  .max(2048);
/** Source of a field name: RFC 9110, 5.6.2 (token). */
const headerName = z
  .string()
  .max(120)
  .regex(/^[!#$%&'*+.^_`|~0-9A-Za-z-]+$/, 'use letters, digits and - only');
const headerValue = z
  .string()
  .max(2000)
  .regex(/^[\t\x20-\x7e\x80-\xff]*$/, 'keep it to one line of plain letters');

/** What it is told of: everything, or what these campaigns do. */
const telling = {
  name: z.string().trim().min(1, 'give it a name').max(80),
  address: httpAddress,
  events: z.array(z.enum(TOLD_EVENTS)).min(1, 'choose at least one event'),
  /** `null` for all. */
  campaigns: z.array(z.uuid()).max(500).nullable(),
};
export const saveConnectionSchema = z.discriminatedUnion('kind', [
  /** CloudEvents 1.0, signed as Standard Webhooks say. */
  z.strictObject({ kind: z.literal('events'), ...telling }),
  /** A request shaped by hand: each answer goes under the name the other side wants. */
  z.strictObject({
    kind: z.literal('request'),
    ...telling,
    method: z.enum(['POST', 'PUT', 'PATCH']),
    body: z.enum(['json', 'form']),
    headers: z
      .array(
        z.strictObject({
          name: headerName,
          /** `null` keeps a secret as it is. */
          value: headerValue.nullable(),
          isSecret: z.boolean(),
        }),
      )
      .max(30),
    /** From the id or label of a field, or one of `mail`, `page`, `time`, `campaign`, `id`, to the other side's name. */
    names: z
      .array(
        z.strictObject({
          from: z.string().min(1).max(120),
          to: z.string().trim().min(1, 'name it').max(120),
        }),
      )
      .max(60),
  }),
]);
export type SaveConnection = z.infer<typeof saveConnectionSchema>;

export const connectionSchema = z.strictObject({
  id: z.uuid(),
  settings: saveConnectionSchema,
  state: z.enum(['on', 'resting']),
  /** Why it rests, in words. */
  words: z.string().nullable(),
  lastGoodAt: z.iso.datetime().nullable(),
  /** The last 24 hours, oldest first: tries that went well and that did not. */
  hours: z.array(z.strictObject({ good: z.number().int(), bad: z.number().int() })),
  waiting: z.number().int(),
  /** How many secrets are live: two while one is changed. */
  secrets: z.number().int(),
});
export type Connection = z.infer<typeof connectionSchema>;
/** A signing secret, shown once. */
export const shownSecretSchema = z.strictObject({
  secret: z.string().nullable(),
  connection: connectionSchema,
});
export type ShownSecret = z.infer<typeof shownSecretSchema>;

export const triedConnectionSchema = z.strictObject({
  status: z.number().int().nullable(),
  milliseconds: z.number().int(),
  words: z.string(),
  answer: z.string(),
  sent: z.string(),
});
export type TriedConnection = z.infer<typeof triedConnectionSchema>;

export const MAIL_SECURITIES = ['tls', 'starttls', 'none'] as const;
/** Where a workspace's mail goes out. */
export const saveSendingSchema = z.strictObject({
  host: z
    .string()
    .trim()
    .toLowerCase()
    .max(253)
    .regex(/^[a-z0-9](?:[a-z0-9.-]*[a-z0-9])?$|^\[?[0-9a-f:]+\]?$/, 'name a server, as mail.example.org'),
  port: z.number().int().min(1).max(65_535),
  security: z.enum(MAIL_SECURITIES),
  user: z.string().max(300),
  /** `null` keeps the one there is. */
  password: z.string().max(500).nullable(),
  fromName: z
    .string()
    .trim()
    .max(120)
    .regex(/^[^\r\n<>"]*$/, 'leave out line breaks, quotes and < >'),
  fromAddress: mailAddressSchema,
});
export type SaveSending = z.infer<typeof saveSendingSchema>;
export const sendingSchema = z.strictObject({
  /** `null` while the installation's own mailbox is used. */
  settings: saveSendingSchema.extend({ password: z.null() }).nullable(),
  hasPassword: z.boolean(),
  /** Whether mail can go out at all. */
  isReady: z.boolean(),
});
export type Sending = z.infer<typeof sendingSchema>;
export const triedSendingSchema = z.strictObject({ isGood: z.boolean(), words: z.string() });
export type TriedSending = z.infer<typeof triedSendingSchema>;
