import { createHash } from 'node:crypto';
import type { CampaignDocument } from '@velarium/contract';
import { compileManifest, launchFindings } from '@velarium/core';
import type { DataSource, EntityManager } from 'typeorm';
import type { CampaignRow, CampaignService } from '../campaigns/index.ts';
import { ProblemError } from '../infra/problem.ts';
import type { SiteService } from '../sites/index.ts';
import { MessageFileEntity, SiteManifestEntity } from './entities.ts';

/** Every process that serves the edge listens here; the payload is the key of the site that changed. */
export const SITE_CHANGED = 'velarium_site_changed';

const contentHash = (body: string) => createHash('sha256').update(body).digest('hex').slice(0, 32);

const wrongState = (detail: string) => new ProblemError(409, 'wrong-state', 'Not in this state', detail);

export interface PublishingServices {
  readonly db: DataSource;
  readonly sites: SiteService;
  readonly campaigns: CampaignService;
}
type Actor = { readonly workspaceId: string; readonly accountId: string };

/** Moves campaigns between their states and makes what the edge serves, each move in one transaction. */
export function createPublishingService({ db, sites, campaigns }: PublishingServices) {
  /** Locks campaign and site, lets `move` change the row, and rebuilds the site's manifest. */
  async function transition(
    actor: Actor,
    campaignId: string,
    move: (manager: EntityManager, row: CampaignRow) => Promise<Partial<CampaignRow>>,
  ): Promise<void> {
    await db.transaction(async (manager) => {
      const row = await campaigns.lock(manager, actor.workspaceId, campaignId);
      await sites.lock(manager, actor.workspaceId, row.siteId);
      await campaigns.update(manager, campaignId, await move(manager, row));
      await rebuild(manager, actor.workspaceId, row.siteId);
    });
  }

  async function rebuild(manager: EntityManager, workspaceId: string, siteId: string): Promise<void> {
    const site = await sites.lock(manager, workspaceId, siteId);
    const live = await campaigns.live(manager, siteId);
    const manifest = compileManifest(
      site,
      live.map(({ campaignId, version, messageHash, document }) => ({
        id: campaignId,
        version,
        messageHash,
        message: document.message,
        rule: document.rule,
      })),
    );
    const body = JSON.stringify(manifest);
    await manager
      .getRepository(SiteManifestEntity)
      .upsert({ siteId, body, etag: `"${contentHash(body)}"`, builtAt: new Date() }, ['siteId']);
    // Delivered when the transaction commits, and not at all if it does not.
    await manager.query('SELECT pg_notify($1, $2)', [SITE_CHANGED, site.key]);
  }

  return {
    /** Freezes the draft as a new version and runs it. */
    publish(actor: Actor, campaignId: string): Promise<void> {
      return transition(actor, campaignId, async (manager, row) => {
        if (row.state === 'archived') throw wrongState('Take it out of the archive first.');
        assertLaunchable(row.draft);
        const body = JSON.stringify(row.draft.message);
        const messageHash = contentHash(body);
        await manager
          .getRepository(MessageFileEntity)
          .upsert({ siteId: row.siteId, hash: messageHash, body }, ['siteId', 'hash']);
        const version = await campaigns.nextVersion(manager, campaignId);
        await campaigns.addVersion(manager, {
          campaignId,
          version,
          document: row.draft,
          messageHash,
          publishedBy: actor.accountId,
        });
        return { state: 'running', liveVersion: version, publishedRevision: row.revision };
      });
    },

    rest(actor: Actor, campaignId: string): Promise<void> {
      return transition(actor, campaignId, async (_manager, row) => {
        if (row.state !== 'running') throw wrongState('Only a running campaign can rest.');
        return { state: 'resting' };
      });
    },

    /** Runs the last published version again, whatever has been drafted since. */
    run(actor: Actor, campaignId: string): Promise<void> {
      return transition(actor, campaignId, async (_manager, row) => {
        if (row.state !== 'resting')
          throw wrongState('Only a resting campaign can be run again. Publish it instead.');
        return { state: 'running' };
      });
    },

    archive(actor: Actor, campaignId: string): Promise<void> {
      return transition(actor, campaignId, async (_manager, row) => {
        if (row.state === 'archived') throw wrongState('It is in the archive already.');
        return { state: 'archived', stateBeforeArchive: row.state };
      });
    },

    /** Undoes an archive: the campaign is again what it was before. */
    restore(actor: Actor, campaignId: string): Promise<void> {
      return transition(actor, campaignId, async (_manager, row) => {
        if (row.state !== 'archived') throw wrongState('It is not in the archive.');
        return { state: row.stateBeforeArchive ?? 'draft', stateBeforeArchive: null };
      });
    },

    /** Builds the manifest of a site that has published nothing yet. */
    prepareSite: (workspaceId: string, siteId: string): Promise<void> =>
      db.transaction((manager) => rebuild(manager, workspaceId, siteId)),

    /** For the public edge. */
    async findManifest(siteId: string): Promise<{ etag: string; body: string } | undefined> {
      return (await db.getRepository(SiteManifestEntity).findOneBy({ siteId })) ?? undefined;
    },
    async findMessage(siteId: string, hash: string): Promise<string | undefined> {
      return (await db.getRepository(MessageFileEntity).findOneBy({ siteId, hash }))?.body;
    },
  };
}
export type PublishingService = ReturnType<typeof createPublishingService>;

function assertLaunchable(document: CampaignDocument): void {
  const stops = launchFindings(document).filter((finding) => finding.severity === 'stop');
  const [first] = stops;
  if (!first) return;
  throw new ProblemError(
    422,
    'not-launchable',
    'Not ready to publish',
    first.text,
    stops.map(({ part, text }) => ({ path: part, message: text })),
  );
}
