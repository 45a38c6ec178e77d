import { randomUUID } from 'node:crypto';
import type {
  CampaignDocument,
  CampaignHistory,
  CampaignVersion,
  HistoryEntry,
  KeptForecast,
  PlannedDocument,
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
  /** Told of a plan that waits for a second person, in the transaction that makes it. */
  readonly onAsked: (manager: EntityManager, asker: Actor, planId: string) => Promise<void>;
}
type Actor = { readonly workspaceId: string; readonly accountId: string; readonly name: string };

interface Plan {
  readonly revision: number;
  readonly at: string | null;
  readonly note: string;
  readonly forecast?: KeptForecast | undefined;
}

/** Lines of a history that are read at once. */
const LISTED = 100;
/** Farther ahead nobody plans; a slip of the year would wait unnoticed. */
const FARTHEST_DAYS = 400;
const DAY_MS = 86_400_000;
/** A plan that was called off, or taken by another worker, while it was looked at. */
const calledOff = new Error('the plan is gone');
const planGone = () =>
  new ProblemError(
    409,
    'plan-gone',
    'Nothing waits for you here any more',
    'It was called off, changed or decided meanwhile. Look at it as it is now.',
  );

interface PlanRow {
  readonly id: string;
  readonly at: Date | null;
  readonly awaits: boolean;
  readonly document: CampaignDocument;
  readonly forecast: KeptForecast | null;
  readonly revision: number;
  readonly note: string;
  readonly byAccount: string | null;
  readonly byName: string;
  readonly failure: string;
}

