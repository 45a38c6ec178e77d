import type { CampaignDocument, Experiment, Experiments, Trial, TrialForecast } from '@velarium/contract';
import { DEFAULT_TRIAL, sharesOf, trialForecast } from '@velarium/core';
import type { DataSource, EntityManager } from 'typeorm';
import type { CampaignService } from '../campaigns/index.ts';
import { notFound, ProblemError } from '../infra/problem.ts';
import { contentHash, type PublishingService } from '../publishing/index.ts';
import { countEvents } from '../results/index.ts';
import type { SiteService } from '../sites/index.ts';
import { type ExperimentRow, experimentDays } from './days.ts';

/** Answers to a message come with it or not at all: a day after the showing nobody is waited for. */
const WINDOW_HOURS = 24;
const KEPT_LISTED = 20;

/** Whether somebody who was shown it reached the goal within its days. */
const REACHED = `kind = 'shown' AND EXISTS (SELECT FROM goal_reached hit
  WHERE hit.goal_id = $2 AND hit.visitor = visitor_day.visitor AND hit.at > visitor_day.first_at
    AND hit.at <= visitor_day.first_at + $3 * interval '1 day')`;

const COLUMNS = `id, campaign_id AS "campaignId", arms, tried, visitors_a_side AS "visitorsASide", smallest, goal,
  window_hours AS "windowHours", started_at AS "startedAt", ended_at AS "endedAt", ended, adopted, found`;

interface Actor {
  readonly workspaceId: string;
  readonly accountId: string;
  readonly name: string;
}

