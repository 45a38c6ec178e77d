import type { EntityManager } from 'typeorm';

/** Told of a campaign that begins or ends to run a version, in the transaction that makes it so. */
export type OnMoved = (
  manager: EntityManager,
  move: {
    readonly workspaceId: string;
    readonly siteId: string;
    readonly campaignId: string;
    readonly name: string;
    readonly event: 'campaign.published' | 'campaign.rested';
  },
) => Promise<void>;

/**
 * Told of a site on which something else runs from now on, or the same otherwise (its limits, its page groups), in the transaction
 * that makes it so.
 */
export type OnRunning = (
  manager: EntityManager,
  site: { readonly workspaceId: string; readonly siteId: string },
) => Promise<void>;
