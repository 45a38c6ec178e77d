import { z } from 'zod';
import { CLOSE_WAYS, DEVICES, EVENT_KINDS, LIMITS } from './values.ts';

/** RFC 9562 version 7: time-ordered, made by the tag, the key that makes a resent event count once. */
export const eventIdSchema = z
  .string()
  .regex(/^[0-9a-f]{8}-[0-9a-f]{4}-7[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/);
export const visitorIdSchema = z.string().regex(/^[0-9a-f]{32}$/);

export const visitorEventSchema = z.strictObject({
  id: eventIdSchema,
  kind: z.enum(EVENT_KINDS),
  session: eventIdSchema,
  /** Path and query of the page, as the browser has it. */
  page: z.string().max(LIMITS.pageAddress),
  device: z.enum(DEVICES),
  campaign: z.uuid().optional(),
  version: z.number().int().min(1).max(1_000_000).optional(),
  closedBy: z.enum(CLOSE_WAYS).optional(),
});
export type VisitorEvent = z.infer<typeof visitorEventSchema>;

export const collectSchema = z.strictObject({
  site: z.string().regex(/^[a-z0-9]{12}$/),
  visitor: visitorIdSchema,
  events: z.array(visitorEventSchema).min(1).max(LIMITS.collectEvents),
});
export type Collect = z.infer<typeof collectSchema>;

export const submitSchema = z.strictObject({
  site: z.string().regex(/^[a-z0-9]{12}$/),
  visitor: visitorIdSchema,
  event: visitorEventSchema.extend({
    kind: z.literal('converted'),
    campaign: z.uuid(),
    version: z.number().int().min(1).max(1_000_000),
  }),
  /** Answers by field id; the server reads the form itself from the published version. */
  fields: z.record(z.string().max(40), z.string().max(LIMITS.fieldValue)),
  consent: z.boolean(),
});
export type Submit = z.infer<typeof submitSchema>;
