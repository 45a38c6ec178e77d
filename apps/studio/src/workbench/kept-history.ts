import type { Campaign, CampaignDocument } from '@velarium/contract';
import { campaignDocumentSchema } from '@velarium/contract';
import { mergeDocuments } from '@velarium/core';
import { z } from 'zod';
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
    for (let steps = MOST_STEPS; steps > 0; steps = Math.floor(steps / 2)) {
      const kept = { document, savedDocument, past: past.slice(-steps), future: future.slice(0, steps) };
      try {
        sessionStorage.setItem(nameOf(id), JSON.stringify(kept));
        return;
      } catch {
        // There is no room for as many; fewer may fit.
      }
    }
  };
  addEventListener('pagehide', keep);
  return () => removeEventListener('pagehide', keep);
}

/** What a reload left of this campaign's work, put together with what has been saved meanwhile; it is given once. */
export function takeKeptHistory(
  campaign: Campaign,
): Pick<WorkbenchState, 'document' | 'past' | 'future'> | undefined {
  let text: string | null = null;
  try {
    text = sessionStorage.getItem(nameOf(campaign.id));
    sessionStorage.removeItem(nameOf(campaign.id));
  } catch {
    // Storage is refused, so nothing was kept.
  }
  if (text === null) return undefined;
  let written: unknown;
  try {
    written = JSON.parse(text);
  } catch {
    return undefined;
  }
  const read = keptSchema.safeParse(written);
  if (!read.success) return undefined;
  const { document, savedDocument, past, future } = read.data;
  const together: CampaignDocument = mergeDocuments(savedDocument, document, campaign.document).merged;
  const isSame = JSON.stringify(together) === JSON.stringify(campaign.document);
  return { document: isSame ? campaign.document : together, past, future };
}
