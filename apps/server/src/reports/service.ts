import type {
  CampaignParts,
  CampaignPartsQuestion,
  CampaignResults,
  MetByPage,
  MetOn,
  PeriodQuestion,
  ResultMark,
  SiteResults,
  Stretch,
} from '@velarium/contract';
import { MET_CELLS, MET_ON_A_DAY, MET_ON_DAYS } from '@velarium/contract/values';
import { type Asked, askedDays, partsByGroup, wallClock } from '@velarium/core';
import type { DataSource } from 'typeorm';
import type { CampaignService } from '../campaigns/index.ts';
import { readGoals } from '../goals/index.ts';
import { ProblemError } from '../infra/problem.ts';
import type { Reader, Reads } from '../infra/reader.ts';
import { barePath, countEvents, eventPath } from '../results/index.ts';
import type { SiteService } from '../sites/index.ts';
import { closesOf, onMessageOf, openedOf, partsOf, versionsOf } from './breakdowns.ts';
import { happenedIn, type Whose } from './counts.ts';

const MARKS = 400;

interface ReportServices {
  readonly db: DataSource;
  readonly reader: Reader;
  readonly sites: SiteService;
  readonly campaigns: CampaignService;
}

/** What campaigns did, of any stretch of days. Everything is read from what `results/count-events.ts` has counted. */
export function createReports({ db, reader, sites, campaigns }: ReportServices) {
  /** The first day anything happened on. */
  async function firstDayOf(reads: Reads, { of, id }: Whose): Promise<string | undefined> {
    const [row]: { first: string | null }[] = await reads.query(
      // One look into the index for each campaign.
      `SELECT to_char(min(first), 'YYYY-MM-DD') AS first
         FROM campaign, LATERAL (SELECT min(day) AS first FROM campaign_day WHERE campaign_id = campaign.id) AS days
        WHERE campaign.${of === 'site' ? 'site_id' : 'id'} = $1`,
      [id],
    );
    return row?.first ?? undefined;
  }

  /** The days a question is about, in the site's own zone. */
  async function asked(
    reads: Reads,
    question: PeriodQuestion,
    timeZone: string,
    whose: Whose,
  ): Promise<Asked> {
    const today = new Date(wallClock(Date.now(), timeZone)).toISOString().slice(0, 10);
    const first = question.period === 'launch' ? await firstDayOf(reads, whose) : undefined;
    const found = askedDays(question, today, first ?? today);
    if (typeof found === 'string')
      throw new ProblemError(422, 'wrong-period', 'These days cannot be shown', found);
    return found;
  }

  /** What was done on these days with the campaigns of a site: what the others did belongs to what one met. */
  async function marksOf(
    reads: Reads,
    siteId: string,
    { from, until }: Stretch,
    timeZone: string,
  ): Promise<ResultMark[]> {
    return reads.query(
      `SELECT to_char(m.at AT TIME ZONE $4, 'YYYY-MM-DD') AS day, m.campaign_id AS "campaignId", c.name, m.what, m.version
         FROM campaign_move m JOIN campaign c ON c.id = m.campaign_id
        -- What was only asked for changed nothing for visitors.
        WHERE c.site_id = $1 AND m.what NOT IN ('asked', 'declined') AND m.at >= $2::date::timestamp AT TIME ZONE $4
          AND m.at < ($3::date + 1)::timestamp AT TIME ZONE $4
        ORDER BY m.at LIMIT ${MARKS}`,
      [siteId, from, until, timeZone],
    );
  }

  return {
    async ofSite(workspaceId: string, siteId: string, question: PeriodQuestion): Promise<SiteResults> {
      const [{ timeZone }] = await Promise.all([sites.get(workspaceId, siteId), countEvents(db)]);
      const reads = await reader.current();
      const whose = { of: 'site', id: siteId } as const;
      const { period, against } = await asked(reads, question, timeZone, whose);
      // None waits for another: each is a look of its own at what was counted.
      const [happened, before, [{ rows, met }], marks] = await Promise.all([
        happenedIn(reads, whose, period),
        against && happenedIn(reads, whose, against),
        reads.query<
          [
            {
              rows: { id: string; name: string; state: string }[];
              met: { messages: number; visitors: number }[];
            },
          ]
        >(
          `SELECT (SELECT coalesce(json_agg(c ORDER BY created_at), '[]')
                     FROM (SELECT id, name, state, created_at FROM campaign WHERE site_id = $1) AS c) AS rows,
                  (SELECT coalesce(json_agg(m), '[]')
                     FROM (SELECT messages, sum(visitors) AS visitors FROM met_day
                            WHERE site_id = $1 AND day BETWEEN $2 AND $3 GROUP BY messages) AS m) AS met`,
          [siteId, period.from, period.until],
        ),
        marksOf(reads, siteId, period, timeZone),
      ]);
      return {
        period,
        against,
        timeZone,
        points: happened.points,
        pointsAgainst: before?.points ?? [],
        marks,
        campaigns: rows.map(({ id, name, state }) => ({
          id,
          name,
          isArchived: state === 'archived',
          counts: happened.counts(id),
          before: before?.counts(id) ?? null,
        })),
        met: Array.from(
          { length: MET_ON_A_DAY },
          (_, n) => met.find(({ messages }) => messages === n + 1)?.visitors ?? 0,
        ),
      };
    },

    /** How often each campaign was really met on a page of the catalogue, lately. */
    async metOn(workspaceId: string, siteId: string, path: string): Promise<MetOn[]> {
      await sites.get(workspaceId, siteId);
      const reads = await reader.current();
      return reads.query(
        `SELECT campaign_id AS campaign, count(*)::integer AS showings, count(DISTINCT visitor)::integer AS visitors
           FROM event
          WHERE campaign_id IN (SELECT id FROM campaign WHERE site_id = $1) AND kind = 'shown'
            AND $2 IN (${eventPath('event')}, coalesce(counted_path, page))
            AND at >= now() - ${MET_ON_DAYS} * interval '1 day'
          GROUP BY campaign_id`,
        [siteId, path],
      );
    },

    /** The same of all pages at once; of more cells than anybody can look at, those that were met most. */
    async metByPage(workspaceId: string, siteId: string): Promise<MetByPage[]> {
      const { settings } = await sites.get(workspaceId, siteId);
      const reads = await reader.current();
      // Where more than the path tells pages apart, core does that with the whole address.
      const isByPath = settings.pageParameters.length === 0 && !settings.hashRoutes;
      return reads.query(
        `SELECT campaign_id AS campaign, coalesce(counted_path, ${isByPath ? barePath('event') : 'page'}) AS path, device,
                count(*)::integer AS showings
           FROM event
          WHERE campaign_id IN (SELECT id FROM campaign WHERE site_id = $1) AND kind = 'shown'
            AND at >= now() - ${MET_ON_DAYS} * interval '1 day'
          GROUP BY 1, 2, 3 ORDER BY showings DESC, path, campaign, device LIMIT ${MET_CELLS}`,
        [siteId],
      );
    },

    async ofCampaign(
      workspaceId: string,
      campaignId: string,
      question: PeriodQuestion,
    ): Promise<CampaignResults> {
      const siteId = await campaigns.siteOf(workspaceId, campaignId);
      const { timeZone } = await sites.get(workspaceId, siteId);
      await countEvents(db);
      const reads = await reader.current();
      const whose = { of: 'campaign', id: campaignId } as const;
      const { period, against } = await asked(reads, question, timeZone, whose);
      const stretch = { campaignId, period, timeZone };
      const [[campaign], happened, before, [answered], opened, closes, marks] = await Promise.all([
        reads.query<{ name: string }[]>('SELECT name FROM campaign WHERE id = $1', [campaignId]),
        happenedIn(reads, whose, period),
        against && happenedIn(reads, whose, against),
        reads.query<[{ answers: string; confirmed: string }]>(
          `SELECT count(*) AS answers, count(*) FILTER (WHERE p.state = 'confirmed') AS confirmed
           FROM lead l LEFT JOIN person p ON p.id = l.person_id
          WHERE l.campaign_id = $1 AND l.held IS NULL AND l.submitted_at >= $2::date::timestamp AT TIME ZONE $4
            AND l.submitted_at < ($3::date + 1)::timestamp AT TIME ZONE $4`,
          [campaignId, period.from, period.until, timeZone],
        ),
        openedOf(reads, stretch),
        closesOf(reads, stretch),
        marksOf(reads, siteId, period, timeZone),
      ]);
      return {
        id: campaignId,
        name: campaign?.name ?? '',
        period,
        against,
        timeZone,
        points: happened.points,
        pointsAgainst: before?.points ?? [],
        marks,
        counts: happened.counts(campaignId),
        before: before?.counts(campaignId) ?? null,
        answers: Number(answered.answers),
        confirmed: Number(answered.confirmed),
        closes,
        openedSeconds: opened.seconds,
        openedDepth: opened.depth,
      };
    },

    /** The visitors of the same days, told apart: each of them is looked at. */
    async partsOfCampaign(
      workspaceId: string,
      campaignId: string,
      { by, ...question }: CampaignPartsQuestion,
    ): Promise<CampaignParts> {
      const siteId = await campaigns.siteOf(workspaceId, campaignId);
      const { timeZone, settings, origins } = await sites.get(workspaceId, siteId);
      await countEvents(db);
      const reads = await reader.current();
      const { period } = await asked(reads, question, timeZone, { of: 'campaign', id: campaignId });
      const stretch = { campaignId, period, timeZone };
      const [{ parts, byVersion }, onMessage, goals, site] = await Promise.all([
        by === 'group' ? partsOf(reads, stretch, 'page', null) : partsOf(reads, stretch, by),
        onMessageOf(reads, stretch),
        readGoals(reads, { campaignId, siteId, period }),
        by === 'group' ? Promise.all([sites.groups.list(siteId), sites.pages(workspaceId, siteId)]) : null,
      ]);
      const [groups, known] = site ?? [];
      return {
        by,
        parts: groups && known ? partsByGroup(parts, groups, { settings, origins, known }) : parts,
        onMessage,
        goals,
        versions: await versionsOf(reads, stretch, byVersion),
      };
    },

    /** A campaign's events of one kind, day by day over the stretch that was asked. */
    async dayCounts(
      workspaceId: string,
      campaignId: string,
      kind: 'shown' | 'converted',
      question: PeriodQuestion,
    ): Promise<{ day: string; count: number }[]> {
      const siteId = await campaigns.siteOf(workspaceId, campaignId);
      const { timeZone } = await sites.get(workspaceId, siteId);
      await countEvents(db);
      const reads = await reader.current();
      const { period } = await asked(reads, question, timeZone, { of: 'campaign', id: campaignId });
      return reads.query(
        `SELECT to_char(one, 'YYYY-MM-DD') AS day, coalesce(d.${kind}, 0)::integer AS count
           FROM generate_series($2::date, $3::date, '1 day') AS one
           LEFT JOIN campaign_day d ON d.day = one::date AND d.campaign_id = $1
          ORDER BY one`,
        [campaignId, period.from, period.until],
      );
    },
  };
}
export type Reports = ReturnType<typeof createReports>;
