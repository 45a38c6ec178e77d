import { z } from 'zod';
import { campaignDocumentSchema, campaignNameSchema, campaignSchema, labelSchema } from './campaign.ts';
import { followUpSchema } from './follow-up.ts';
import { blockIdSchema } from './message/blocks.ts';
import { pageGroupSchema } from './pages.ts';
import { MOST_NOTE } from './values.ts';

/**
 * A campaign as a file: its document, and under the ids it refers to what these are called, so that another site can
 * find its own of that name. Saved blocks stand in the message themselves.
 */
export const campaignFileSchema = z.strictObject({
  velarium: z.literal('campaign'),
  version: z.literal(1),
  name: campaignNameSchema,
  labels: z.array(labelSchema).max(20),
  document: campaignDocumentSchema,
  /** For the team. Files of before it was written down have none. */
  note: z.string().max(MOST_NOTE).default(''),
  /** What follows the answers, by the form. Files of before it went along have none. */
  followUps: z.record(blockIdSchema, followUpSchema).default({}),
  names: z.strictObject({
    looks: z.record(z.string(), z.string()),
    pictures: z.record(z.string(), z.string()),
    campaigns: z.record(z.string(), z.string()),
    /** Whole, so that a site without the group still has its rules. */
    groups: z.record(z.string(), pageGroupSchema.omit({ id: true })),
  }),
});
export type CampaignFile = z.infer<typeof campaignFileSchema>;

/** What became of a campaign on another site, and what could not come along, in words. */
export const arrivalSchema = z.strictObject({ campaign: campaignSchema, lost: z.array(z.string()) });
export type ArrivedCampaign = z.infer<typeof arrivalSchema>;