export function createExperimentService({
  db,
  sites,
  campaigns,
}: {
  readonly db: DataSource;
  readonly sites: SiteService;
  readonly campaigns: CampaignService;
}) {
  const open = async (manager: EntityManager, campaignId: string): Promise<ExperimentRow | undefined> => {
    const [row]: ExperimentRow[] = await manager.query(
      `SELECT ${COLUMNS} FROM experiment WHERE campaign_id = $1 AND ended_at IS NULL`,
      [campaignId],
    );
    return row;
  };
  async function zoneOf(manager: EntityManager, campaignId: string): Promise<string> {
    const [row]: { site: string }[] = await manager.query(
      'SELECT site_id AS site FROM campaign WHERE id = $1',
      [campaignId],
    );
    return sites.zoneOf(manager, row?.site ?? '');
  }
  /** Ends it with what was found: its numbers stay as they are from now on. */
  async function end(
    manager: EntityManager,
    row: ExperimentRow,
    ended: NonNullable<Experiment['ended']>,
    adopted: string | null,
  ): Promise<void> {
    const found = await experimentDays(manager, row, await zoneOf(manager, row.campaignId));
    await manager.query(
      'UPDATE experiment SET ended_at = now(), ended = $2, adopted = $3, found = $4 WHERE id = $1',
      [row.id, ended, adopted, JSON.stringify(found)],
    );
  }
  /** The last 28 days of a campaign: its rate, and how many visitors come a day. */
  async function lately(manager: EntityManager, campaignId: string, goal: Experiment['goal']) {
    const [row]: { visitors: string; converters: string; days: string }[] = await manager.query(
      `SELECT count(DISTINCT visitor) FILTER (WHERE kind = 'shown') AS visitors,
              count(DISTINCT visitor) FILTER (WHERE ${goal ? REACHED : "kind = 'converted'"}) AS converters,
              count(DISTINCT day) AS days
         FROM visitor_day WHERE campaign_id = $1 AND kind IN ('shown', 'converted') AND day > now()::date - 28 AND day > '-infinity'`,
      [campaignId, ...(goal ? [goal.id, goal.days] : [])],
    );
    return {
      visitors: Number(row?.visitors ?? 0),
      converters: Number(row?.converters ?? 0),
      days: Number(row?.days ?? 0),
    };
  }
  const forecastOf = async (manager: EntityManager, campaignId: string, trial: Trial, arms: number) =>
    trialForecast(await lately(manager, campaignId, await goalOf(manager, campaignId, trial)), trial, arms);

  /** The goal a trial is for, as it is now. */
  async function goalOf(
    manager: EntityManager,
    campaignId: string,
    { goal: id }: Trial,
  ): Promise<Experiment['goal']> {
    if (id === undefined) return null;
    const [goal]: NonNullable<Experiment['goal']>[] = await manager.query(
      `SELECT goal.id, goal.name, goal.days FROM goal JOIN campaign ON campaign.site_id = goal.site_id
        WHERE goal.id = $1 AND campaign.id = $2`,
      [id, campaignId],
    );
    if (goal) return goal;
    throw new ProblemError(
      409,
      'goal-gone',
      'The goal is gone',
      'What its variants are tried for is no goal of the site any more. Choose another under Limits.',
    );
  }

  const shown = async (row: ExperimentRow, timeZone: string): Promise<Experiment> => {
    const { campaignId: _campaign, arms: _arms, tried: _tried, found, ...rest } = row;
    return {
      ...rest,
      startedAt: row.startedAt.toISOString(),
      endedAt: row.endedAt?.toISOString() ?? null,
      undivided: 0,
      robots: 0,
      ...(found ?? (await experimentDays(db.manager, row, timeZone))),
    };
  };

  return {
    /**
     * A publish that divides visitors begins an experiment, or leaves the one that runs as it is where the division is the
     * same; one that divides them otherwise, or no longer, ends it. In the transaction of the publish.
     */
    async onPublished(manager: EntityManager, campaignId: string): Promise<void> {
      const [live]: { document: CampaignDocument }[] = await manager.query(
        `SELECT v.document FROM campaign c JOIN campaign_version v ON v.campaign_id = c.id AND v.version = c.live_version
          WHERE c.id = $1`,
        [campaignId],
      );
      if (!live) return;
      const { message, rule, variants, trial = DEFAULT_TRIAL } = live.document;
      const arms = variants.length === 0 ? [] : sharesOf(variants);
      const tried = contentHash(
        JSON.stringify([message, rule.moment, variants, ...(trial.goal ? [trial.goal] : [])]),
      );
      const running = await open(manager, campaignId);
      if (running?.tried === tried) return;
      if (running) await end(manager, running, 'changed', null);
      if (arms.length === 0) return;
      const goal = await goalOf(manager, campaignId, trial);
      const { visitorsASide } = await forecastOf(manager, campaignId, trial, arms.length);
      await manager.query(
        `INSERT INTO experiment (campaign_id, arms, tried, visitors_a_side, smallest, window_hours, goal)
         VALUES ($1, $2, $3, $4, $5, $6, $7)`,
        [
          campaignId,
          JSON.stringify(arms),
          tried,
          trial.isPlanned ? visitorsASide : null,
          trial.smallest / 100,
          goal ? goal.days * 24 : WINDOW_HOURS,
          goal && JSON.stringify(goal),
        ],
      );
    },

    async list(workspaceId: string, campaignId: string): Promise<Experiments> {
      const siteId = await campaigns.siteOf(workspaceId, campaignId);
      const { timeZone } = await sites.get(workspaceId, siteId);
      await countEvents(db);
      const rows: ExperimentRow[] = await db.query(
        `SELECT ${COLUMNS} FROM experiment WHERE campaign_id = $1 ORDER BY started_at DESC LIMIT ${KEPT_LISTED}`,
        [campaignId],
      );
      const all = await Promise.all(rows.map((row) => shown(row, timeZone)));
      return {
        running: all.find(({ endedAt }) => endedAt === null) ?? null,
        ended: all.filter(({ endedAt }) => endedAt !== null),
      };
    },

    /** What can be known before it begins: how many visitors it takes, and how many days. */
    async forecast(
      workspaceId: string,
      campaignId: string,
      trial: Trial,
      arms: number,
    ): Promise<TrialForecast> {
      await campaigns.siteOf(workspaceId, campaignId);
      await countEvents(db);
      return forecastOf(db.manager, campaignId, trial, arms);
    },

    /**
     * Ends the experiment: a variant becomes the campaign's message and moment, published at once, or the present one stays.
     *
     * @returns The draft as it was before, by which it can be undone.
     */
    async end(
      actor: Actor,
      campaignId: string,
      adopt: string | null,
      publishing: Pick<PublishingService, 'publish' | 'assertAlone'>,
    ): Promise<CampaignDocument> {
      const { document, revision, state, hasUnpublishedChanges } = await campaigns.get(
        actor.workspaceId,
        campaignId,
      );
      await countEvents(db);
      const row = await open(db.manager, campaignId);
      if (!row) throw notFound('experiment');
      if (adopt !== null && !row.arms.some(({ id }) => id === adopt))
        throw new ProblemError(422, 'no-variant', 'No such variant', 'Choose one of those that were tried.');
      if (state === 'resting' || state === 'archived')
        throw new ProblemError(
          409,
          'at-rest',
          'The campaign rests',
          'Ending its experiment is a publish, and would run it. Run it again yourself, and end it then.',
        );
      if (hasUnpublishedChanges)
        throw new ProblemError(
          409,
          'edits-open',
          'There are edits that are not published',
          'Ending it would publish them unseen. Publish them, or take them back on the Workbench, and end it then.',
        );
      await publishing.assertAlone(actor.workspaceId);
      const chosen = document.variants.find(({ id }) => id === adopt);
      const { trial: _trial, ...rest } = document;
      const next: CampaignDocument = {
        ...rest,
        ...(chosen ? { message: chosen.message } : {}),
        rule: { ...document.rule, moment: chosen?.moment ?? document.rule.moment },
        variants: [],
      };
      const saved = await campaigns.saveDraft(actor, campaignId, revision, next);
      // The publish has ended it, since nobody is divided any more; now it is known what for.
      await publishing.publish(actor, campaignId, saved.revision);
      await db.query('UPDATE experiment SET ended = $2, adopted = $3 WHERE id = $1', [
        row.id,
        adopt === null ? 'stopped' : 'adopted',
        adopt,
      ]);
      return document;
    },
  };
}
export type ExperimentService = ReturnType<typeof createExperimentService>;
