import { randomUUID } from 'node:crypto';
import type { CampaignDocument, KeptForecast, PlannedDocument, PlannedLaunch } from '@velarium/contract';
import type { DataSource, EntityManager } from 'typeorm';
import type { CampaignService } from '../campaigns/index.ts';
import type { Jobs } from '../infra/jobs.ts';
import { notFound, ProblemError } from '../infra/problem.ts';
import type { PublishingService } from '../publishing/index.ts';

export interface PlanServices {
  readonly db: DataSource;
  readonly jobs: Jobs;
  readonly campaigns: CampaignService;
  readonly publishing: PublishingService;
  /** Told of a plan that waits for a second person, in the transaction that makes it; of several at once of one of them. */
  readonly onAsked: (manager: EntityManager, asker: Actor, planId: string) => Promise<void>;
}
export type Actor = { readonly workspaceId: string; readonly accountId: string; readonly name: string };

interface Plan {
  readonly revision: number;
  readonly at: string | null;
  readonly note: string;
  readonly forecast?: KeptForecast | undefined;
}

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
const noTime = (detail: string, message: string) =>
  new ProblemError(422, 'invalid-input', 'Not a time to launch at', detail, [{ path: 'at', message }]);

interface PlanRow {
  readonly id: string;
  readonly campaignId: string;
  readonly at: Date | null;
  readonly awaits: boolean;
  readonly document: CampaignDocument;
  readonly forecast: KeptForecast | null;
  readonly revision: number;
  readonly note: string;
  readonly byAccount: string | null;
  readonly byName: string;
  readonly failure: string;
  readonly together: string | null;
  readonly othersTogether: number;
}
const COLUMNS = `p.id, p.campaign_id AS "campaignId", p.at, p.awaits, p.document, p.forecast, p.revision, p.note,
  p.by_account AS "byAccount", p.by_name AS "byName", p.failure, p.together,
  (SELECT count(*)::integer FROM planned_launch o WHERE o.together = p.together AND o.id <> p.id) AS "othersTogether"`;

