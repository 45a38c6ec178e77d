import { z } from 'zod';
import { pageRuleSchema } from './pages.ts';

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
]);
export type GoalDeed = z.infer<typeof goalDeedSchema>;

export const saveGoalSchema = z.strictObject({
  name: z.string().trim().min(1, 'give it a name').max(80),
  deed: goalDeedSchema,
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
