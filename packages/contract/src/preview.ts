import { z } from 'zod';
import { manifestSchema } from './manifest.ts';
import { messageFileSchema } from './message/message.ts';
import { LIMITS, SITE_KEY } from './values.ts';

/** What a page asks the edge for when the studio opened it for a preview. */
export const previewRequestSchema = z.strictObject({
  site: z.string().regex(SITE_KEY),
  token: z.string().max(400),
  /** The campaign that is tried: as it is drafted, beside what visitors meet. */
  campaign: z.uuid().optional(),
});
export type PreviewRequest = z.infer<typeof previewRequestSchema>;

/** What a page looks like in the browser of somebody the studio sent there: markup, without what runs. */
export const pageSightSchema = z.strictObject({
  site: z.string().regex(SITE_KEY),
  token: z.string().max(400),
  path: z.string().max(LIMITS.pageAddress).regex(/^\//),
  html: z.string().min(1).max(LIMITS.sightLetters),
});
export type PageSight = z.infer<typeof pageSightSchema>;

/** A page that was seen in a browser, and when. */
export const seenPageSchema = z.strictObject({
  path: z.string(),
  at: z.iso.datetime(),
  /** Links of it that lead to addresses behind a `#`, as routed applications make them. */
  routes: z.number().int(),
});
export type SeenPage = z.infer<typeof seenPageSchema>;

/**
 * A site as it is tried: one campaign as its draft stands among those that run as they were published, or, where none is
 * named, every draft. With what a panel needs to name them.
 */
export const previewSchema = z.strictObject({
  manifest: manifestSchema,
  /** Message files by the hash the manifest names them with. */
  files: z.record(z.string(), messageFileSchema),
  /** Of a link for somebody without an account: whether it comes without the panel. `null` for who was sent by the studio. */
  link: z.strictObject({ isBare: z.boolean() }).nullable(),
  /** Of a visitor's code: the campaign they ask after. `null` otherwise; then the visit is one of its own. */
  why: z.strictObject({ campaign: z.uuid() }).nullable(),
  campaigns: z.array(
    z.strictObject({
      id: z.uuid(),
      name: z.string(),
      state: z.enum(['draft', 'running', 'resting', 'archived']),
    }),
  ),
});
export type Preview = z.infer<typeof previewSchema>;

/** How long a link to a preview leads somewhere, in days. */
export const LINK_DAYS = [1, 7, 30] as const;

/** A link for somebody without an account: one campaign's draft among what runs, or every draft of the site. */
export const makePreviewLinkSchema = z.strictObject({
  days: z.union(LINK_DAYS.map((days) => z.literal(days))),
  /** `null`: every draft. */
  campaign: z.uuid().nullable(),
  /** Without the panel that says why each message shows or does not. */
  isBare: z.boolean(),
});
export type MakePreviewLink = z.infer<typeof makePreviewLinkSchema>;

/** The studio's leave to preview a site's pages for a while. */
export const previewTicketSchema = z.strictObject({ token: z.string(), expiresAt: z.iso.datetime() });
export type PreviewTicket = z.infer<typeof previewTicketSchema>;
