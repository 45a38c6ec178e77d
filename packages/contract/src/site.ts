import { z } from 'zod';
import { siteSettingsSchema } from './manifest.ts';

export const siteSchema = z.strictObject({
  id: z.uuid(),
  key: z.string(),
  name: z.string(),
  origins: z.array(z.string()),
  timeZone: z.string(),
  settings: siteSettingsSchema,
  /** When the tag was last heard from, if ever. */
  lastSeenAt: z.iso.datetime().nullable(),
});
export type Site = z.infer<typeof siteSchema>;

export const sitePageSchema = z.strictObject({
  path: z.string(),
  title: z.string(),
  kind: z.string().nullable(),
});
export type SitePage = z.infer<typeof sitePageSchema>;
