import { z } from 'zod';
import { BROWSERS, DEVICES, MOST_TRAFFIC, SOURCES, SYSTEMS } from './values.ts';

/** Days of recorded visits that can be replayed. */
export const trafficQuestionSchema = z.strictObject({
  days: z.coerce.number().int().min(1).max(28).default(28),
  /** Page views at most; fewer are a smaller sample, and a quicker answer. */
  most: z.coerce.number().int().min(100).max(MOST_TRAFFIC).default(MOST_TRAFFIC),
});
export type TrafficQuestion = z.infer<typeof trafficQuestionSchema>;

/** One page view as it was recorded; `null` where its end was never told of. */
export const recordedPageSchema = z.strictObject({
  path: z.string(),
  atMs: z.number(),
  seconds: z.number().nullable(),
  depth: z.number().nullable(),
});
export type RecordedPage = z.infer<typeof recordedPageSchema>;

/** Everything one visitor was seen to do, told of no name: what they came with in their first visit, and their pages in order. */
export const recordedVisitorSchema = z.strictObject({
  device: z.enum(DEVICES),
  browser: z.enum(BROWSERS),
  system: z.enum(SYSTEMS),
  source: z.enum(SOURCES),
  referrer: z.string(),
  /** 1 for their first. */
  session: z.number().int(),
  signedIn: z.boolean().nullable(),
  basket: z.strictObject({ items: z.number(), total: z.number() }).nullable(),
  country: z.string().nullable(),
  language: z.string(),
  pages: z.array(recordedPageSchema).min(1),
});
export type TrafficVisitor = z.infer<typeof recordedVisitorSchema>;

/** What was recorded of a site's visitors; a fair sample of them where there are very many. */
export const trafficSchema = z.strictObject({
  days: z.number().int(),
  /** Reckoned where not all of them were read. */
  visitors: z.number().int(),
  isSample: z.boolean(),
  list: z.array(recordedVisitorSchema),
});
export type Traffic = z.infer<typeof trafficSchema>;

/** What no record tells, taken for granted while traffic is replayed. Shares are 0 to 1, of page views. */
export const assumptionsSchema = z.strictObject({
  leavesByMouse: z.number().min(0).max(1),
  leavesByTouch: z.number().min(0).max(1),
  /** Seconds after which a message is closed. */
  closesAfterSeconds: z.number().min(1).max(600),
});
export type Assumptions = z.infer<typeof assumptionsSchema>;
