import { z } from 'zod';
import { manifestSchema } from './manifest.ts';
import { ruleSchema } from './rule.ts';
import { eventNameSchema, selectorSchema } from './trigger.ts';
import { BROWSERS, CAMPAIGN_STATES, DEVICES, EXIT_CERTAINTIES, LIMITS, SOURCES, SYSTEMS } from './values.ts';

/** Longer than anybody stays, and short enough to be played at once. */
export const LONGEST_VISIT_SECONDS = 4 * 3600;

/** A later session of a visitor is told from this one by nothing. */
export const MOST_SESSIONS = 1000;

/** The form of a kept rehearsal, so that a newer one is told from a damaged one. */
export const REHEARSAL_FORM = 1;

const seconds = z.number().min(0).max(LIMITS.triggerSeconds);
const basketSchema = z.strictObject({
  items: z.number().int().min(0).max(1e6),
  total: z.number().min(0).max(1e9),
});

/** What a visitor has met before the visit begins. */
const metSchema = z.strictObject({
  campaign: z.uuid(),
  what: z.enum(['seen', 'closed', 'refused', 'converted']),
  hoursBefore: z
    .number()
    .min(0)
    .max(24 * 730),
});

export const rehearsedVisitorSchema = z.strictObject({
  device: z.enum(DEVICES),
  browser: z.enum(BROWSERS),
  system: z.enum(SYSTEMS),
  /** What kind of place they come from, and its host; empty where it is not known. */
  source: z.enum(SOURCES),
  referrer: z.string().trim().toLowerCase().max(253),
  /** 1 for their first. */
  session: z.number().int().min(1).max(MOST_SESSIONS),
  /** `null` where the page says nothing. */
  signedIn: z.boolean().nullable(),
  basket: basketSchema.nullable(),
  /** Two letters, lower case. */
  country: z
    .string()
    .regex(/^[a-z]{2}$/, 'use two letters')
    .nullable(),
  language: z.string().regex(/^[a-z]{2,3}(-[a-z0-9]{2,8})*$/, 'use a code like en or en-gb'),
  /** When the visit begins, by the clocks of the site. */
  begins: z
    .string()
    .regex(/^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}$/, 'write a day and a time')
    .refine((text) => !Number.isNaN(Date.parse(`${text}:00Z`)), 'there is no such day or time'),
  met: z.array(metSchema).max(40),
});
export type RehearsedVisitor = z.infer<typeof rehearsedVisitorSchema>;

/** Something that happens on a page, seconds after it came into sight. */
export const happeningSchema = z.intersection(
  z.object({ at: seconds }),
  z.discriminatedUnion('what', [
    z.object({ what: z.literal('leavesByMouse'), certainty: z.enum(EXIT_CERTAINTIES) }),
    z.object({ what: z.literal('leavesByTouch'), by: z.enum(['scrollUp', 'back']) }),
    /** Another tab is looked at for so long. */
    z.object({ what: z.literal('away'), seconds }),
    /** Nothing is touched for so long. */
    z.object({ what: z.literal('still'), seconds }),
    z.object({
      what: z.literal('interacts'),
      by: z.enum(['click', 'hover', 'focus']),
      selector: selectorSchema,
    }),
    z.object({ what: z.literal('reaches'), selector: selectorSchema }),
    z.object({ what: z.literal('articleEnd') }),
    z.object({
      what: z.literal('event'),
      name: eventNameSchema,
      data: z.record(z.string().max(80), z.union([z.string().max(300), z.number(), z.boolean()])),
    }),
    z.object({ what: z.literal('basket'), items: basketSchema.shape.items, total: basketSchema.shape.total }),
    z.object({ what: z.literal('signIn'), is: z.boolean() }),
    /** The page asks for a campaign itself. */
    z.object({ what: z.literal('asks'), campaign: z.uuid() }),
  ]),
);
export type Happening = z.infer<typeof happeningSchema>;