/** What is planned to go live: at a time, as soon as a second person agrees, or both; by itself or several in one moment. */
export function createPlans({ db, jobs, campaigns, publishing, onAsked }: PlanServices) {
  async function planOf(
    campaignId: string,
    manager: EntityManager = db.manager,
  ): Promise<PlanRow | undefined> {
    const [row]: PlanRow[] = await manager.query(
      `SELECT ${COLUMNS} FROM planned_launch p WHERE campaign_id = $1`,
      [campaignId],
    );
    return row;
  }
  /** What goes with a plan. */
  const othersOf = ({ id, together }: PlanRow): Promise<(PlanRow & { readonly name: string })[]> =>
    together === null
      ? Promise.resolve([])
      : db.query(
          `SELECT ${COLUMNS}, c.name FROM planned_launch p JOIN campaign c ON c.id = p.campaign_id
            WHERE p.together = $1 AND p.id <> $2 ORDER BY c.name, p.id`,
          [together, id],
        );
  const planned = (
    { id, at, awaits, note, byAccount, byName, revision, failure, othersTogether }: PlanRow,
    accountId: string,
  ): PlannedLaunch => ({
    id,
    at: at?.toISOString() ?? null,
    awaits,
    together: othersTogether,
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

  /** Takes plans away with what is done of them, or not at all: each is kept once, whatever dies meanwhile. */
  async function takePlans(manager: EntityManager, ids: readonly string[], gone: () => Error) {
    const [taken] = await manager.query('DELETE FROM planned_launch WHERE id = ANY($1) RETURNING id', [ids]);
    if (taken.length < ids.length) throw gone();
  }
  /** A plan that waits for a second person, if it is still the one that was looked at. */
  async function awaiting(actor: Actor, campaignId: string, planId: string): Promise<PlanRow> {
    await campaigns.siteOf(actor.workspaceId, campaignId);
    const plan = await planOf(campaignId);
    if (plan?.id !== planId || !plan.awaits) throw planGone();
    return plan;
  }
  /** Held until the plan is there: whoever begins to ask for a second person finds it, and asks for one of it too. */
  async function asksSecond(manager: EntityManager, workspaceId: string): Promise<boolean> {
    const [row]: [{ asks: boolean }] = await manager.query(
      'SELECT asks_second AS asks FROM workspace WHERE id = $1 FOR SHARE',
      [workspaceId],
    );
    return row.asks;
  }

  /** Writes down the draft that was looked at as it is now, in the place of an older plan. */
  async function put(
    manager: EntityManager,
    actor: Actor,
    campaignId: string,
    {
      revision,
      at,
      note,
      forecast,
      awaits,
      together = null,
    }: Omit<Plan, 'at'> & {
      readonly at: Date | null;
      readonly awaits: boolean;
      readonly together?: string | null;
    },
  ): Promise<string> {
    const row = await campaigns.lock(manager, actor.workspaceId, campaignId);
    if (row.state === 'archived')
      throw new ProblemError(409, 'wrong-state', 'Not in this state', 'Take it out of the archive first.');
    if (row.revision !== revision)
      throw new ProblemError(
        409,
        'newer-revision',
        'Changed since you opened it',
        `Somebody else has changed “${row.name}” meanwhile, so nothing was planned. Look at it as it is now.`,
      );
    const id = randomUUID();
    await manager.query(
      `INSERT INTO planned_launch (campaign_id, id, at, document, revision, note, by_account, by_name, awaits,
                                   forecast, together)
       VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11)
       ON CONFLICT (campaign_id) DO UPDATE SET id = $2, at = $3, document = $4, revision = $5, note = $6,
         by_account = $7, by_name = $8, awaits = $9, forecast = $10, together = $11, failure = ''`,
      [
        campaignId,
        id,
        at,
        JSON.stringify(row.draft),
        revision,
        note,
        actor.accountId,
        actor.name,
        awaits,
        forecast ? JSON.stringify(forecast) : null,
        together,
      ],
    );
    if (awaits) await noteMove(manager, campaignId, 'asked', actor.name, note);
    return id;
  }

  return {
    /** What is planned of a campaign, as this member sees it. */
    async ofCampaign(actor: Actor, campaignId: string): Promise<PlannedLaunch | null> {
      const plan = await planOf(campaignId);
      return plan ? planned(plan, actor.accountId) : null;
    },

    /**
     * Plans that the draft as it is now is published at a time, or as soon as a second person agrees where the workspace asks
     * for one; an older plan gives way.
     */
    async plan(actor: Actor, campaignId: string, { at, ...plan }: Plan): Promise<PlannedLaunch> {
      const when = at === null ? null : new Date(at);
      const aheadMs = when ? when.getTime() - Date.now() : 1;
      if (aheadMs <= 0)
        throw noTime(
          'The time has gone by already. Choose a later one, or publish it now.',
          'choose another time',
        );
      if (aheadMs > FARTHEST_DAYS * DAY_MS)
        throw noTime(
          `It is more than ${FARTHEST_DAYS} days ahead. Choose an earlier one.`,
          'choose another time',
        );
      await db.transaction(async (manager) => {
        const awaits = await asksSecond(manager, actor.workspaceId);
        if (when === null && !awaits)
          throw noTime(
            'Nobody need agree to it, so it wants a time. Choose one, or publish it now.',
            'choose a time',
          );
        const id = await put(manager, actor, campaignId, { ...plan, at: when, awaits });
        if (when) await jobs.send(manager, 'launch-planned', { campaignId, planId: id }, when);
        if (awaits) await onAsked(manager, actor, id);
      });
      return planned((await planOf(campaignId)) as PlanRow, actor.accountId);
    },

    /** Asks a second person to agree to the drafts of several campaigns of a site: all of them, or none. */
    async askTogether(
      actor: Actor,
      siteId: string,
      chosen: readonly { readonly id: string; readonly revision: number }[],
      note: string,
    ): Promise<void> {
      for (const { id } of chosen)
        if ((await campaigns.siteOf(actor.workspaceId, id)) !== siteId) throw notFound('campaign');
      // In one order, so that two who ask at once never wait for each other in a circle.
      const inOrder = [...chosen].sort((a, b) => (a.id < b.id ? -1 : 1));
      await db.transaction(async (manager) => {
        if (!(await asksSecond(manager, actor.workspaceId)))
          throw new ProblemError(
            409,
            'wrong-state',
            'Nobody need agree',
            'In this workspace no second person is asked. Publish them together.',
          );
        const together = randomUUID();
        const ids: string[] = [];
        for (const { id, revision } of inOrder)
          ids.push(await put(manager, actor, id, { revision, at: null, note, awaits: true, together }));
        await onAsked(manager, actor, ids[0] as string);
      });
    },

    /** What is planned, with the documents that will be published. */
    async planned(actor: Actor, campaignId: string): Promise<PlannedDocument> {
      await campaigns.siteOf(actor.workspaceId, campaignId);
      const plan = await planOf(campaignId);
      if (!plan) throw notFound('planned launch');
      const others = await othersOf(plan);
      return {
        ...planned(plan, actor.accountId),
        document: plan.document,
        others: others.map((other) => ({
          id: other.id,
          campaignId: other.campaignId,
          name: other.name,
          revision: other.revision,
          document: other.document,
        })),
      };
    },

    /**
     * A second person agrees: it is launched, at once or when its time has come, and what was asked for together with it.
     *
     * @param lookedAt The plans that were looked at with it.
     */
    async agree(
      actor: Actor,
      campaignId: string,
      planId: string,
      lookedAt: readonly string[],
    ): Promise<void> {
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
      const others = await othersOf(plan);
      if (others.length !== lookedAt.length || others.some(({ id }) => !lookedAt.includes(id)))
        throw planGone();
      const all = [plan, ...others];
      await publishing.publishPlanned(
        { ...actor, name: byName },
        await campaigns.siteOf(actor.workspaceId, campaignId),
        all.map(({ campaignId: id, document, note, revision, forecast }) => ({
          id,
          document,
          note,
          revision,
          forecast,
        })),
        (manager) =>
          takePlans(
            manager,
            all.map(({ id }) => id),
            planGone,
          ),
      );
    },

    /** A second person does not agree, and says why; what was asked for together with it goes too. */
    async decline(actor: Actor, campaignId: string, planId: string, note: string): Promise<void> {
      const plan = await awaiting(actor, campaignId, planId);
      const all = [plan, ...(await othersOf(plan))];
      await db.transaction(async (manager) => {
        await takePlans(
          manager,
          all.map(({ id }) => id),
          planGone,
        );
        for (const one of all) await noteMove(manager, one.campaignId, 'declined', actor.name, note);
      });
    },

    /** With all that was asked for together with it. */
    async callOff(workspaceId: string, campaignId: string): Promise<void> {
      await campaigns.siteOf(workspaceId, campaignId);
      await db.query(
        `DELETE FROM planned_launch WHERE campaign_id = $1
            OR together = (SELECT together FROM planned_launch WHERE campaign_id = $1)`,
        [campaignId],
      );
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
          also: (manager) => takePlans(manager, [planId], () => calledOff),
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
