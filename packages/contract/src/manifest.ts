import { z } from 'zod';
import { audienceSchema } from './audience.ts';
import { goalEventSchema } from './goals.ts';
import { languageTagSchema } from './message/languages.ts';
import { messageHashSchema } from './message/message.ts';
import { capSchema, pauseSchema } from './rule.ts';
import { scheduleSchema } from './schedule.ts';
import { momentSchema } from './trigger.ts';
import { BUCKETS, TAG_PARTS } from './values.ts';

/** What a site allows of all its campaigns together; `null` is no limit. */
export const siteLimitsSchema = z.strictObject({
  perPageView: z.number().int().min(1).max(50).nullable(),
  perSession: z.number().int().min(1).max(200).nullable(),
  /** In any rolling 24 hours. */
  perDay: z.number().int().min(1).max(500).nullable(),
  /** Smallest gap between the opening of two messages. */
  gapSeconds: z.number().int().min(0).max(86_400),
});
export type SiteLimits = z.infer<typeof siteLimitsSchema>;

/** What the tag must know of its site to observe and to decide. */
export const siteSettingsSchema = z.strictObject({
  sessionMinutes: z.number().int().min(5).max(240),
  /** Widths in CSS pixels below which a window is mobile, and below which a coarse pointer makes it a tablet. */
  breakpoints: z.strictObject({
    mobile: z.number().int().min(320).max(2000),
    tablet: z.number().int().min(320).max(2000),
  }),
  trackingParameters: z.array(z.string().max(80)).max(100),
  /** Parameters by which pages of one path differ when they are counted: a date, a room. */
  pageParameters: z.array(z.string().trim().min(1).max(80)).max(20),
  limits: siteLimitsSchema,
  privacy: z.strictObject({
    /** `asked`: nothing is remembered until the page has said that the visitor agrees. */
    memory: z.enum(['assumed', 'asked']),
    /** Global Privacy Control counts as a refusal to be remembered. */
    honoursSignal: z.boolean(),
  }),
  /** Whether a fragment like `#/tours` is a page of its own. */
  hashRoutes: z.boolean(),
  /** Domain whose subdomains share one session, `quillonfell.example`; each keeps its own where `null`. */
  sharedDomain: z
    .string()
    .regex(/^([a-z0-9-]+\.)+[a-z0-9-]+$/, 'write it like quillonfell.example')
    .nullable(),
  /** Whether the tag works in frames of the site's own pages too, under one floor with the page around; missing: it rests there. */
  worksInFrames: z.boolean().optional(),
  /**
   * What pages tell of a visitor is recorded: sign-in, basket, and the attributes of these names. `null`: none of it is.
   * Attributes may say who somebody is, so each is named by the owner.
   */
  recordedFacts: z
    .array(
      z
        .string()
        .trim()
        .min(1)
        .max(80)
        .refine((name) => !(name in {}), 'give it another name'),
    )
    .max(20)
    .nullable(),
  /** Tells the page what messages do, so that whatever measures there can count it. Missing: nothing is told. */
  measuring: z
    .strictObject({
      /** An array of the page's own that each is put into as well; `null` for none. */
      array: z
        .string()
        .max(60)
        .regex(/^[A-Za-z_$][\w$]*$/, 'write the name of an array, as siteEvents')
        .nullable(),
    })
    .optional(),
});
export type SiteSettings = z.infer<typeof siteSettingsSchema>;

/** A pattern as the automaton core runs: positions, or ranges of characters. */
const instructionSchema = z.union([
  z.tuple([z.literal('set'), z.boolean(), z.array(z.number().int())]),
  z.tuple([z.literal('split'), z.number().int(), z.number().int()]),
  z.tuple([z.enum(['start', 'end', 'match'])]),
]);

/** A page rule as the tag reads it: patterns are compiled when published, never on a visitor's page. */
export const compiledPageRuleSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('every') }),
  z.strictObject({ kind: z.literal('begins'), key: z.string(), isWhole: z.boolean() }),
  z.strictObject({ kind: z.literal('contains'), text: z.string() }),
  z.strictObject({
    kind: z.literal('program'),
    program: z.array(instructionSchema),
    /** Whether it speaks of the host too. */
    isWhole: z.boolean(),
    /** Whether it reads the address as people see it, or as pages are told apart. */
    isSeen: z.boolean(),
  }),
  z.strictObject({ kind: z.literal('pageKind'), name: z.string() }),
  z.strictObject({ kind: z.literal('parameter'), name: z.string(), value: z.string().nullable() }),
  z.strictObject({ kind: z.literal('holds'), selector: z.string() }),
]);
export type CompiledPageRule = z.infer<typeof compiledPageRuleSchema>;

