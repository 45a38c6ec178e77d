import type { FollowUp } from '@velarium/contract';
import type { EntityManager } from 'typeorm';
import type { CampaignRow } from './entities.ts';

/** What follows the answers to a campaign's forms; it goes along wherever the campaign goes. */
export interface FollowUpStore {
  of(campaignId: string): Promise<Record<string, FollowUp>>;
  save(campaignId: string, form: string, followUp: FollowUp, manager: EntityManager): Promise<void>;
}
/** What a campaign has beside its document. */
export type Beside = Pick<CampaignRow, 'labels' | 'note'> & {
  readonly followUps: Readonly<Record<string, FollowUp>>;
};
export const NOTHING_BESIDE: Beside = { labels: [], note: '', followUps: {} };
