import { z } from 'zod';
import { LIMITS, SITE_KEY } from './values.ts';

/** A short code that can be read out: no letter or figure that is taken for another. */
export const WHY_CODE = /^[a-hjkmnp-z2-9]{6}$/;
export const whyCodeSchema = z.string().regex(WHY_CODE);

/** What the panel said of one campaign. */
export const whyLineSchema = z.strictObject({
  campaign: z.uuid(),
  /** Its name, as the panel had it. */
  name: z.string().max(LIMITS.campaignName),
  /** Whether it is shown, in a word. */
  mark: z.string().max(40),
  why: z.string().max(1000),
});
export type WhyLine = z.infer<typeof whyLineSchema>;

/** What a visitor lets the studio know: what the panel says, and on which page; nothing else of them. */
export const tellWhySchema = z.strictObject({
  site: z.string().regex(SITE_KEY),
  code: whyCodeSchema,
  page: z.string().max(LIMITS.pageAddress).regex(/^\//),
  lines: z.array(whyLineSchema).min(1).max(200),
});
export type TellWhy = z.infer<typeof tellWhySchema>;

/** Codes of a campaign that still open something, and what visitors have sent, the latest first. */
export const whySchema = z.strictObject({
  codes: z.array(z.strictObject({ code: whyCodeSchema, byName: z.string(), expiresAt: z.iso.datetime() })),
  reports: z.array(
    z.strictObject({
      id: z.uuid(),
      at: z.iso.datetime(),
      code: z.string(),
      page: z.string(),
      lines: z.array(whyLineSchema),
    }),
  ),
});
export type Why = z.infer<typeof whySchema>;