/** Nine cells row by row from the upper start. */
const cellsSchema = z.number().int().min(0).max(511);

/** The files of a message's languages by the language, the original first. */
const messagesByLanguageSchema = z
  .array(z.tuple([languageTagSchema, messageHashSchema]).readonly())
  .readonly();

/** One live campaign, compiled: rules only. Its message is a file of its own, named by its hash. */
export const manifestCampaignSchema = z.strictObject({
  id: z.uuid(),
  version: z.number().int(),
  /** The cells of the window it can lie on, a bit each, on a desktop, a tablet and a phone. */
  cells: z.tuple([cellsSchema, cellsSchema, cellsSchema]).readonly(),
  /** Content hash of the message file. */
  message: messageHashSchema,
  /** Missing where it has one language only. */
  languages: messagesByLanguageSchema.optional(),
  moment: momentSchema,
  /** Normalised keys of exact pages. */
  includeKeys: z.array(z.string()),
  excludeKeys: z.array(z.string()),
  /** The page rules a key cannot stand for. */
  include: z.array(compiledPageRuleSchema),
  exclude: z.array(compiledPageRuleSchema),
  /** Bit 1 desktop, 2 tablet, 4 mobile. */
  devices: z.number().int().min(0).max(7),
  audience: audienceSchema.nullable(),
  schedule: scheduleSchema.nullable(),
  caps: z.array(capSchema),
  afterClose: pauseSchema,
  afterNo: pauseSchema,
  afterConversion: pauseSchema,
  stopAfterUnanswered: z.number().int().nullable(),
  whenBusy: z.enum(['wait', 'yield']),
  priority: z.number().int(),
  /** Counts of an older epoch no longer hold. */
  epoch: z.number().int(),
  /** Whether it may show where nothing can be remembered. */
  isForgetful: z.boolean(),
  /** How visitors are divided, if they are; `variants` begins with the first message. */
  experiment: z
    .strictObject({
      salt: z.string(),
      /** Buckets of {@link BUCKETS} from which it is withheld. */
      holdout: z.number().int().min(0).max(BUCKETS),
      variants: z.array(
        z.strictObject({
          id: z.string(),
          /** Which of {@link BUCKETS} it has, each from the first to the one before the second. */
          buckets: z.array(z.tuple([z.number().int(), z.number().int()]).readonly()).readonly(),
          message: messageHashSchema,
          languages: messagesByLanguageSchema.optional(),
          /** When it opens, where that differs from the first. */
          moment: momentSchema.optional(),
        }),
      ),
    })
    .nullable(),
  /** Which of them the visitor has; found by the tag for its visitor. */
  variant: z.string().optional(),
  /** Parts that pages on which this can open ask for, beside those that every page needs; missing where there are none. */
  asks: z.array(z.enum(TAG_PARTS)).optional(),
});
export type ManifestCampaign = z.infer<typeof manifestCampaignSchema>;

/** A goal the tag tells of. */
const manifestGoalSchema = goalEventSchema.omit({ kind: true }).extend({ id: z.uuid() });
export type ManifestGoal = z.infer<typeof manifestGoalSchema>;

export const manifestSchema = z.strictObject({
  v: z.literal(1),
  /** When its content became what it is, milliseconds since 1970; missing where a site is only tried. */
  made: z.number().int().min(0).optional(),
  /** What the tag must load beside itself to decide for this site. */
  parts: z.array(z.enum(TAG_PARTS)),
  /** Those of them that every page needs, where others are asked for by the page; missing where every page needs all. */
  everywhere: z.array(z.enum(TAG_PARTS)).optional(),
  /** Whether any campaign asks for what only the edge can tell of a visitor: the country, or what the site they came from is. */
  asksEdge: z.boolean(),
  /** IANA name of the site's time zone. */
  timeZone: z.string(),
  site: siteSettingsSchema,
  /** Goals that events of the page reach; missing where the site has none. */
  goals: z.array(manifestGoalSchema).optional(),
  /** In order of precedence: the first that may open does. */
  campaigns: z.array(manifestCampaignSchema),
});
export type Manifest = z.infer<typeof manifestSchema>;
