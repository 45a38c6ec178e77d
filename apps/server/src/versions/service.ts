import { randomUUID } from 'node:crypto';
import type {
  CampaignDocument,
  CampaignHistory,
  CampaignVersion,
  HistoryEntry,
  PlannedLaunch,
} from '@velarium/contract';
import type { DataSource, EntityManager } from 'typeorm';
import type { CampaignService } from '../campaigns/index.ts';
import type { Jobs } from '../infra/jobs.ts';
import { notFound, ProblemError } from '../infra/problem.ts';
import type { PublishingService } from '../publishing/index.ts';

export interface VersionServices {
  readonly db: DataSource;
  readonly jobs: Jobs;
  readonly campaigns: CampaignService;
  readonly publishing: PublishingService;
}
type Actor = { readonly workspaceId: string; readonly accountId: string; readonly name: string };

/** Lines of a history that are read at once. */
const LISTED = 100;
/** Farther ahead nobody plans; a slip of the year would wait unnoticed. */
const FARTHEST_DAYS = 400;
const DAY_MS = 86_400_000;
/** A plan that was called off, or taken by another worker, while it was looked at. */
const calledOff = new Error('the plan is gone');

interface PlanRow {
  readonly id: string;
  readonly at: Date;
  readonly document: CampaignDocument;
  readonly revision: number;
  readonly note: string;
  readonly byAccount: string | null;
  readonly byName: string;
  readonly failure: string;
}

/** What has become of campaigns: every version and move, what is planned, and how an old one comes back. */
export function createVersionService({ db, jobs, campaigns, publishing }: VersionServices) {
  async function planOf(
    campaignId: string,
    manager: EntityManager = db.manager,
  ): Promise<PlanRow | undefined> {
    const [row]: PlanRow[] = await manager.query(
      `SELECT id, at, document, revision, note, by_account AS "byAccount", by_name AS "byName", failure
         FROM planned_launch WHERE campaign_id = $1`,
      [campaignId],
    );
    return row;
  }
  const planned = ({ at, note, byName, revision, failure }: PlanRow): PlannedLaunch => ({
    at: at.toISOString(),
    note,
    byName,
    revision,
    failure,
  });

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
    find,

    /** The newest lines, or those after a cursor. */
    async history(workspaceId: string, campaignId: string, cursor?: string): Promise<CampaignHistory> {
      const { state } = await campaigns.get(workspaceId, campaignId);
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
      const plan = await planOf(campaignId);
      return {
        live: state === 'running' || state === 'scheduled' ? (live?.version ?? null) : null,
        planned: plan ? planned(plan) : null,
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

    /** Plans that the draft as it is now is published at a time; an older plan gives way. */
    async plan(
      actor: Actor,
      campaignId: string,
      { revision, at, note }: { readonly revision: number; readonly at: string; readonly note: string },
    ): Promise<PlannedLaunch> {
      const when = new Date(at);
      const aheadMs = when.getTime() - Date.now();
      if (aheadMs <= 0 || aheadMs > FARTHEST_DAYS * DAY_MS)
        throw new ProblemError(
          422,
          'invalid-input',
          'Not a time to launch at',
          aheadMs <= 0
            ? 'The time has gone by already. Choose a later one, or publish it now.'
            : `It is more than ${FARTHEST_DAYS} days ahead. Choose an earlier one.`,
          [{ path: 'at', message: 'choose another time' }],
        );
      const id = randomUUID();
      await db.transaction(async (manager) => {
        const row = await campaigns.lock(manager, actor.workspaceId, campaignId);
        if (row.state === 'archived')
          throw new ProblemError(
            409,
            'wrong-state',
            'Not in this state',
            'Take it out of the archive first.',
          );
        if (row.revision !== revision)
          throw new ProblemError(
            409,
            'newer-revision',
            'Changed since you opened it',
            'Somebody else has changed this campaign meanwhile, so nothing was planned. Look at it as it is now.',
          );
        await manager.query(
          `INSERT INTO planned_launch (campaign_id, id, at, document, revision, note, by_account, by_name)
           VALUES ($1, $2, $3, $4, $5, $6, $7, $8)
           ON CONFLICT (campaign_id) DO UPDATE SET id = $2, at = $3, document = $4, revision = $5, note = $6,
             by_account = $7, by_name = $8, failure = ''`,
          [campaignId, id, when, JSON.stringify(row.draft), revision, note, actor.accountId, actor.name],
        );
        await jobs.send(manager, 'launch-planned', { campaignId, planId: id }, when);
      });
      return planned((await planOf(campaignId)) as PlanRow);
    },

    async callOff(workspaceId: string, campaignId: string): Promise<void> {
      await campaigns.siteOf(workspaceId, campaignId);
      await db.query('DELETE FROM planned_launch WHERE campaign_id = $1', [campaignId]);
    },

    /** For the worker: launches what was planned, if it still is. What cannot be launched says why and waits for a person. */
    async launchPlanned({ campaignId, planId }: { campaignId: string; planId: string }): Promise<void> {
      const plan = await planOf(campaignId);
      if (!plan || plan.id !== planId || plan.failure !== '') return;
      const [owner]: { workspaceId: string }[] = await db.query(
        'SELECT workspace_id AS "workspaceId" FROM campaign WHERE id = $1',
        [campaignId],
      );
      if (!owner) return;
      const actor = {
        workspaceId: owner.workspaceId,
        accountId: plan.byAccount as string,
        name: plan.byName,
      };
      try {
        const { document, note, revision } = plan;
        // With the publishing or not at all: a plan is kept once, whatever dies meanwhile.
        const also = async (manager: EntityManager) => {
          const [gone] = await manager.query(
            'DELETE FROM planned_launch WHERE campaign_id = $1 AND id = $2 RETURNING id',
            [campaignId, planId],
          );
          if (gone.length === 0) throw calledOff;
        };
        await publishing.publishDocument(actor, campaignId, { document, note, revision, also });
      } catch (error) {
        if (error === calledOff) return;
        if (!(error instanceof ProblemError) || error.status >= 500) throw error;
        await db.query('UPDATE planned_launch SET failure = $3 WHERE campaign_id = $1 AND id = $2', [
          campaignId,
          planId,
          error.detail,
        ]);
      }
    },
  };
}
export type VersionService = ReturnType<typeof createVersionService>;
