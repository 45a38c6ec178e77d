import { z } from 'zod';
import { siteSettingsSchema } from './manifest.ts';
import { selectorSchema } from './trigger.ts';
import { DEVICES, LEAST_EVENT_DAYS, LIMITS, MOST_KEPT_DAYS } from './values.ts';

function isTimeZone(zone: string): boolean {
  try {
    new Intl.DateTimeFormat('en', { timeZone: zone });
    return true;
  } catch {
    return false;
  }
}

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

/** An origin as browsers name it: in small letters, without a port that goes without saying. What is none stays as it was typed. */
export function browsersOrigin(typed: string): string {
  if (!URL.canParse(typed)) return typed;
  const { origin, href } = new URL(typed);
  return href === `${origin}/` ? origin : typed;
}
/** An origin as RFC 6454 has it: scheme, host and port, nothing after. */
export const originSchema = z
  .string()
  .trim()
  .max(300)
  .overwrite(browsersOrigin)
  .regex(/^https?:\/\/[a-z0-9.-]+(:\d{1,5})?$/, {
    error: 'write it like https://example.org, without a path',
    abort: true,
  })
  .refine((origin) => URL.canParse(origin), 'no browser knows such an address');
export const saveSiteSchema = z.strictObject({
  name: z.string().trim().min(1, 'give it a name').max(120),
  /** The first is the one its pages are read from. */
  origins: z.array(originSchema).min(1, 'name at least one address').max(20),
  timeZone: z.string().max(60).refine(isTimeZone, 'choose a time zone of the IANA list'),
});
export type SaveSite = z.infer<typeof saveSiteSchema>;

/** How long a site's single events are kept: days, `null` for ever. What was counted of them stays. */
export const keepEventsSchema = z.strictObject({
  days: z.number().int().min(LEAST_EVENT_DAYS).max(MOST_KEPT_DAYS).nullable(),
});
export type KeepEvents = z.infer<typeof keepEventsSchema>;

/** Where the catalogue has a page from: the site's sitemap, a person, a file, or visits alone. */
export const PAGE_SOURCES = ['sitemap', 'hand', 'file', 'visits'] as const;
export const sitePageSchema = z.strictObject({
  path: z.string(),
  title: z.string(),
  kind: z.string().nullable(),
  source: z.enum(PAGE_SOURCES),
  /** Page views in the last 30 days. */
  views: z.number().int(),
});
export type SitePage = z.infer<typeof sitePageSchema>;

/** A parameter in addresses that were visited: in how many page views, and how many values it had. */
export const parametersSeenSchema = z.array(
  z.strictObject({ name: z.string(), views: z.number().int(), values: z.number().int() }),
);
export type ParameterSeen = z.infer<typeof parametersSeenSchema>[number];

/** On which of these pages there is such an element. */
export const elementQuestionSchema = z.strictObject({
  selectors: z.array(selectorSchema).min(1).max(40),
  paths: z.array(z.string().regex(/^\//).max(LIMITS.pageAddress)).min(1).max(12),
});
export type ElementQuestion = z.infer<typeof elementQuestionSchema>;
export const elementsSeenSchema = z.array(
  z.strictObject({
    selector: z.string(),
    /** The paths of those that have it, and how many could be looked at. */
    pages: z.array(z.string()),
    of: z.number().int(),
  }),
);
export type ElementSeen = z.infer<typeof elementsSeenSchema>[number];

/** Where pages are to be read from: a sitemap of this address, or wherever the site says. */
export const beginReadingSchema = z.strictObject({
  sitemap: z
    .url({ protocol: /^https?$/ })
    .max(2048)
    .nullable(),
});

/** How the reading of a site's pages goes on. */
export const pageReadingSchema = z.strictObject({
  /** Where the pages were found, in words; `null` until they were. */
  source: z.string().nullable(),
  id: z.uuid(),
  state: z.enum(['waiting', 'running', 'done', 'stopped', 'failed']),
  /** Pages found, those done with, and those of them that gave nothing to read. */
  found: z.number().int(),
  read: z.number().int(),
  unread: z.number().int(),
  /** What went wrong, in words. */
  fault: z.string().nullable(),
  updatedAt: z.iso.datetime(),
});
export type PageReading = z.infer<typeof pageReadingSchema>;

/** Pages put into the catalogue by a person or from a file. */
export const addPagesSchema = z.strictObject({
  source: z.enum(['hand', 'file']),
  pages: z
    .array(
      z.strictObject({
        path: z
          .string()
          .max(LIMITS.pageAddress)
          .regex(/^\/[^\s#]*$/, 'start with /, without spaces'),
        title: z.string().trim().max(300),
        kind: z.string().trim().max(80).nullable(),
      }),
    )
    .min(1)
    .max(LIMITS.pagesOfSite),
});
export type AddPages = z.infer<typeof addPagesSchema>;

/** Which visits are asked for: those to these paths, or to any; on one device, or on any. */
export const stayQuestionSchema = z.strictObject({
  paths: z.array(z.string().max(LIMITS.pageAddress)).max(LIMITS.pagesOfSite).nullable(),
  device: z.enum(DEVICES).nullable(),
});
export type StayQuestion = z.infer<typeof stayQuestionSchema>;

/** Visits of the last 30 days by how long they lasted and how far they went, in core's buckets. */
export const stayHistogramsSchema = z.strictObject({
  seconds: z.array(z.number().int()),
  depth: z.array(z.number().int()),
});
export type StayHistograms = z.infer<typeof stayHistogramsSchema>;

/** Where the countries of visitors are known from, and that of one address where one was asked for. */
/** Which manifests the site's pages ran yesterday and today. */
export const manifestsRunSchema = z.strictObject({
  /** Calls that told of a page view and of the manifest it ran. */
  calls: z.number().int(),
  /** Those whose page ran a manifest that had been replaced for an hour or more. */
  outdated: z.number().int(),
  /** When the oldest of those was made. */
  oldest: z.iso.datetime().nullable(),
});
export type ManifestsRun = z.infer<typeof manifestsRunSchema>;

export const countrySourceSchema = z.strictObject({
  /** Networks in the server's country file. */
  networks: z.number().int(),
  /** The header a proxy tells it in. */
  header: z.string().nullable(),
  country: z.string().nullable(),
});
export type CountrySource = z.infer<typeof countrySourceSchema>;
