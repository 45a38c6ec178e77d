import { z } from 'zod';
import { capSchema, pauseSchema } from './rule.ts';
import { FORMATS } from './values.ts';

/** What the tag must know of its site to observe and to decide. */
export const siteSettingsSchema = z.strictObject({
  sessionMinutes: z.number().int().min(5).max(240),
  /** Widths in CSS pixels below which a window is mobile, and below which a coarse pointer makes it a tablet. */
  breakpoints: z.strictObject({
    mobile: z.number().int().min(320).max(2000),
    tablet: z.number().int().min(320).max(2000),
  }),
  trackingParameters: z.array(z.string().max(80)).max(100),
});
export type SiteSettings = z.infer<typeof siteSettingsSchema>;

/** One live campaign, compiled: rules only. Its message is a file of its own, named by its hash. */
export const manifestCampaignSchema = z.strictObject({
  id: z.uuid(),
  version: z.number().int(),
  format: z.enum(FORMATS),
  /** Content hash of the message file. */
  message: z.string().regex(/^[0-9a-f]{32}$/),
  /** Visible seconds on the page after which it opens. */
  afterMs: z.number(),
  /** Normalised page keys. `include: null` means every page. */
  include: z.array(z.string()).nullable(),
  exclude: z.array(z.string()),
  /** Bit 1 desktop, 2 tablet, 4 mobile. */
  devices: z.number().int().min(0).max(7),
  caps: z.array(capSchema),
  afterClose: pauseSchema,
  afterConversion: pauseSchema,
});
export type ManifestCampaign = z.infer<typeof manifestCampaignSchema>;

export const manifestSchema = z.strictObject({
  v: z.literal(1),
  site: siteSettingsSchema,
  /** In order of precedence: the first that may open does. */
  campaigns: z.array(manifestCampaignSchema),
});
export type Manifest = z.infer<typeof manifestSchema>;
