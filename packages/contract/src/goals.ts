import { z } from 'zod';
import { pageRuleSchema } from './pages.ts';
import { dataConditionSchema, eventNameSchema } from './trigger.ts';

/** Where the worth of a deed is told: in the event's own data, `path` in dots, or as the basket's total at that moment. */
export const worthSchema = z.discriminatedUnion('from', [
  z.strictObject({ from: z.literal('data'), path: z.string().trim().min(1, 'name its place').max(120) }),
  z.strictObject({ from: z.literal('basket') }),
]);

/** An event of the page, by which a shop tells of a purchase or a booking. */
export const goalEventSchema = z.strictObject({
  kind: z.literal('event'),
  name: eventNameSchema,
  condition: dataConditionSchema.nullable(),
  /** `null` where it has none. */
  worth: worthSchema.nullable(),
});

/** What visitors may do whether or not a message was shown to them. */
export const goalDeedSchema = z.discriminatedUnion('kind', [
  /** A page is reached; told by its address alone, since pages that are gone cannot be asked. */
  z.strictObject({
    kind: z.literal('page'),
    pages: z
      .array(
        pageRuleSchema.refine(
          ({ kind }) => kind !== 'group' && kind !== 'pageKind' && kind !== 'holds',
          'name pages by their address',
        ),
      )
      .min(1, 'name at least one page')
      .max(20),
  }),
  /** Any form of the site is answered. */
  z.strictObject({ kind: z.literal('answer') }),
  goalEventSchema,
]);
export type GoalDeed = z.infer<typeof goalDeedSchema>;

export const saveGoalSchema = z.strictObject({
  name: z.string().trim().min(1, 'give it a name').max(80),
  deed: goalDeedSchema,
  /** Whether a visitor who does it again counts again, in how often it was done and in its worth. */
  counts: z.enum(['once', 'each']).default('once'),
  /** How many days after the showing, or the withholding, it counts. */
  days: z.number().int().min(1).max(90),
});
export type SaveGoal = z.infer<typeof saveGoalSchema>;

export const goalSchema = saveGoalSchema.extend({
  id: z.uuid(),
  /** From here on it is counted. */
  createdAt: z.iso.datetime(),
  /** Visitors who reached it in the last 28 days. */
  reached: z.number().int(),
});
export type Goal = z.infer<typeof goalSchema>;

/** Which goals of the site a campaign's Results tell of; `null` for all of them. */
export const campaignGoalsSchema = z.strictObject({ goals: z.array(z.uuid()).max(20).nullable() });
export type CampaignGoals = z.infer<typeof campaignGoalsSchema>;
