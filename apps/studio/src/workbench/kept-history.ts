import type { Campaign, CampaignDocument } from '@velarium/contract';
import { campaignDocumentSchema } from '@velarium/contract';
import { isSame, mergeDocuments } from '@velarium/core';
import { z } from 'zod';
import { forgetForTab, keepForTab, keptForTab } from '../ui/tab-memory.ts';
import type { WorkbenchState, WorkbenchStore } from './store.ts';

/** Steps of undo that outlive a reload; a browser keeps a few megabytes for a tab. */
const MOST_STEPS = 40;

const keptSchema = z.object({
  document: campaignDocumentSchema,
  savedDocument: campaignDocumentSchema,
  past: z.array(campaignDocumentSchema),
  future: z.array(campaignDocumentSchema),
});

const nameOf = (campaignId: string): string => `velarium.workbench.${campaignId}`;

/** Keeps what is being worked on for this tab when its page goes, so that a reload loses nothing. Returns the undo. */
export function keepHistory(store: WorkbenchStore): () => void {
  const keep = () => {
    const { id, canEdit, document, savedDocument, past, future } = store.getState();
    if (!canEdit || (past.length === 0 && future.length === 0)) return;
    // Where there is no room for as many, fewer may fit.
    for (let steps = MOST_STEPS; steps > 0; steps = Math.floor(steps / 2)) {
      const kept = { document, savedDocument, past: past.slice(-steps), future: future.slice(0, steps) };
      if (keepForTab(nameOf(id), kept)) return;
    }
  };
  addEventListener('pagehide', keep);
  return () => removeEventListener('pagehide', keep);
}

/** What a reload left of this campaign's work, put together with what has been saved meanwhile; it is given once. */
export function takeKeptHistory(
  campaign: Campaign,
): Pick<WorkbenchState, 'document' | 'past' | 'future'> | undefined {
  const read = keptSchema.safeParse(keptForTab(nameOf(campaign.id)));
  forgetForTab(nameOf(campaign.id));
  if (!read.success) return undefined;
  const { document, savedDocument, past, future } = read.data;
  const together: CampaignDocument = mergeDocuments(savedDocument, document, campaign.document).merged;
  return { document: isSame(together, campaign.document) ? campaign.document : together, past, future };
}
