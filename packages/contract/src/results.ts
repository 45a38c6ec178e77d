import { z } from 'zod';
import { BREAKDOWNS, CLOSE_WAYS, DEVICES, LIMITS, RESULT_AGAINST, RESULT_PERIODS } from './values.ts';

/** Which days are asked about, and against which; days are the site's own. */
export const periodQuestionSchema = z.strictObject({
  period: z.enum(RESULT_PERIODS).default('28'),
  /** With `own`. */
  from: z.iso.date().optional(),
  until: z.iso.date().optional(),
  against: z.enum(RESULT_AGAINST).default('before'),
  /** With `own` of `against`. */
  againstFrom: z.iso.date().optional(),
  againstUntil: z.iso.date().optional(),
});
export type PeriodQuestion = z.infer<typeof periodQuestionSchema>;

/** Days from the first to the last, both of them in it. */
export const stretchSchema = z.strictObject({ from: z.iso.date(), until: z.iso.date() });
export type Stretch = z.infer<typeof stretchSchema>;

/** Whether somebody has a site's week mailed to them every Monday. */
export const weekMailSchema = z.strictObject({ isOn: z.boolean() });

const count = z.number().int().min(0);
/** What happened in a stretch of days, as events and as unique visitors of that stretch. */
export const resultCountsSchema = z.strictObject({
  showings: count,
  clicks: count,
  closes: count,
  /** Closed within two seconds of opening. */
  closedSoon: count,
  conversions: count,
  visitors: count,
  viewers: count,
  clickers: count,
  /** Who began to answer. */
  writers: count,
  converters: count,
  /** From whom it was withheld. */
  withheld: count,
});
export type ResultCounts = z.infer<typeof resultCountsSchema>;

/** One day, `2026-11-27`, or one hour of it, `2026-11-27T09`. */
const pointSchema = z.strictObject({ at: z.string(), showings: count, conversions: count });
export type ResultPoint = z.infer<typeof pointSchema>;

/** What the people of the studio did, on the day they did it. */
const markSchema = z.strictObject({
  day: z.iso.date(),
  campaignId: z.uuid(),
  name: z.string(),
  what: z.enum(['published', 'rested', 'resumed']),
  version: z.number().int().nullable(),
});
export type ResultMark = z.infer<typeof markSchema>;

const ofPeriod = {
  period: stretchSchema,
  against: stretchSchema.nullable(),
  timeZone: z.string(),
  points: z.array(pointSchema),
  pointsAgainst: z.array(pointSchema),
  marks: z.array(markSchema),
};

export const siteResultsSchema = z.strictObject({
  ...ofPeriod,
  campaigns: z.array(
    z.strictObject({
      id: z.uuid(),
      name: z.string(),
      isArchived: z.boolean(),
      counts: resultCountsSchema,
      before: resultCountsSchema.nullable(),
    }),
  ),
  /** Visitors of one day, by how many messages they met on it: one, two … and as many as the last or more. */
  met: z.array(count),
});
export type SiteResults = z.infer<typeof siteResultsSchema>;

export const campaignResultsSchema = z.strictObject({
  ...ofPeriod,
  id: z.uuid(),
  name: z.string(),
  counts: resultCountsSchema,
  before: resultCountsSchema.nullable(),
  /** Answers of the period that are not kept apart, and those of them whose person confirmed. */
  answers: count,
  confirmed: count,
  /** How it went away, and after how many seconds: histograms with the edges of core. */
  closes: z.array(z.strictObject({ way: z.enum(CLOSE_WAYS), events: count, seconds: z.array(count) })),
  /** When it opened: seconds in sight and per cent of the page, in the bars of the visit line. */
  openedSeconds: z.array(count),
  openedDepth: z.array(count),
});
export type CampaignResults = z.infer<typeof campaignResultsSchema>;

export const breakdownSchema = z.enum(BREAKDOWNS);
export const campaignPartsQuestionSchema = periodQuestionSchema.extend({
  by: breakdownSchema.default('device'),
});
export type CampaignPartsQuestion = z.infer<typeof campaignPartsQuestionSchema>;

/** One part of a campaign's visitors: as they were at their first showing in the period. */
const partSchema = z.strictObject({
  /** `null` where it is not known. */
  key: z.string().nullable(),
  visitors: count,
  converters: count,
});
export type ResultPart = z.infer<typeof partSchema>;