export const rehearsedPageSchema = z.strictObject({
  /** Path and query, as the browser has it. */
  path: z.string().max(LIMITS.pageAddress).regex(/^\//, 'begin with a slash'),
  seconds,
  /** Per cent of it that is reached, evenly over the stay. */
  depth: z.number().min(0).max(100),
  /** Minutes between this page and the one before it. */
  afterMinutes: z
    .number()
    .min(0)
    .max(60 * 24 * 730),
  happenings: z.array(happeningSchema).max(40),
});
export type RehearsedPage = z.infer<typeof rehearsedPageSchema>;

/** What the visitor does with a campaign's message, each time it opens; where nothing is said they leave it be. */
const reactionSchema = z.strictObject({
  campaign: z.uuid(),
  does: z.enum(['close', 'refuse', 'convert']),
  afterSeconds: seconds,
});
export type Reaction = z.infer<typeof reactionSchema>;

/** What must hold of a visit. */
export const expectationSchema = z.discriminatedUnion('kind', [
  /** On this page of the visit, by its position, by this second of it; on any, at any, where nothing is said. */
  z.strictObject({
    kind: z.literal('opens'),
    campaign: z.uuid(),
    page: z.number().int().min(0).max(49).nullable(),
    bySecond: seconds.nullable(),
  }),
  z.strictObject({ kind: z.literal('never'), campaign: z.uuid() }),
  z.strictObject({ kind: z.literal('atMost'), count: z.number().int().min(0).max(100) }),
]);
export type Expectation = z.infer<typeof expectationSchema>;

/** A visit as it is played against every campaign of a site. */
export const rehearsalSchema = z.strictObject({
  form: z.literal(REHEARSAL_FORM),
  visitor: rehearsedVisitorSchema,
  pages: z
    .array(rehearsedPageSchema)
    .min(1, 'a visit has at least one page')
    .max(50)
    .refine(
      (pages) => pages.reduce((sum, page) => sum + page.seconds, 0) <= LONGEST_VISIT_SECONDS,
      'a visit lasts four hours at most',
    ),
  reactions: z.array(reactionSchema).max(400),
  expectations: z.array(expectationSchema).max(40),
});
export type Rehearsal = z.infer<typeof rehearsalSchema>;

export const saveRehearsalSchema = z.strictObject({
  name: z.string().trim().min(1, 'give it a name').max(80),
  rehearsal: rehearsalSchema,
});
export type SaveRehearsal = z.infer<typeof saveRehearsalSchema>;
export const keptRehearsalSchema = saveRehearsalSchema.extend({ id: z.uuid(), updatedAt: z.iso.datetime() });
export type KeptRehearsal = z.infer<typeof keptRehearsalSchema>;

/** Which campaigns a visit is played against: those that run, every draft, or one draft among those that run. */
export const castQuestionSchema = z.strictObject({
  of: z.union([z.enum(['live', 'drafts']), z.uuid()]).default('live'),
});
/** A campaign's draft with this rule in the place of its own, among those that run. */
export const castWithRuleSchema = z.strictObject({ of: z.uuid(), rule: ruleSchema });
export type CastWithRule = z.infer<typeof castWithRuleSchema>;
export const castSchema = z.strictObject({
  manifest: manifestSchema,
  campaigns: z.array(z.strictObject({ id: z.uuid(), name: z.string(), state: z.enum(CAMPAIGN_STATES) })),
});
export type Cast = z.infer<typeof castSchema>;

/** What becomes of all that is expected, for a site's own build: 0 where everything holds, else 1. */
export const rehearsalOutcomeSchema = z.strictObject({
  exitCode: z.union([z.literal(0), z.literal(1)]),
  /** Rehearsals that expect something. */
  asked: z.number().int(),
  failing: z.array(
    z.strictObject({
      name: z.string(),
      expectations: z.array(z.strictObject({ words: z.string(), why: z.string() })),
    }),
  ),
});
export type RehearsalOutcome = z.infer<typeof rehearsalOutcomeSchema>;

/** What became of a kept rehearsal: what its expectations say, with the reason where one fails. */
export const rehearsedSchema = z.strictObject({
  id: z.uuid(),
  name: z.string(),
  expectations: z.array(z.strictObject({ words: z.string(), holds: z.boolean(), why: z.string() })),
  /** Of one that fails and has held before against what ran: when it was last seen to, and what is otherwise since. */
  since: z.strictObject({ heldAt: z.iso.datetime(), changes: z.array(z.string()) }).nullable(),
});
export type Rehearsed = z.infer<typeof rehearsedSchema>;
