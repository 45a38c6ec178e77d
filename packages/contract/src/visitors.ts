import { z } from 'zod';
import { audienceSchema } from './audience.ts';

/** How many visitors of the last 30 days an audience would hold; the campaign is the one it would be of. */
export const audienceQuestionSchema = z.strictObject({ audience: audienceSchema, campaign: z.uuid() });
export type AudienceQuestion = z.infer<typeof audienceQuestionSchema>;

export const audienceShareSchema = z.strictObject({
  /** Visitors of the last 30 days; reckoned where only a sample of them was looked at. */
  visitors: z.number().int(),
  isSample: z.boolean(),
  /** Of the visitors looked at, how many would be in it. */
  inside: z.number().int(),
  of: z.number().int(),
  /** The 95 % interval of the share, 0 to 1 (Wilson). */
  low: z.number(),
  high: z.number(),
  /** Kinds of conditions that no page told anything about. */
  unheard: z.array(z.string()),
});
export type AudienceShare = z.infer<typeof audienceShareSchema>;

const seen = z.array(z.strictObject({ value: z.string(), visitors: z.number().int() }));
const seenPairs = z.array(
  z.strictObject({ name: z.string(), value: z.string(), visitors: z.number().int() }),
);
/** What visitors of the last 30 days came with, and what pages told of them, the most frequent first. */
export const seenValuesSchema = z.strictObject({
  referrers: seen,
  landings: seen,
  languages: seen,
  countries: seen,
  parameters: seenPairs,
  attributes: seenPairs,
});
export type SeenValues = z.infer<typeof seenValuesSchema>;
