import { z } from 'zod';
import { BROWSERS, DEVICES, MOST_TRAFFIC, SOURCES, SYSTEMS } from './values.ts';

/** Days of recorded visits that can be replayed. */
export const trafficQuestionSchema = z.strictObject({
  days: z.coerce.number().int().min(1).max(31).default(28),
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

/** A count with its interval. */
const estimateSchema = z.strictObject({
  value: z.number().int().min(0),
  low: z.number().int().min(0),
  high: z.number().int().min(0),
});
/** What was foreseen of a campaign when it was launched: of so many visitors, those who would have met it by the end of each day. */
export const keptForecastSchema = z.strictObject({
  visitors: z.number().int().min(0),
  byDay: z.array(estimateSchema).min(1).max(28),
});
export type KeptForecast = z.infer<typeof keptForecastSchema>;

/** A launch with what was foreseen of it, held against what came. */
export const foreseenSchema = z.strictObject({
  campaign: z.uuid(),
  name: z.string(),
  version: z.number().int(),
  at: z.iso.datetime(),
  forecast: keptForecastSchema,
  /** Visitors who have met it by the end of each day since, as many days as are over while this version ran. */
  came: z.array(z.number().int().min(0)),
  /** It was followed by another version, put to rest, or foreseen no further. */
  isOver: z.boolean(),
});
export type Foreseen = z.infer<typeof foreseenSchema>;

/** What no record tells, taken for granted while traffic is replayed. Shares are 0 to 1, of page views. */
export const assumptionsSchema = z.strictObject({
  leavesByMouse: z.number().min(0).max(1),
  leavesByTouch: z.number().min(0).max(1),
  /** Seconds after which a message is closed. */
  closesAfterSeconds: z.number().min(1).max(600),
});
export type Assumptions = z.infer<typeof assumptionsSchema>;