/** The visitors of the same days, told apart. */
export const campaignPartsSchema = z.strictObject({
  by: breakdownSchema,
  parts: z.array(partSchema),
  /**
   * On the message itself, variant by variant: visitors who had it in sight, and of them those who clicked a block, wrote into a
   * field, and wrote last into it without having converted.
   */
  onMessage: z.array(
    z.strictObject({
      variant: z.string(),
      viewers: count,
      parts: z.array(z.strictObject({ part: z.string(), clickers: count, writers: count, gaveUp: count })),
    }),
  ),
  /** Those of the site's goals that are chosen for it: how many reached each within its days after they first met it, or it was withheld from them. */
  goals: z.array(
    z.strictObject({
      id: z.uuid(),
      name: z.string(),
      days: z.number().int(),
      visitors: count,
      reached: count,
      withheld: count,
      withheldReached: count,
      /** Whether each time counts, how often it was done, and what it was worth; `null` for a goal that has no worth. */
      counts: z.enum(['once', 'each']),
      times: count,
      withheldTimes: count,
      worth: z.number().nullable(),
      withheldWorth: z.number().nullable(),
    }),
  ),
  versions: z.array(
    z.strictObject({
      version: z.number().int(),
      publishedAt: z.iso.datetime(),
      visitors: count,
      converters: count,
    }),
  ),
});
export type CampaignParts = z.infer<typeof campaignPartsSchema>;

/** Counts of days for comparing two stretches of them. */
export const dayCountsSchema = z.array(z.strictObject({ day: z.iso.date(), count }));

/** One variant of an experiment, the present one first. */
const armSchema = z.strictObject({
  id: z.string(),
  weight: z.number(),
  /** Whose window has closed, and those of them who converted within it. */
  visitors: count,
  converters: count,
});
export const experimentSchema = z.strictObject({
  id: z.uuid(),
  startedAt: z.iso.datetime(),
  endedAt: z.iso.datetime().nullable(),
  /** What became of it, in a word, once it has ended. */
  ended: z.enum(['adopted', 'stopped', 'changed']).nullable(),
  /** The variant that was adopted. */
  adopted: z.string().nullable(),
  /** Visitors a side it is planned for; `null` without an end. */
  visitorsASide: z.number().int().nullable(),
  /** The smallest difference worth having, in shares of 1. */
  smallest: z.number(),
  /** What it is for, where that is a goal of the site; else the message's own answer or click. */
  goal: z.strictObject({ id: z.uuid(), name: z.string(), days: z.number().int() }).nullable(),
  /** How long after their first showing a visitor is waited for, hours. */
  windowHours: z.number().int(),
  /** Visitors who have entered, whether or not their window has closed. */
  entered: count,
  /** Who was shown the present one without having been divided: not remembered, or on a page of before it began. */
  undivided: count,
  /** Showings to robots, which say that they are and count nowhere. */
  robots: count,
  /** By the end of each day of the site. */
  days: z.array(z.strictObject({ day: z.iso.date(), arms: z.array(armSchema) })),
});
export type Experiment = z.infer<typeof experimentSchema>;

export const experimentsSchema = z.strictObject({
  /** The one that runs. */
  running: experimentSchema.nullable(),
  /** Those that have ended, as they were found, the latest first. */
  ended: z.array(experimentSchema),
});
export type Experiments = z.infer<typeof experimentsSchema>;

export const endExperimentSchema = z.strictObject({
  /** The variant that becomes the campaign's message and moment; `null` stops without one: the present one stays. */
  adopt: z.string().max(1).nullable(),
});

/** What can be known before an experiment begins. */
export const trialForecastSchema = z.strictObject({
  /** The rate of the last 28 days and visitors a day; `null` where nobody came. */
  rate: z.number().nullable(),
  visitorsADay: z.number(),
  visitorsASide: z.number().int().nullable(),
  /** `null` where it would never end. */
  days: z.number().int().nullable(),
});
export type TrialForecast = z.infer<typeof trialForecastSchema>;

/** A page of the catalogue. */
export const metOnQuestionSchema = z.strictObject({ path: z.string().regex(/^\//).max(LIMITS.pageAddress) });
/** What was met on it in the last 28 days, campaign by campaign. */
export const metOnSchema = z.array(
  z.strictObject({ campaign: z.uuid(), showings: z.number().int(), visitors: z.number().int() }),
);
export type MetOn = z.infer<typeof metOnSchema>[number];
/** The same of every page at once, by the address of the visit, without what follows its path where that tells no pages apart. */
export const metByPageSchema = z.array(
  z.strictObject({
    campaign: z.uuid(),
    path: z.string(),
    device: z.enum(DEVICES),
    showings: z.number().int(),
  }),
);
export type MetByPage = z.infer<typeof metByPageSchema>[number];
