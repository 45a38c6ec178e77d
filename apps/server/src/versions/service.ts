import type { CampaignDocument, CampaignHistory, CampaignVersion, HistoryEntry } from '@velarium/contract';
import { notFound } from '../infra/problem.ts';
import { type Actor, createPlans, type PlanServices } from './plans.ts';

/** Lines of a history that are read at once. */
const LISTED = 100;

/** What has become of campaigns: every version and move, what is planned, and how an old one comes back. */
export function createVersionService(services: PlanServices) {
  const { db, campaigns, publishing } = services;
  const { ofCampaign, ...plans } = createPlans(services);

  async function find(workspaceId: string, campaignId: string, version: number): Promise<CampaignVersion> {
    await campaigns.siteOf(workspaceId, campaignId);
    const [row]: { document: CampaignDocument; publishedAt: Date }[] = await db.query(
      'SELECT document, published_at AS "publishedAt" FROM campaign_version WHERE campaign_id = $1 AND version = $2',
      [campaignId, version],
    );
    if (!row) throw notFound('version');
    const files: { variant: string; language: string; hash: string; firstAt: Date }[] = await db.query(
      `SELECT variant, language, hash, first_at AS "firstAt" FROM campaign_message
        WHERE campaign_id = $1 AND version = $2 ORDER BY variant, language, first_at DESC`,
      [campaignId, version],
    );
    return {
      version,
      document: row.document,
      publishedAt: row.publishedAt.toISOString(),
      files: files.map(({ firstAt, ...file }) => ({ ...file, firstAt: firstAt.toISOString() })),
    };
  }

  return {
    ...plans,
    find,

    /** The newest lines, or those after a cursor. */
    async history(actor: Actor, campaignId: string, cursor?: string): Promise<CampaignHistory> {
      const { state } = await campaigns.get(actor.workspaceId, campaignId);
      const [at, what, version] = cursor?.split('~') ?? [];
      const rows: (Omit<HistoryEntry, 'at'> & { at: Date; cursor: string })[] = await db.query(
        `SELECT *, concat_ws('~', at, what, coalesce(version, 0)) AS cursor FROM (
           SELECT at, what, version, by_name AS "byName", note FROM campaign_move WHERE campaign_id = $1
           UNION ALL
           -- A message that visitors were given anew, although nothing was published: what it is drawn with has changed.
           SELECT first_at, 'redrawn', version, '', '' FROM (
             SELECT first_at, version, row_number() OVER (PARTITION BY version, variant, language ORDER BY first_at) AS nth
               FROM campaign_message WHERE campaign_id = $1) AS given WHERE nth > 1) AS one
          ${cursor ? 'WHERE (at, what, coalesce(version, 0)) < ($2::timestamptz, $3, $4::integer)' : ''}
          ORDER BY at DESC, what DESC, coalesce(version, 0) DESC LIMIT ${LISTED + 1}`,
        [campaignId, ...(cursor ? [at, what, version] : [])],
      );
      const entries = rows.slice(0, LISTED);
      const [live]: { version: number | null }[] = await db.query(
        'SELECT live_version AS version FROM campaign WHERE id = $1',
        [campaignId],
      );
      return {
        live: state === 'running' || state === 'scheduled' ? (live?.version ?? null) : null,
        planned: await ofCampaign(actor, campaignId),
        entries: entries.map(({ at, cursor: _cursor, ...entry }) => ({ ...entry, at: at.toISOString() })),
        next: rows.length > LISTED ? (entries.at(-1)?.cursor ?? null) : null,
      };
    },

    /** The file visitors had of a version's message: drawn as it was, whatever its Look says today. */
    async file(workspaceId: string, campaignId: string, hash: string): Promise<string> {
      const siteId = await campaigns.siteOf(workspaceId, campaignId);
      const [had] = await db.query(
        'SELECT FROM campaign_message WHERE campaign_id = $1 AND hash = $2 LIMIT 1',
        [campaignId, hash],
      );
      const body = had && (await publishing.findMessage(siteId, hash));
      if (body === undefined) throw notFound('file');
      return body;
    },

    /** Publishes a version of before as a new one that equals it; the draft stays as it is. */
    async bringBack(actor: Actor, campaignId: string, version: number, note: string): Promise<void> {
      const { document } = await find(actor.workspaceId, campaignId, version);
      const said = note === '' ? `Version ${version} again` : note;
      await publishing.publishDocument(actor, campaignId, { document, note: said });
    },
  };
}
export type VersionService = ReturnType<typeof createVersionService>;
