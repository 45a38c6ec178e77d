import type { MessageFile } from '@velarium/contract';
import type { PageParts } from '@velarium/core';
import type { DataSource } from 'typeorm';
import { FIRST_VARIANT } from './compile-site.ts';
import { MessageFileEntity } from './entities.ts';

/** A site as the edge serves it. */
export interface SiteToServe {
  readonly id: string;
  readonly workspaceId: string;
  readonly origins: readonly string[];
  readonly recordedFacts: readonly string[] | null;
  readonly pageParts: PageParts;
  readonly etag: string;
  /** When its manifest was made. */
  readonly madeMs: number;
  /** Of the manifest; `null` where the asker has the one of this etag. */
  readonly body: string | null;
}

/** What an answer says it answers. */
export interface Answered {
  readonly campaign: string;
  readonly version: number;
  readonly variant: string | undefined;
  readonly hash: string | undefined;
}

/** What was made when publishing, as the edge reads it; and what of it goes when nothing names it any more. */
export function createServed(db: DataSource, why: { tidy(): Promise<void> }) {
  return {
    /** For the public edge: a site with its manifest, whose body is left out where the edge has it already. */
    async findSite(key: string, knownEtag?: string): Promise<SiteToServe | undefined> {
      const [row]: SiteToServe[] = await db.query(
        `SELECT site.id, workspace_id AS "workspaceId", origins, settings -> 'recordedFacts' AS "recordedFacts",
                jsonb_build_object('pageParameters', settings -> 'pageParameters', 'hashRoutes', settings -> 'hashRoutes')
                  AS "pageParts", etag, (extract(epoch FROM built_at) * 1000)::float8 AS "madeMs",
                CASE WHEN etag IS DISTINCT FROM $2 THEN body END AS body
           FROM site JOIN site_manifest ON site_id = site.id WHERE key = $1`,
        [key, knownEtag ?? null],
      );
      return row;
    },
    /** Forgets message files that no version had, their campaigns being gone, and letters that no message file loads. */
    async tidy(): Promise<void> {
      await why.tidy();
      await db.query(
        `DELETE FROM message_file AS file WHERE NOT EXISTS (
           SELECT FROM campaign_message had JOIN campaign ON campaign.id = had.campaign_id
            WHERE had.hash = file.hash AND campaign.site_id = file.site_id)
           AND NOT EXISTS (SELECT FROM site_manifest WHERE site_manifest.site_id = file.site_id
            AND strpos(body, file.hash) > 0)`,
      );
      await db.query(
        // What was made for a draft that somebody is trying is still wanted.
        `DELETE FROM letter_file AS file WHERE made_at < now() - interval '2 days'
           AND NOT EXISTS (SELECT FROM message_file AS message
            WHERE message.site_id = file.site_id AND strpos(message.body, file.hash) > 0)`,
      );
    },
    async findMessage(siteId: string, hash: string): Promise<string | undefined> {
      return (await db.getRepository(MessageFileEntity).findOneBy({ siteId, hash }))?.body;
    },
    /** The message file a visitor of this site had of a campaign; without a hash, the version's latest. */
    async findAnswered(siteId: string, { campaign, version, variant, hash }: Answered) {
      const [row]: { body: string }[] = await db.query(
        `SELECT file.body FROM campaign_message had
           JOIN campaign ON campaign.id = had.campaign_id AND campaign.site_id = $1
           JOIN message_file file ON file.site_id = $1 AND file.hash = had.hash
          WHERE had.campaign_id = $2 AND had.version = $3 AND had.variant = $4 AND ($5::text IS NULL OR had.hash = $5)
          ORDER BY had.language, had.first_at DESC LIMIT 1`,
        [siteId, campaign, version, variant ?? FIRST_VARIANT, hash ?? null],
      );
      return row && (JSON.parse(row.body) as MessageFile);
    },
  };
}