/** What has become of campaigns: every version and move, what is planned, and how an old one comes back. */
export function createVersionService({ db, jobs, campaigns, publishing, onAsked }: VersionServices) {
  async function planOf(
    campaignId: string,
    manager: EntityManager = db.manager,
  ): Promise<PlanRow | undefined> {
    const [row]: PlanRow[] = await manager.query(
      `SELECT id, at, awaits, document, forecast, revision, note, by_account AS "byAccount", by_name AS "byName", failure
         FROM planned_launch WHERE campaign_id = $1`,
      [campaignId],
    );
    return row;
  }
  const planned = (
    { id, at, awaits, note, byAccount, byName, revision, failure }: PlanRow,
    accountId: string,
  ): PlannedLaunch => ({
    id,
    at: at?.toISOString() ?? null,
    awaits,
    isMine: byAccount === accountId,
    note,
    byName,
    revision,
    failure,
  });
  const noteMove = (manager: EntityManager, campaignId: string, what: string, byName: string, note: string) =>
    manager.query('INSERT INTO campaign_move (campaign_id, what, by_name, note) VALUES ($1, $2, $3, $4)', [
      campaignId,
      what,
      byName,
      note,
    ]);

  /** Takes a plan away with what is done of it, or not at all: it is kept once, whatever dies meanwhile. */
  async function takePlan(manager: EntityManager, campaignId: string, planId: string, gone: () => Error) {
    const [taken] = await manager.query(
      'DELETE FROM planned_launch WHERE campaign_id = $1 AND id = $2 RETURNING id',
      [campaignId, planId],
    );
    if (taken.length === 0) throw gone();
  }
  /** A plan that waits for a second person, if it is still the one that was looked at. */
  async function awaiting(actor: Actor, campaignId: string, planId: string): Promise<PlanRow> {
    await campaigns.siteOf(actor.workspaceId, campaignId);
    const plan = await planOf(campaignId);
    if (plan?.id !== planId || !plan.awaits) throw planGone();
    return plan;
  }

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
      const plan = await planOf(campaignId);
      return {
        live: state === 'running' || state === 'scheduled' ? (live?.version ?? null) : null,
        planned: plan ? planned(plan, actor.accountId) : null,
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

    /**
     * Plans that the draft as it is now is published at a time, or as soon as a second person agrees where the workspace asks
     * for one; an older plan gives way.
     */
    async plan(
      actor: Actor,
      campaignId: string,
      { revision, at, note, forecast }: Plan,
    ): Promise<PlannedLaunch> {
      const when = at === null ? null : new Date(at);
      const aheadMs = when ? when.getTime() - Date.now() : 1;
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
        // Held until the plan is there: whoever begins to ask for a second person finds it, and asks for one of it too.
        const [{ asksSecond }]: [{ asksSecond: boolean }] = await manager.query(
          'SELECT asks_second AS "asksSecond" FROM workspace WHERE id = $1 FOR SHARE',
          [actor.workspaceId],
        );
        if (when === null && !asksSecond)
          throw new ProblemError(
            422,
            'invalid-input',
            'Not a time to launch at',
            'Nobody need agree to it, so it wants a time. Choose one, or publish it now.',
            [{ path: 'at', message: 'choose a time' }],
          );
        await manager.query(
          `INSERT INTO planned_launch (campaign_id, id, at, document, revision, note, by_account, by_name, awaits,
                                       forecast)
           VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10)
           ON CONFLICT (campaign_id) DO UPDATE SET id = $2, at = $3, document = $4, revision = $5, note = $6,
             by_account = $7, by_name = $8, awaits = $9, forecast = $10, failure = ''`,
          [
            campaignId,
            id,
            when,
            JSON.stringify(row.draft),
            revision,
            note,
            actor.accountId,
            actor.name,
            asksSecond,
            forecast ? JSON.stringify(forecast) : null,
          ],
        );
        if (when) await jobs.send(manager, 'launch-planned', { campaignId, planId: id }, when);
        if (asksSecond) {
          await noteMove(manager, campaignId, 'asked', actor.name, note);
          await onAsked(manager, actor, id);
        }
      });
      return planned((await planOf(campaignId)) as PlanRow, actor.accountId);
    },

    /** What is planned, with the document that will be published. */
    async planned(actor: Actor, campaignId: string): Promise<PlannedDocument> {
      await campaigns.siteOf(actor.workspaceId, campaignId);
      const plan = await planOf(campaignId);
      if (!plan) throw notFound('planned launch');
      return { ...planned(plan, actor.accountId), document: plan.document };
    },

    /** A second person agrees: it is launched, at once or when its time has come. */
    async agree(actor: Actor, campaignId: string, planId: string): Promise<void> {
      const plan = await awaiting(actor, campaignId, planId);
      if (plan.byAccount === actor.accountId)
        throw new ProblemError(
          403,
          'second-person',
          'Somebody else must agree',
          'You have asked for it yourself. It waits for another person who may launch.',
        );
      const byName = `${plan.byName}, agreed to by ${actor.name}`;
      if (plan.at && plan.at.getTime() > Date.now()) {
        await db.transaction(async (manager) => {
          const [agreed] = await manager.query(
            'UPDATE planned_launch SET awaits = false, by_name = $3 WHERE campaign_id = $1 AND id = $2 AND awaits RETURNING id',
            [campaignId, planId, byName],
          );
          if (agreed.length === 0) throw planGone();
        });
        return;
      }
      const { document, note, revision, forecast } = plan;
      await publishing.publishDocument({ ...actor, name: byName }, campaignId, {
        document,
        note,
        revision,
        forecast,
        isAgreed: true,
        also: (manager) => takePlan(manager, campaignId, planId, planGone),
      });
    },

    /** A second person does not agree, and says why. */
    async decline(actor: Actor, campaignId: string, planId: string, note: string): Promise<void> {
      await awaiting(actor, campaignId, planId);
      await db.transaction(async (manager) => {
        await takePlan(manager, campaignId, planId, planGone);
        await noteMove(manager, campaignId, 'declined', actor.name, note);
      });
    },

    async callOff(workspaceId: string, campaignId: string): Promise<void> {
      await campaigns.siteOf(workspaceId, campaignId);
      await db.query('DELETE FROM planned_launch WHERE campaign_id = $1', [campaignId]);
    },

    /** For the worker: launches what was planned, if it still is. What cannot be launched says why and waits for a person. */
    async launchPlanned({ campaignId, planId }: { campaignId: string; planId: string }): Promise<void> {
      const plan = await planOf(campaignId);
      // One that waits for a second person goes out when they agree.
      if (!plan || plan.id !== planId || plan.failure !== '' || plan.awaits) return;
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
        const { document, note, revision, forecast } = plan;
        await publishing.publishDocument(actor, campaignId, {
          document,
          note,
          revision,
          forecast,
          // A plan that need not be agreed to, or has been.
          isAgreed: true,
          also: (manager) => takePlan(manager, campaignId, planId, () => calledOff),
        });
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
